<script lang="ts">
  import type { ComparedSubject } from '$lib/core/reach/overview.ts';
  import { ageMessage, timesUsual } from './reachMessages.ts';

  interface Props {
    title: string;
    /** What is said where there are none. */
    none: string;
    items: readonly ComparedSubject[];
    titles: ReadonlyMap<string, string>;
  }
  let { title, none, items, titles }: Props = $props();
  const id = $props.id();
  const FIRST = 5;
  let isAll = $state(false);
</script>

<section aria-labelledby={id} class="flex flex-col gap-1">
  <h2 {id} class="font-semibold">{title}</h2>
  {#if items.length === 0}
    <p class="text-sm text-quiet">{none}</p>
  {:else}
    <ul class="text-sm">
      {#each isAll ? items : items.slice(0, FIRST) as one (one.id)}
        <li class="border-t border-line py-1">
          <a class="wrap-anywhere underline" href="/reach/{one.id}"
            >{titles.get(one.id) || 'No title'}</a
          >
          <span class="block text-quiet"
            >{one.total.toLocaleString('en')} in {ageMessage(one.age)}: {timesUsual(
              one.total,
              one.usual
            )}</span
          >
        </li>
      {/each}
    </ul>
    {#if items.length > FIRST && !isAll}
      <button class="bare btn self-start btn-sm" onclick={() => (isAll = true)}
        >Show all {items.length}</button
      >
    {/if}
  {/if}
</section>
