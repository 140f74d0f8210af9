<script lang="ts">
  import { DateTime } from 'luxon';
  import { whatIsInTheWay } from '$lib/work/calendar.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import DateTimeField from '$lib/ui/DateTimeField.svelte';
  import type { CalendarEntry } from '$lib/core/calendar/calendarEntry.ts';
  import type { InTheWay } from '$lib/core/calendar/move.ts';
  import type { Calendar } from './calendarState.svelte.ts';
  import { formatMoment, inTheWayMessage, kindLabels, stateLabels } from './calendarMessages.ts';

  interface Props {
    calendar: Calendar;
    entry: CalendarEntry;
    /** Where it is to go, in milliseconds since 1970. */
    to: number;
  }
  let { calendar, entry, to }: Props = $props();
  const fieldOf = (at: number) => DateTime.fromMillis(at).toFormat("yyyy-MM-dd'T'HH:mm");
  let dialog = $state<HTMLDialogElement>();
  let wished = $derived(fieldOf(to));
  let inTheWay = $state.raw<InTheWay | null>(null);
  const lane = $derived(calendar.laneOf(entry));
  const place = $derived(calendar.placeOf(entry));
  const at = $derived(wished === fieldOf(to) ? to : DateTime.fromISO(wished).toMillis());
  const isElsewhere = $derived(Number.isFinite(at) && at !== entry.at);

  $effect(() => dialog?.showModal());
  $effect(() => {
    const asked = at;
    inTheWay = null;
    if (!entry.moves || !isElsewhere) return;
    void attempt(() => whatIsInTheWay(entry, asked)).then(({ value }) => {
      if (asked === at) inTheWay = value ?? null;
    });
  });

  function move(when: number, insists = false) {
    dialog?.close();
    void calendar.moveTo(entry, when, insists);
  }
  function choose() {
    dialog?.close();
    void calendar.unpin(entry);
  }
</script>

<dialog
  bind:this={dialog}
  onclose={() => (calendar.opened = null)}
  aria-labelledby="entry-title"
  class="m-auto flex w-[30rem] max-w-[calc(100vw-1rem)] flex-col gap-3 rounded-container border border-edge bg-sheet p-4 text-ink shadow-2xl backdrop:bg-black/40"
>
  <h2 id="entry-title" class="text-lg font-semibold wrap-anywhere">{entry.title}</h2>
  <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm">
    <dt class="text-quiet">What</dt>
    <dd>{kindLabels[entry.kind]} at {place || 'an unknown place'}</dd>
    <dt class="text-quiet">When</dt>
    <dd>{formatMoment(entry.at)}</dd>
    <dt class="text-quiet">How</dt>
    <dd>
      {entry.laneId
        ? lane
          ? `By the lane “${lane.name}”`
          : 'By a lane that was deleted'
        : 'By hand'}{lane && !lane.isOn && entry.state === 'planned'
        ? ', which is off: nothing is published until you switch it on'
        : ''}
    </dd>
    <dt class="text-quiet">State</dt>
    <dd>
      {stateLabels[entry.state]}{entry.isPinned ? ', at a time that you chose' : ''}
    </dd>
  </dl>
  {#if entry.url}<a class="text-sm" href={entry.url} target="_blank" rel="noreferrer"
      >View it at its place</a
    >{/if}
  {#if entry.moves}
    <DateTimeField label="New date and time" bind:value={wished} />
    <div role="status" class="text-sm">
      {#if inTheWay}
        <p class="font-semibold">{inTheWayMessage(inTheWay)}</p>
        {#if inTheWay.nearest !== null}
          <p>The nearest time that fits is {formatMoment(inTheWay.nearest)}.</p>
        {:else}
          <p>No time within five years fits.</p>
        {/if}
      {/if}
    </div>
  {:else if entry.state === 'scheduled'}
    <p class="text-sm text-quiet">It was scheduled at its place, so change its date there.</p>
  {/if}
  <div class="flex flex-wrap gap-2">
    {#if entry.moves}
      {#if !inTheWay}
        <button class="strong btn btn-sm" disabled={!isElsewhere} onclick={() => move(at)}
          >Move</button
        >
      {:else}
        {#if inTheWay.nearest !== null}
          {@const nearest = inTheWay.nearest}
          <button class="strong btn btn-sm" onclick={() => move(nearest)}
            >Move to {formatMoment(nearest)}</button
          >
        {/if}
        {#if inTheWay.reason !== 'past'}
          <button class="plain btn btn-sm" onclick={() => move(at, true)}>Move anyway</button>
        {/if}
      {/if}
      {#if entry.isPinned}
        <button class="plain btn btn-sm" onclick={choose}>Let the lane choose the time</button>
      {/if}
    {/if}
    <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Close</button>
  </div>
</dialog>
