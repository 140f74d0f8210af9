<script lang="ts">
  import { DateTime } from 'luxon';
  import type { Busy } from '$lib/core/model/busy.ts';
  import { addBusy, readBusy, removeBusy } from '$lib/data/busy.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { plural, problemMessage } from '$lib/ui/messages.ts';
  import { importBusy, type ImportedBusy } from '$lib/work/calendar.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import { busyWhen } from './calendarMessages.ts';

  let { onclose }: { onclose: () => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  let title = $state('');
  let first = $state('');
  let last = $state('');
  let said = $state('');
  const all = live(() => readBusy);
  const coming = $derived((all.value ?? []).filter(({ to }) => to > Date.now()));
  const from = $derived(DateTime.fromISO(first));
  const until = $derived(DateTime.fromISO(last || first).plus({ days: 1 }));
  const isReady = $derived(from.isValid && until.isValid && from < until);

  $effect(() => dialog?.showModal());

  async function add(event: SubmitEvent) {
    event.preventDefault();
    if (!isReady) return;
    const busy = { title: title.trim(), from: from.toMillis(), to: until.toMillis() };
    const { value: added, problem } = await attempt(() => addBusy([busy]));
    if (problem) return tell(problem);
    said = added ? `${busyWhen(busy)} is kept clear.` : 'It is in the list already.';
    [title, first, last] = ['', '', ''];
  }

  async function remove(busy: Busy) {
    const isIt = (one: Busy) =>
      one.from === busy.from && one.to === busy.to && one.title === busy.title;
    const { value: undo, problem } = await attempt(() => removeBusy(isIt));
    if (problem) return tell(problem);
    deck.say('Busy time removed.', { label: 'Undo', run: () => void undo?.() });
  }

  async function choose({ currentTarget }: Event & { currentTarget: HTMLInputElement }) {
    const file = currentTarget.files?.[0];
    if (!file) return;
    said = 'Reading the calendar…';
    const { value, problem } = await attempt(() => importBusy(file));
    currentTarget.value = '';
    if (problem) return tell(problem);
    if (value) said = imported(value, file.name);
  }

  function imported(done: ImportedBusy, name: string): string {
    if (done.is === 'too-large') return `“${name}” is larger than 10 MB, so it was not read.`;
    if (done.is === 'no-calendar')
      return `“${name}” is not a calendar file (iCalendar). Export one from your calendar and choose that.`;
    const left =
      done.leftOut > 0
        ? ` ${plural(done.leftOut, 'event was', 'events were')} left out: over, free, cancelled or without a time.`
        : '';
    return `${plural(done.added, 'busy time', 'busy times')} added from “${name}”.${left}`;
  }

  function tell(problem: Parameters<typeof problemMessage>[0]) {
    const { what, todo } = problemMessage(problem);
    said = `${what} ${todo}`;
  }
</script>

<dialog
  bind:this={dialog}
  {onclose}
  aria-labelledby="busy-title"
  class="m-auto flex max-h-[85vh] w-[34rem] max-w-[calc(100vw-1rem)] flex-col gap-3 rounded-container border border-edge bg-sheet p-4 text-ink shadow-2xl backdrop:bg-black/40"
>
  <h2 id="busy-title" class="text-lg font-semibold">Busy times</h2>
  <p class="text-sm text-quiet">
    Lanes publish nothing in these times. What you schedule by hand is not affected.
  </p>
  {#if coming.length > 0}
    <ul class="min-h-0 overflow-y-auto border-y border-line text-sm" aria-label="Busy times">
      {#each coming as busy (`${busy.from} ${busy.to} ${busy.title}`)}
        <li class="flex items-baseline gap-3 border-b border-line py-1 last:border-b-0">
          <span class="min-w-0 grow wrap-anywhere"
            >{busy.title || 'Busy'}<span class="block text-quiet">{busyWhen(busy)}</span></span
          >
          <button
            class="bare btn btn-sm"
            aria-label="Remove {busy.title || 'Busy'}, {busyWhen(busy)}"
            onclick={() => remove(busy)}>Remove</button
          >
        </li>
      {/each}
    </ul>
  {/if}
  <form
    class="grid grid-cols-2 items-end gap-3 text-sm sm:grid-cols-[1fr_auto_auto_auto]"
    onsubmit={add}
  >
    <label class="col-span-2 flex flex-col gap-1 sm:col-span-1"
      >What for
      <input class="field" bind:value={title} placeholder="Closed for the fair" /></label
    >
    <label class="flex flex-col gap-1"
      >From
      <input class="field" type="date" bind:value={first} /></label
    >
    <label class="flex flex-col gap-1"
      >To
      <input class="field" type="date" bind:value={last} min={first} /></label
    >
    <button class="plain btn btn-sm" disabled={!isReady}>Add</button>
  </form>
  <p role="status" class="text-sm">{said}</p>
  <div class="flex flex-wrap gap-2">
    <label
      class="plain btn cursor-pointer btn-sm focus-within:outline-2 focus-within:outline-offset-2"
      >Import from a calendar file…
      <input class="sr-only" type="file" accept=".ics,text/calendar" onchange={choose} /></label
    >
    <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Close</button>
  </div>
</dialog>
