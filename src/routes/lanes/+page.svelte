<script lang="ts">
  import { onMount } from 'svelte';
  import { db } from '$lib/data/db.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import SummaryForm from '$lib/ui/lanes/SummaryForm.svelte';
  import CycleNote from '$lib/ui/lanes/CycleNote.svelte';
  import LaneCard from '$lib/ui/lanes/LaneCard.svelte';
  import { Lanes } from '$lib/ui/lanes/lanesState.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { countWords, dateTimeWords, problemWords } from '$lib/ui/words.ts';

  const lanes = new Lanes();
  onMount(() => void lanes.read());
  const names = live(
    () => async () =>
      new Map(
        [...(await db.places.toArray()), ...(await db.networks.toArray())].map((p) => [
          p.id,
          p.title
        ])
      )
  );
  const pauses = live(() => async () => {
    const now = Date.now();
    return (await db.pauses.toArray()).filter((p) => p.until > now);
  });

  async function takeOutCalendar() {
    const { takeCalendar } = await import('$lib/work/lanes/takeCalendar.ts');
    const count = await takeCalendar();
    deck.say(`${countWords(count, 'planned item', 'planned items')} taken out as a calendar.`);
  }
  async function open(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file) return;
    try {
      const lane = await lanes.open(await file.text());
      deck.say(`“${lane.name}” is opened. Choose its source and its places.`);
    } catch {
      deck.say(`“${file.name}” is no lane that can be read. Nothing was changed.`);
    }
  }
</script>

<svelte:head><title>Lanes · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-6xl flex-col gap-3 p-4">
    <div class="flex flex-wrap items-center gap-3">
      <h1 class="text-lg font-semibold">Lanes</h1>
      <button class="strong btn btn-sm" onclick={() => lanes.add()}>New lane</button>
      <label class="plain btn cursor-pointer btn-sm">
        Open from a file
        <input class="sr-only" type="file" accept="application/json,.json" onchange={open} />
      </label>
      <button class="bare btn btn-sm" onclick={takeOutCalendar}
        >What is planned, as a calendar</button
      >
      <a class="ml-auto text-sm underline" href="/review">What waits for review</a>
    </div>
    <p class="text-sm text-quiet">
      Lanes run while this application is open in a tab, every half hour. What fell due while it was
      closed goes out at the same pace afterwards, never all at once.
    </p>
    <SummaryForm />
    {#each pauses.value ?? [] as pause (pause.placeId)}
      <p class="rounded-base border border-edge p-2 text-sm" role="status">
        {names.value?.get(pause.placeId) ?? 'A place'} keeps failing: {problemWords(pause.problem)
          .what} It is left alone until {dateTimeWords(new Date(pause.until).toISOString())}, then
        tried again.
      </p>
    {/each}
    {#if lanes.isRead && lanes.all.length === 0}
      <EmptyState title="No lane yet">
        <p>
          A lane does by itself what you do on the desk and in Updates: it reads a source, sifts,
          makes, keeps a pace, waits for your review, and places.
        </p>
        {#snippet actions()}
          <button class="strong btn btn-sm" onclick={() => lanes.add()}>Make the first lane</button>
        {/snippet}
      </EmptyState>
    {/if}
    {#each lanes.cycles as cycle, i (i)}
      <CycleNote {cycle} lanes={lanes.all} names={names.value ?? new Map()} />
    {/each}
    {#each lanes.all as lane, i (lane.id)}
      <LaneCard {lanes} bind:lane={lanes.all[i]!} names={names.value ?? new Map()} />
    {/each}
  </div>
</div>
