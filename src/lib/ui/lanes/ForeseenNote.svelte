<script lang="ts">
  import type { Chart } from 'chart.js';
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { mode } from '$lib/ui/mode.svelte.ts';
  import { foreseen } from './foreseen.svelte.ts';
  import ForeseenWords from './ForeseenWords.svelte';

  let { lane }: { lane: Lane } = $props();
  const found = foreseen(() => lane);
  const weeks = $derived(found.value?.rate.weeks ?? []);
  let canvas = $state<HTMLCanvasElement>();

  $effect(() => {
    void mode.isDark;
    if (!canvas || weeks.length === 0) return;
    const element = canvas;
    const counts = weeks;
    let chart: Chart | undefined;
    let isGone = false;
    void import('./weeksChart.ts').then(({ drawWeeks }) => {
      if (!isGone) chart = drawWeeks(element, counts);
    });
    return () => {
      isGone = true;
      chart?.destroy();
    };
  });
</script>

<div class="flex flex-wrap items-end gap-x-6 gap-y-2 border-b border-line pb-2" role="status">
  {#if found.value}
    <div class="min-w-0 flex-1 basis-64">
      <ForeseenWords {lane} foreseen={found.value} />
    </div>
    <figure class="w-48">
      <div class="h-10"><canvas bind:this={canvas} aria-hidden="true"></canvas></div>
      <figcaption class="text-xs text-quiet">
        <span aria-hidden="true">Given by week, past twelve</span>
        <span class="sr-only">Given by week, oldest first: {weeks.join(', ')}</span>
      </figcaption>
    </figure>
  {:else}
    <p>Looking at the sources…</p>
  {/if}
</div>
