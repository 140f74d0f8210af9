<script lang="ts">
  import { atHour } from '$lib/core/calendar/grid.ts';
  import { isBlocked } from '$lib/core/lanes/decide.ts';
  import type { LaneRecord } from '$lib/core/lanes/record.ts';
  import { allLanes, recordsInReview } from '$lib/data/lanes.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { problemMessage } from '$lib/ui/messages.ts';
  import { approveFor } from '$lib/work/calendar.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import { dayName, formatMoment } from './calendarMessages.ts';
  import { timeZone, type Calendar } from './calendarState.svelte.ts';

  let { calendar, date }: { calendar: Calendar; date: string } = $props();
  let dialog = $state<HTMLDialogElement>();
  let said = $state('');
  const waiting = live(() => recordsInReview);
  const lanes = live(() => allLanes);
  const laneOf = ({ laneId }: LaneRecord) => lanes.value?.find(({ id }) => id === laneId);
  const hour = $derived(calendar.bestHour(date));

  $effect(() => dialog?.showModal());

  async function approve(record: LaneRecord) {
    const day = calendar.days.find((one) => one.date === date);
    const wish = atHour(day?.start ?? Date.now(), date, hour, timeZone);
    const { value: done, problem } = await attempt(() => approveFor(record, wish));
    if (problem) {
      const { what, todo } = problemMessage(problem);
      said = `Not approved. ${what} ${todo}`;
    } else if (!done)
      said = `“${record.title}” has no time: a check blocks it, or its lane is full.`;
    else {
      const isOff = laneOf(record)?.isOn === false;
      const off = isOff ? ' Nothing is published while its lane is off.' : '';
      deck.say(`“${record.title}” is approved for ${formatMoment(done.at)}.${off}`, {
        label: 'Undo',
        run: () => void done.undo()
      });
      dialog?.close();
    }
  }
</script>

<dialog
  bind:this={dialog}
  onclose={() => (calendar.filling = '')}
  aria-labelledby="gap-title"
  class="m-auto flex max-h-[85vh] w-[34rem] max-w-[calc(100vw-1rem)] flex-col gap-3 rounded-container border border-edge bg-sheet p-4 text-sm text-ink shadow-2xl backdrop:bg-black/40"
>
  <h2 id="gap-title" class="text-lg font-semibold">Fill {dayName(date)}</h2>
  <p class="text-quiet">
    It is approved for {String(hour).padStart(2, '0')}:00{calendar.rhythm
      ? ', when most of your audience is there'
      : ''}, or the nearest time that its lane allows.
  </p>
  <ul class="min-h-0 overflow-y-auto border-y border-line" aria-label="In review">
    {#each waiting.value ?? [] as { record, entries } (record.id)}
      <li class="flex items-baseline gap-3 border-b border-line py-1 last:border-b-0">
        <span class="min-w-0 grow wrap-anywhere"
          >{record.title}<span class="block text-quiet"
            >{laneOf(record)?.name ?? 'A lane that was deleted'}</span
          ></span
        >
        {#if entries.some(isBlocked)}
          <span class="text-quiet">blocked by a check</span>
        {:else}
          <button
            class="plain btn btn-sm"
            aria-label="Approve “{record.title}” for {dayName(date)}"
            onclick={() => approve(record)}>Approve for this day</button
          >
        {/if}
      </li>
    {:else}
      <li class="py-1 text-quiet">Nothing made by a lane is in review.</li>
    {/each}
  </ul>
  {#if said}<p role="status">{said}</p>{/if}
  <div class="flex gap-2">
    <a class="plain btn btn-sm" href="/review">Open Review</a>
    <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Close</button>
  </div>
</dialog>
