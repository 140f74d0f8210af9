<script lang="ts">
  import type { Chart } from 'chart.js';
  import type { Twin } from '$lib/core/model/twin.ts';
  import { standingsByMonth } from '$lib/core/twins/inStep.ts';
  import { mode } from '$lib/ui/mode.svelte.ts';

  let { twins }: { twins: readonly Twin[] } = $props();
  let canvas = $state<HTMLCanvasElement>();

  const months = $derived(standingsByMonth(twins, 12));
  const rows = $derived(
    months.map(({ month, counts }) => ({
      month,
      inStep: counts['in-step'],
      missing: counts['no-post'] + counts['no-video'],
      open: counts.drifted + counts['in-hand']
    }))
  );
  const words = $derived(
    rows
      .map(
        (r) => `${r.month}: ${r.inStep} in step, ${r.missing} alone, ${r.open} drifted or in hand`
      )
      .join('; ')
  );

  $effect(() => {
    void mode.isDark;
    if (!canvas || rows.length === 0) return;
    const element = canvas;
    const data = rows;
    let chart: Chart | undefined;
    let gone = false;
    // The engine loads after the list is shown.
    void import('./chart.ts').then(({ drawStandings }) => {
      if (!gone) chart = drawStandings(element, data);
    });
    return () => {
      gone = true;
      chart?.destroy();
    };
  });
</script>

<figure class="hidden w-56 shrink-0 lg:block">
  <div class="h-14"><canvas bind:this={canvas} aria-hidden="true"></canvas></div>
  <figcaption class="text-xs text-quiet">
    <span aria-hidden="true">How far in step, by month</span><span class="sr-only"
      >Twins by month. {words}</span
    >
  </figcaption>
</figure>
