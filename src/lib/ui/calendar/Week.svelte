<script lang="ts">
  import { dateOf, hourOf, startOfHour } from '$lib/core/calendar/grid.ts';
  import { timeZone, type Calendar } from './calendarState.svelte.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { shadeOf } from '$lib/ui/reach/shade.ts';
  import { busyNames, dayName, shortDay } from './calendarMessages.ts';
  import Cell from './Cell.svelte';
  import GapButton from './GapButton.svelte';

  interface Props {
    calendar: Calendar;
    /** Items of lanes that wait for review. */
    inReview: number;
  }
  let { calendar, inReview }: Props = $props();
  const HOURS = Array.from({ length: 24 }, (_, hour) => hour);
  const MORNING = 7;
  const HOUR = 3_600_000;
  const today = dateOf(Date.now(), timeZone);
  const byHour = $derived(
    Map.groupBy(calendar.entries, ({ at }) => `${dateOf(at, timeZone)} ${hourOf(at, timeZone)}`)
  );
  /** Visits behind the shade of an hour. */
  const visitsAt = (weekday: number, hour: number) =>
    calendar.rhythm ? plural(calendar.rhythm.counts[weekday]?.[hour] ?? 0, 'visit', 'visits') : '';
  const hourLabel = (hour: number) => `${String(hour).padStart(2, '0')}:00`;
  let morning = $state<HTMLTableRowElement>();
  $effect(() => morning?.scrollIntoView({ block: 'start' }));
</script>

<table class="w-full table-fixed border-collapse border border-line bg-sheet">
  <thead class="sticky top-0 z-10 bg-sheet">
    <tr>
      <th scope="col" class="w-12 border border-line text-xs"><span class="sr-only">Hour</span></th>
      {#each calendar.days as { date } (date)}
        <th
          scope="col"
          class="border border-line px-1 py-0.5 text-left text-xs font-semibold"
          aria-current={date === today ? 'date' : undefined}
          ><span class={date === today ? 'rounded-base bg-ink px-1 text-canvas' : ''}
            >{shortDay(date)}</span
          ><span class="block font-normal"><GapButton {calendar} {date} {inReview} /></span></th
        >
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each HOURS as hour (hour)}
      <tr
        class="scroll-mt-6"
        {@attach (row: HTMLTableRowElement) => void (hour === MORNING && (morning = row))}
      >
        <th
          scope="row"
          class="times border border-line px-1 text-right align-top text-xs text-quiet"
          >{hourLabel(hour)}</th
        >
        {#each calendar.days as { date, end }, weekday (date)}
          {@const begins = startOfHour(date, hour, timeZone)}
          {@const busy = calendar.busyIn(begins, Math.min(end, begins + HOUR))}
          {@const visits = visitsAt(weekday, hour)}
          <td
            title={[busyNames(busy), visits].filter(Boolean).join('. ') || undefined}
            class="{busy.length > 0 ? 'hatched' : ''} h-10 border border-line p-0.5 align-top"
            style:background-color={calendar.rhythm
              ? shadeOf(calendar.rhythm.shares[weekday]?.[hour] ?? 0)
              : undefined}
          >
            <div class="flex h-full flex-col gap-0.5">
              <Cell
                {calendar}
                entries={byHour.get(`${date} ${hour}`) ?? []}
                {date}
                {hour}
                label="{dayName(date)}, {hourLabel(hour)}{busy.length > 0
                  ? `, busy: ${busyNames(busy)}`
                  : ''}{visits ? `, ${visits}` : ''}"
              />
            </div>
          </td>
        {/each}
      </tr>
    {/each}
  </tbody>
</table>
