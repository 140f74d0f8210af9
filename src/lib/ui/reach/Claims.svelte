<script lang="ts">
  import { FEWEST_IN_GROUP, type DimensionClaims } from '$lib/core/reach/claims.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { claimMessage, dimensionLabels, groupLabel } from './reachMessages.ts';

  interface Props {
    claims: readonly DimensionClaims[];
    laneName: (id: string) => string | undefined;
    placeName: (id: string) => string | undefined;
  }
  let { claims, laneName, placeName }: Props = $props();
  const known = $derived(claims.filter(({ groups }) => groups.length > 0));
  const unknown = $derived(claims.filter(({ groups }) => groups.length === 0));
</script>

<section aria-labelledby="claims-title" class="flex flex-col gap-2">
  <h2 id="claims-title" class="font-semibold">What does well</h2>
  <p class="text-sm text-quiet">
    Each item is compared with others of its kind and age. Differences that may be chance are not
    counted.
  </p>
  {#each known as { dimension, groups } (dimension)}
    <table class="w-full text-sm">
      <caption class="text-left font-semibold">{dimensionLabels[dimension]}</caption>
      <thead class="sr-only">
        <tr><th scope="col">Group</th><th scope="col">Items</th><th scope="col">Difference</th></tr>
      </thead>
      <tbody>
        {#each groups as group (group.group)}
          <tr class="border-t border-line {group.isClear ? 'font-semibold' : 'text-quiet'}">
            <th scope="row" class="py-0.5 pr-2 text-left font-[inherit]"
              >{groupLabel(dimension, group.group, laneName, placeName)}</th
            >
            <td class="py-0.5 pr-2 text-right font-normal whitespace-nowrap"
              >{plural(group.items, 'item', 'items')}</td
            >
            <td class="py-0.5 text-right">{claimMessage(group)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/each}
  {#if unknown.length > 0}
    <p class="text-sm text-quiet">
      Too few items to compare: {unknown
        .map(({ dimension, items }) => `${dimensionLabels[dimension].toLowerCase()} (${items})`)
        .join(', ')}. At least two groups with {FEWEST_IN_GROUP} items each are needed.
    </p>
  {/if}
</section>
