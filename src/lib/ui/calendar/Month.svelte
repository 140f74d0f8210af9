<script lang="ts">
  import type { CalendarEntry } from '$lib/core/calendar/calendarEntry.ts';
  import { dateOf } from '$lib/core/calendar/grid.ts';
  import { timeZone, type Calendar } from './calendarState.svelte.ts';
  import { busyNames, dayName, shortDay } from './calendarMessages.ts';
  import Cell from './Cell.svelte';
  import GapButton from './GapButton.svelte';

  interface Props {
    calendar: Calendar;
    linkTo: (date: string) => string;
    /** Items of lanes that wait for review. */
    inReview: number;
  }
  let { calendar, linkTo, inReview }: Props = $props();
  /** Entries that are shown of a day. */
  const MOST = 4;
  /** What is still to come is shown before what went out. */
  const shownOf = (all: readonly CalendarEntry[]) =>
    [...all]
      .sort((a, b) => Number(a.state === 'published') - Number(b.state === 'published'))
      .slice(0, MOST)
      .sort((a, b) => a.at - b.at);
  const today = dateOf(Date.now(), timeZone);
  const weeks = $derived(
    Array.from({ length: calendar.days.length / 7 }, (_, week) =>
      calendar.days.slice(week * 7, week * 7 + 7)
    )
  );
</script>

<table class="h-full w-full table-fixed border-collapse border border-line bg-sheet">
  <thead>
    <tr>
      {#each calendar.days.slice(0, 7) as { date } (date)}
        <th scope="col" class="border border-line px-1 py-0.5 text-left text-xs font-semibold"
          >{shortDay(date).split(' ')[0]}</th
        >
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each weeks as week (week[0]?.date)}
      <tr>
        {#each week as { date, start, end, isInMonth } (date)}
          {@const all = calendar.byDay.get(date) ?? []}
          {@const busy = calendar.busyIn(start, end)}
          <td
            class="h-20 border border-line p-0.5 align-top {isInMonth ? '' : 'bg-canvas'}"
            aria-current={date === today ? 'date' : undefined}
          >
            <div class="flex h-full flex-col gap-0.5">
              <span class="flex items-center px-0.5 text-xs">
                <span
                  class="figures {date === today
                    ? 'rounded-base bg-ink px-1 font-semibold text-canvas'
                    : isInMonth
                      ? ''
                      : 'text-quiet'}">{Number(date.slice(8))}</span
                >
                {#if all.length > MOST}
                  <a
                    class="ml-auto underline"
                    href={linkTo(date)}
                    aria-label="All {all.length} of {dayName(date)}">{all.length - MOST} more</a
                  >
                {/if}
              </span>
              {#if busy.length > 0}
                <span class="hatched truncate rounded-base px-1 text-xs" title={busyNames(busy)}
                  >{busyNames(busy)}</span
                >
              {/if}
              <GapButton {calendar} {date} {inReview} />
              <Cell {calendar} entries={shownOf(all)} {date} label={dayName(date)} />
            </div>
          </td>
        {/each}
      </tr>
    {/each}
  </tbody>
</table>
