<script lang="ts">
  interface Props {
    sources: readonly { source: string; count: number }[];
    nameOf: (source: string) => string;
    /** What is said where there are none. */
    none: string;
  }
  let { sources, nameOf, none }: Props = $props();
  const FIRST = 8;
  let isAll = $state(false);
  const sum = $derived(sources.reduce((total, { count }) => total + count, 0));
</script>

<section aria-labelledby="sources-title" class="flex flex-col gap-1">
  <h2 id="sources-title" class="font-semibold">Where visits came from</h2>
  {#if sources.length === 0}
    <p class="text-sm text-quiet">{none}</p>
  {:else}
    <table class="w-full text-sm">
      <thead class="sr-only">
        <tr><th scope="col">Source</th><th scope="col">Visits</th><th scope="col">Share</th></tr>
      </thead>
      <tbody>
        {#each isAll ? sources : sources.slice(0, FIRST) as { source, count } (source)}
          <tr class="border-t border-line">
            <th scope="row" class="py-0.5 pr-2 text-left font-normal wrap-anywhere"
              >{nameOf(source)}</th
            >
            <td class="figures py-0.5 pr-2 text-right">{count.toLocaleString('en')}</td>
            <td class="figures w-12 py-0.5 text-right text-quiet"
              >{Math.round((100 * count) / sum)} %</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    {#if sources.length > FIRST && !isAll}
      <button class="bare btn self-start btn-sm" onclick={() => (isAll = true)}
        >Show all {sources.length}</button
      >
    {/if}
  {/if}
</section>
