<script lang="ts">
  import type { Twin } from '$lib/core/model/twin.ts';
  import { standingsByMonth } from '$lib/core/twins/inStep.ts';
  import { charted } from '$lib/ui/charted.ts';

  let { twins }: { twins: readonly Twin[] } = $props();

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
        (r) =>
          `${r.month}: ${r.inStep} in step, ${r.missing} alone, ${r.open} drifted or in progress`
      )
      .join('; ')
  );

  // The engine loads after the list is shown.
  const chart = charted(
    async () => (await import('./chart.ts')).drawStandings,
    () => (rows.length > 0 ? rows : null)
  );
</script>

<figure class="hidden w-64 shrink-0 lg:block">
  <div class="h-16"><canvas {@attach chart} aria-hidden="true"></canvas></div>
  <figcaption class="text-xs text-quiet">
    <span aria-hidden="true">How far in step, by month</span><span class="sr-only"
      >Twins by month. {words}</span
    >
  </figcaption>
</figure>
