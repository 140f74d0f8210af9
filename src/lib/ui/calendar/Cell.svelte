<script lang="ts">
  import { dndzone, setDebugMode, TRIGGERS } from 'svelte-dnd-action';
  import type { CalendarEntry } from '$lib/core/calendar/calendarEntry.ts';
  import type { Calendar } from './calendarState.svelte.ts';
  import EntryButton from './EntryButton.svelte';

  interface Props {
    calendar: Calendar;
    entries: readonly CalendarEntry[];
    date: string;
    /** Of a week: the hour that it stands for; null for a whole day. */
    hour?: number | null;
    label: string;
  }
  let { calendar, entries, date, hour = null, label }: Props = $props();
  setDebugMode(false);
  const fixed = $derived(entries.filter((entry) => !entry.moves));
  const movable = $derived(entries.filter((entry) => entry.moves));
  /** As they lie while something is dragged. */
  let dragged = $state.raw<CalendarEntry[] | null>(null);
  const items = $derived(dragged ?? movable);
  const flipDurationMs = matchMedia('(prefers-reduced-motion: reduce)').matches ? 0 : 120;

  function finish({
    detail
  }: CustomEvent<{ items: CalendarEntry[]; info: { id: string; trigger: string } }>) {
    dragged = null;
    if (detail.info.trigger !== TRIGGERS.DROPPED_INTO_ZONE) return;
    const entry = detail.items.find(({ id }) => id === detail.info.id);
    if (entry) void calendar.drop(entry, date, hour);
  }
</script>

{#if fixed.length > 0}
  <ul class="flex flex-col gap-0.5" aria-label={label}>
    {#each fixed as entry (entry.id)}<li><EntryButton {entry} {calendar} /></li>{/each}
  </ul>
{/if}
<ul
  class="flex min-h-4 grow flex-col gap-0.5"
  aria-label="{label}, can be moved"
  use:dndzone={{
    items,
    flipDurationMs,
    dropTargetStyle: {},
    dropTargetClasses: ['bg-marked'],
    zoneTabIndex: -1,
    zoneItemTabIndex: -1,
    morphDisabled: true
  }}
  onconsider={(event) => (dragged = event.detail.items)}
  onfinalize={finish}
>
  {#each items as entry (entry.id)}<li><EntryButton {entry} {calendar} /></li>{/each}
</ul>
