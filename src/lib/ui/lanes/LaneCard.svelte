<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { slugOf } from '$lib/core/article/template/slug.ts';
  import { getLane, updateLane } from '$lib/data/lanes.ts';
  import { Autosave } from '$lib/ui/autosave.svelte.ts';
  import ConfirmButton from '$lib/ui/ConfirmButton.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { sayDiscarded } from '$lib/ui/sayDiscarded.ts';
  import { missedMessage } from '$lib/ui/laneMessages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { formatDateTime, plural } from '$lib/ui/messages.ts';
  import { readMissed } from '$lib/work/lanes/catchUp.ts';
  import { runLane } from '$lib/work/lanes/runLane.ts';
  import { downloadBlob } from '$lib/work/download.ts';
  import Rehearsal from './Rehearsal.svelte';
  import Runs from './Runs.svelte';
  import UnsavedNote from '$lib/ui/UnsavedNote.svelte';
  import UndoButtons from '$lib/ui/UndoButtons.svelte';
  import Track from './Track.svelte';
  import type { Lanes } from './lanesState.svelte.ts';

  interface Props {
    lanes: Lanes;
    lane: Lane;
    names: ReadonlyMap<string, string>;
  }
  let { lanes, lane = $bindable(), names }: Props = $props();
  let isRehearsing = $state(false);
  const autosave = new Autosave<Lane>({
    name: () => `lane/${lane.id}`,
    read: () => $state.snapshot(lane) as Lane,
    take: (fields) => Object.assign(lane, structuredClone(fields)),
    stored: async () => (await getLane(lane.id)) ?? null,
    update: (merge) => updateLane(lane.id, (stored) => ({ ...merge(stored), changed: Date.now() }))
  });
  autosave.begin();
  autosave.follow(() => true);
  const overlaps = $derived(lanes.overlaps(lane));
  const isInCycle = $derived(lanes.cycles.some((c) => c.some((e) => e.lane === lane.id)));
  const isWhole = $derived(lane.source.places.length > 0 && lane.targets.length > 0);
  const missed = live(() => {
    const { id } = lane;
    return async () => (await readMissed()).find((m) => m.laneId === id) ?? null;
  });

  async function turn() {
    autosave.change(() => {
      lane.isOn = !lane.isOn;
      if (!lane.isOn) return;
      lane.since ??= Date.now();
      lane.stopped = null;
    });
    await autosave.saveNow();
    deck.say(
      lane.isOn ? `“${lane.name}” runs while this application is open.` : `“${lane.name}” is off.`
    );
  }
  async function run() {
    if (lane.since === null) {
      lane.since = Date.now();
      await autosave.saveNow();
    }
    const done = await runLane(lane.id);
    if (done)
      deck.say(
        `“${lane.name}” found ${plural(done.seen, 'item', 'items')}, left out ${done.dropped} and made ${done.made}.`
      );
    else deck.say(`“${lane.name}” is running already.`);
  }
  async function remove() {
    const { name } = lane;
    sayDiscarded(`“${name}” was deleted.`, await lanes.remove(lane), name);
  }
  async function saveAsFile() {
    const blob = new Blob([await lanes.fileOf(lane)], { type: 'application/json' });
    downloadBlob(`${slugOf(lane.name) || 'lane'}.lane.json`, blob);
  }
</script>

<article
  aria-label={lane.name}
  class="flex flex-col gap-3 rounded-container border border-l-4 border-line bg-sheet p-3 {lane.isOn
    ? 'border-l-ink'
    : 'border-l-edge'}"
>
  <header class="flex flex-wrap items-center gap-2">
    <input
      class="field min-w-0 flex-1 basis-36 font-semibold"
      aria-label="Name of the lane"
      bind:value={lane.name}
    />
    <input
      class="field min-w-0 flex-2 basis-48 text-sm"
      aria-label="Note on the lane"
      placeholder="Note: what it is for, and for whom"
      title={lane.note}
      bind:value={lane.note}
    />
    <button
      class="bare btn btn-sm"
      role="switch"
      aria-checked={lane.isOn}
      disabled={!isWhole && !lane.isOn}
      onclick={turn}
    >
      <span
        class="flex h-5 w-9 items-center rounded-full border border-edge p-0.5 {lane.isOn
          ? 'justify-end bg-ink'
          : 'bg-canvas'}"
        aria-hidden="true"
        ><span class="size-3.5 rounded-full {lane.isOn ? 'bg-canvas' : 'bg-ink'}"></span></span
      >
      {lane.isOn ? 'On' : 'Off'}<span class="sr-only">: {lane.name}</span>
    </button>
    <button
      class="plain btn btn-sm"
      aria-expanded={isRehearsing}
      disabled={!isWhole}
      onclick={() => (isRehearsing = !isRehearsing)}>Rehearse</button
    >
    <button class="plain btn btn-sm" disabled={!isWhole} onclick={run}>Run now</button>
    <button class="bare btn btn-sm" onclick={() => lanes.duplicate(lane)}>Duplicate</button>
    <button class="bare btn btn-sm" onclick={saveAsFile}>Export lane</button>
    <UndoButtons {autosave} of={lane.name} />
    <ConfirmButton
      label="Delete…"
      confirm="Delete the lane, keep what it published"
      onconfirm={remove}
    />
  </header>
  <UnsavedNote {autosave} />
  {#if lane.stopped}
    <p class="rounded-base border border-edge p-2 text-sm" role="status">
      Switched off on {formatDateTime(new Date(lane.stopped.at).toISOString())}: it had made {lane
        .stopped.made} in a week, far more than its source usually gives. Check what it found, then switch
      it on again.
    </p>
  {/if}
  {#if !isWhole}
    <p class="text-sm text-quiet">
      Choose its source and its places; then it can be rehearsed, run and switched on.
    </p>
  {/if}
  <Track bind:lane {names} />
  {#if missed.value}<p class="text-sm">{missedMessage(missed.value.slots, missed.value.at)}</p>{/if}
  {#if overlaps.length > 0}
    <p class="text-sm">
      It makes the same things as {overlaps.map((l) => `“${l.name}”`).join(', ')}. Each item is made
      once, by whichever lane comes first.
    </p>
  {/if}
  {#if isInCycle}
    <p class="text-sm">
      It leads back to where it starts, alone or with other lanes. The path is shown above, with
      what stops it.
    </p>
  {/if}
  {#if isRehearsing}<Rehearsal {lane} {names} />{/if}
  <Runs {lane} {names} />
</article>
