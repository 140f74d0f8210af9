<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { slugOf } from '$lib/core/article/slug.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { countWords } from '$lib/ui/words.ts';
  import { runLane } from '$lib/work/lanes/runLane.ts';
  import { downloadBlob } from '$lib/work/takeOut.ts';
  import Rehearsal from './Rehearsal.svelte';
  import Runs from './Runs.svelte';
  import Track from './Track.svelte';
  import { laneFile, type Lanes } from './lanesState.svelte.ts';

  interface Props {
    lanes: Lanes;
    lane: Lane;
    names: ReadonlyMap<string, string>;
  }
  let { lanes, lane = $bindable(), names }: Props = $props();
  let isRehearsing = $state(false);
  let isRemoving = $state(false);
  const overlaps = $derived(lanes.overlaps(lane));
  const cycles = $derived(lanes.cycles.filter((c) => c.some((e) => e.lane === lane.id)));
  const isWhole = $derived(lane.source.places.length > 0 && lane.targets.length > 0);
  const laneName = (id: string) => lanes.all.find((l) => l.id === id)?.name ?? '';

  async function turn() {
    lane.isOn = !lane.isOn;
    if (lane.isOn) lane.since ??= Date.now();
    await lanes.save(lane);
    deck.say(
      lane.isOn ? `“${lane.name}” runs while this application is open.` : `“${lane.name}” is off.`
    );
  }
  async function run() {
    if (lane.since === null) {
      lane.since = Date.now();
      await lanes.save(lane);
    }
    const done = await runLane($state.snapshot(lane) as Lane);
    if (done)
      deck.say(
        `“${lane.name}” looked at ${countWords(done.seen, 'item', 'items')}, left out ${done.dropped} and made ${done.made}.`
      );
    else deck.say(`“${lane.name}” is running already.`);
  }
  function saveAsFile() {
    const blob = new Blob([laneFile($state.snapshot(lane) as Lane)], { type: 'application/json' });
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
      class="field min-w-0 flex-1 basis-48 font-semibold"
      aria-label="Name of the lane"
      bind:value={lane.name}
      onchange={() => lanes.save(lane)}
    />
    <button
      class="{lane.isOn ? 'strong' : 'plain'} btn btn-sm"
      role="switch"
      aria-checked={lane.isOn}
      disabled={!isWhole && !lane.isOn}
      onclick={turn}>{lane.isOn ? 'On' : 'Off'}<span class="sr-only">: {lane.name}</span></button
    >
    <button
      class="plain btn btn-sm"
      aria-expanded={isRehearsing}
      disabled={!isWhole}
      onclick={() => (isRehearsing = !isRehearsing)}>Rehearse</button
    >
    <button class="plain btn btn-sm" disabled={!isWhole} onclick={run}>Run now</button>
    <button class="bare btn btn-sm" onclick={() => lanes.duplicate(lane)}>Duplicate</button>
    <button class="bare btn btn-sm" onclick={saveAsFile}>Save as a file</button>
    {#if isRemoving}
      <button class="strong btn btn-sm" onclick={() => lanes.remove(lane)}
        >Delete: what it placed stays</button
      >
      <button class="bare btn btn-sm" onclick={() => (isRemoving = false)}>Keep it</button>
    {:else}
      <button class="bare btn btn-sm" onclick={() => (isRemoving = true)}>Delete…</button>
    {/if}
  </header>
  <label class="flex items-center gap-2 text-sm">
    <span class="text-quiet">Note</span>
    <input
      class="field min-w-0 flex-1"
      placeholder="What it is for, and for whom"
      bind:value={lane.note}
      onchange={() => lanes.save(lane)}
    />
  </label>
  <Track {lanes} bind:lane {names} />
  {#if overlaps.length > 0}
    <p class="text-sm">
      Makes the same of the same items as {overlaps.map((l) => `“${l.name}”`).join(', ')}. Each item
      is made once; whichever lane comes first makes it.
    </p>
  {/if}
  {#each cycles as cycle, i (i)}
    <div class="rounded-base border border-edge p-2 text-sm" role="note" aria-label="A way round">
      <p class="font-semibold">These lanes lead back to where they begin:</p>
      <ol class="flex flex-wrap items-center gap-1">
        {#each cycle as edge, at (at)}
          <li>
            <span class="rounded-base border border-line px-2"
              >{names.get(edge.from) ?? 'a place'}</span
            >
            → <em>{laneName(edge.lane)}</em> →
          </li>
        {/each}
        <li>
          <span class="rounded-base border border-line px-2"
            >{names.get(cycle[0]?.from ?? '') ?? 'a place'}</span
          >
        </li>
      </ol>
      <p>
        What stops it: made items carry their origin and are never taken; without their marks they
        are known by their text and their player; and a lane that takes far more than usual is held.
      </p>
    </div>
  {/each}
  {#if isRehearsing}<Rehearsal {lane} {names} />{/if}
  <Runs {lane} />
</article>
