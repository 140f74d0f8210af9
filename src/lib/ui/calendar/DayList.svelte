<script lang="ts">
  import GapButton from './GapButton.svelte';
  import CountField from '$lib/ui/CountField.svelte';
  import { plural } from '$lib/ui/messages.ts';
  import type { Calendar } from './calendarState.svelte.ts';
  import {
    busyNames,
    dayName,
    entryName,
    kindLabels,
    stateLabels,
    timeOf
  } from './calendarMessages.ts';

  interface Props {
    calendar: Calendar;
    from: string;
    /** Items of lanes that wait for review. */
    inReview: number;
  }
  let { calendar, from, inReview }: Props = $props();
  let days = $state<number | null>(1);
  const shift = $derived(Math.max(1, days ?? 1));

  $effect(() => {
    if (calendar.isRead) document.getElementById(`day-${from}`)?.scrollIntoView({ block: 'start' });
  });
</script>

{#if calendar.chosen.length > 0}
  <div
    class="sticky top-0 z-10 flex flex-wrap items-end gap-3 border-b border-edge bg-sheet px-2 py-2 text-sm"
    role="group"
    aria-label="Selected entries"
  >
    <span class="pb-1.5 font-semibold">{calendar.chosen.length} selected</span>
    <div class="w-20"><CountField label="Days" bind:value={days} /></div>
    <button class="plain btn btn-sm" onclick={() => calendar.moveChosen(-shift)}
      >Move {plural(shift, 'day', 'days')} earlier</button
    >
    <button class="strong btn btn-sm" onclick={() => calendar.moveChosen(shift)}
      >Move {plural(shift, 'day', 'days')} later</button
    >
    <button class="bare btn btn-sm" onclick={() => (calendar.selected = new Set())}>Clear</button>
  </div>
{/if}
{#each calendar.days as { date, start, end } (date)}
  {@const entries = calendar.byDay.get(date) ?? []}
  {@const busy = calendar.busyIn(start, end)}
  {@const gap = inReview > 0 ? calendar.gaps.get(date) : undefined}
  {#if gap}
    <p
      class="flex flex-wrap items-baseline gap-2 border-b border-line px-2 py-2 text-sm text-quiet"
    >
      Nothing for {plural(gap.days, 'day', 'days')} from {dayName(date)}.
      <GapButton {calendar} {date} {inReview} />
    </p>
  {/if}
  {#if entries.length > 0 || busy.length > 0}
    <section class="flex scroll-mt-14 flex-col border-b border-line py-2" id="day-{date}">
      <h2 class="px-2 text-sm font-semibold">{dayName(date)}</h2>
      {#if busy.length > 0}
        <p class="hatched mx-2 self-start rounded-base px-1 text-sm">Busy: {busyNames(busy)}</p>
      {/if}
      <ul aria-label={dayName(date)}>
        {#each entries as entry (entry.id)}
          {@const place = calendar.placeOf(entry)}
          <li class="flex items-baseline gap-2 px-2 py-1 text-sm">
            {#if entry.moves}
              <input
                type="checkbox"
                class="self-center"
                aria-label="Select {entryName(entry, place)}"
                checked={calendar.selected.has(entry.id)}
                onchange={(event) => calendar.toggle(entry.id, event.currentTarget.checked)}
              />
            {:else}<span class="w-[13px] shrink-0"></span>{/if}
            <span class="times w-10 shrink-0">{timeOf(entry.at)}</span>
            <span class="min-w-0 grow">
              <button
                class="max-w-full text-left wrap-anywhere underline"
                aria-label={entryName(entry, place)}
                onclick={() => calendar.open(entry)}>{entry.title}</button
              >
              <span class="block text-quiet"
                >{kindLabels[entry.kind]} at {place || 'an unknown place'}{#if entry.laneId}&nbsp;· {calendar.laneOf(
                    entry
                  )?.name ?? 'a lane that was deleted'}{/if} · {stateLabels[
                  entry.state
                ].toLowerCase()}</span
              >
            </span>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
{/each}
