<script lang="ts">
  import type { Rhythm } from '$lib/core/reach/rhythm.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { WEEKDAYS } from './reachMessages.ts';
  import { shadeOf } from './shade.ts';

  let { rhythm }: { rhythm: Rhythm | null } = $props();
  const HOURS = Array.from({ length: 24 }, (_, hour) => hour);
  const two = (hour: number) => String(hour).padStart(2, '0');
  const label = (day: number, hour: number) =>
    `${WEEKDAYS[day]}, ${two(hour)}:00: ${plural(rhythm?.counts[day]?.[hour] ?? 0, 'visit', 'visits')}`;
  const busiest = $derived.by(() => {
    const all = (rhythm?.shares ?? []).flatMap((row, day) =>
      row.map((share, hour) => ({ share, day, hour }))
    );
    return all
      .sort((a, b) => b.share - a.share)
      .slice(0, 3)
      .map(({ day, hour }) => `${WEEKDAYS[day]} at ${two(hour)}:00`);
  });
</script>

<section aria-labelledby="hours-title" class="flex flex-col gap-1">
  <h2 id="hours-title" class="font-semibold">When your audience is there</h2>
  {#if rhythm}
    <table class="w-full table-fixed border-collapse text-xs">
      <caption class="pb-1 text-left text-sm text-quiet">
        Busiest: {busiest.join(', ')}. From {plural(rhythm.visits, 'visit', 'visits')} in {plural(
          rhythm.days,
          'day',
          'days'
        )}, in your time zone.
      </caption>
      <thead>
        <tr>
          <th class="w-8"><span class="sr-only">Day</span></th>
          {#each HOURS as hour (hour)}
            <th scope="col" class="times font-normal text-quiet"
              ><span class={hour % 6 === 0 ? '' : 'sr-only'}>{hour}</span></th
            >
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each rhythm.shares as row, day (day)}
          <tr>
            <th scope="row" class="pr-1 text-left font-normal text-quiet"
              >{WEEKDAYS[day]?.slice(0, 2)}</th
            >
            {#each row as share, hour (hour)}
              <td
                class="h-5 border border-canvas"
                style:background={shadeOf(share)}
                title={label(day, hour)}
                ><span class="sr-only">{rhythm.counts[day]?.[hour]}</span></td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="text-sm text-quiet">
      Too few visits to say. Import the access log of your blog: two weeks and about 170 visits are
      enough.
    </p>
  {/if}
</section>
