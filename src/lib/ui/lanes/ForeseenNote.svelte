<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { charted } from '$lib/ui/charted.ts';
  import { foreseen } from './foreseen.svelte.ts';
  import ForeseenWords from './ForeseenWords.svelte';

  let { lane }: { lane: Lane } = $props();
  const found = foreseen(() => lane);
  const weeks = $derived(found.value?.rate.weeks ?? []);
  const chart = charted(
    async () => (await import('./weeksChart.ts')).drawWeeks,
    () => (weeks.length > 0 ? weeks : null)
  );
</script>

<div class="flex flex-wrap items-end gap-x-6 gap-y-2 border-b border-line pb-2" role="status">
  {#if found.value}
    <div class="min-w-0 flex-1 basis-64">
      <ForeseenWords {lane} foreseen={found.value} />
    </div>
    <figure class="w-64">
      <div class="h-20"><canvas {@attach chart} aria-hidden="true"></canvas></div>
      <figcaption class="text-xs text-quiet">
        <span aria-hidden="true">Items per week, past twelve weeks</span>
        <span class="sr-only">Given by week, oldest first: {weeks.join(', ')}</span>
      </figcaption>
    </figure>
  {:else}
    <p>Reading the sources…</p>
  {/if}
</div>
