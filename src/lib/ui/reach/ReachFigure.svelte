<script lang="ts">
  import { charted } from '$lib/ui/charted.ts';
  import { downloadBlob } from '$lib/work/download.ts';
  import { dateOfDay } from '$lib/core/reach/day.ts';
  import { formatDate } from '$lib/ui/messages.ts';
  import type { ReachChart } from '$lib/core/reach/series.ts';

  interface Props {
    title: string;
    /** Name of the picture that it can be downloaded as. */
    fileName: string;
    chart: ReachChart;
  }
  let { title, fileName, chart }: Props = $props();

  const isKnown = $derived(chart.lines.some(({ values }) => values.some((v) => v !== null)));
  const attach = charted(
    async () => (await import('./reachChart.ts')).drawReach,
    () => (isKnown ? chart : null)
  );
  const days = $derived(
    Array.from({ length: chart.lines[0]?.values.length ?? 0 }, (_, i) => i)
      .filter((i) => chart.lines.some(({ values }) => values[i] !== null))
      .reverse()
  );
  let isTableOpen = $state(false);
  /** Rows of the table: nobody reads two years of days. */
  const MOST_ROWS = 92;

  async function savePicture() {
    const { chartImage } = await import('./chartImage.ts');
    downloadBlob(`${fileName}.png`, await chartImage(title, chart));
  }
</script>

<figure class="flex flex-col gap-1">
  <figcaption class="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
    <span class="sr-only">{title}</span>
    {#each chart.lines as { label, kind } (label)}
      <span class="flex items-center gap-1.5">
        {#if kind === 'update'}
          <span class="h-3 w-1.5 bg-quiet" aria-hidden="true"></span>
        {:else}
          <span
            class="w-6 border-t-2 {kind === 'video' ? 'border-video' : 'border-dashed border-post'}"
            aria-hidden="true"
          ></span>
        {/if}
        {label}
      </span>
    {/each}
    {#if isKnown}
      <button class="bare ml-auto btn btn-sm" onclick={savePicture}>Download picture</button>
    {/if}
  </figcaption>
  {#if isKnown}
    <div class="h-72"><canvas {@attach attach} aria-hidden="true"></canvas></div>
    <details class="text-sm" bind:open={isTableOpen}>
      <summary class="cursor-pointer text-quiet">Figures as a table</summary>
      {#if isTableOpen}
        <div class="overflow-x-auto" tabindex="-1">
          <table class="w-full max-w-2xl">
            <thead class="text-left">
              <tr>
                <th scope="col" class="py-1 pr-4 font-semibold">Day</th>
                {#each chart.lines as { label } (label)}
                  <th scope="col" class="py-1 pr-4 text-right font-semibold">{label}</th>
                {/each}
              </tr>
            </thead>
            <tbody>
              {#each days.slice(0, MOST_ROWS) as i (i)}
                <tr class="border-t border-line">
                  <th scope="row" class="times py-0.5 pr-4 text-left font-normal"
                    >{formatDate(dateOfDay(chart.from + i))}</th
                  >
                  {#each chart.lines as { label, values } (label)}
                    <td class="figures py-0.5 pr-4 text-right"
                      >{values[i] === null
                        ? '–'
                        : Math.round(values[i] ?? 0).toLocaleString('en')}</td
                    >
                  {/each}
                </tr>
              {/each}
            </tbody>
          </table>
          {#if days.length > MOST_ROWS}<p class="py-1 text-quiet">
              Earlier days are in the exported CSV.
            </p>{/if}
        </div>
      {/if}
    </details>
  {:else}
    <p class="border-y border-line py-6 text-sm text-quiet">Nothing is known of these days yet.</p>
  {/if}
</figure>
