<script lang="ts">
  import { currentPauses } from '$lib/data/pauses.ts';
  import { placeTitles } from '$lib/data/places.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import SummaryForm from '$lib/ui/lanes/SummaryForm.svelte';
  import CycleNote from '$lib/ui/lanes/CycleNote.svelte';
  import LaneCard from '$lib/ui/lanes/LaneCard.svelte';
  import { Lanes } from '$lib/ui/lanes/lanesState.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { plural, formatDateTime, problemMessage } from '$lib/ui/messages.ts';

  const lanes = new Lanes();
  $effect(() => lanes.follow());
  const names = live(() => placeTitles);
  const pauses = live(() => () => currentPauses(Date.now()));

  async function exportCalendarFile() {
    const { exportCalendar } = await import('$lib/work/calendar.ts');
    const count = await exportCalendar();
    deck.say(`${plural(count, 'planned item', 'planned items')} exported as a calendar.`);
  }
  async function open(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file) return;
    try {
      const lane = await lanes.open(await file.text());
      deck.say(`“${lane.name}” is imported. Choose its source and its places.`);
    } catch {
      deck.say(`“${file.name}” is not a lane file. Nothing was changed.`);
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
        Import lane
        <input class="sr-only" type="file" accept="application/json,.json" onchange={open} />
      </label>
      <button class="bare btn btn-sm" onclick={exportCalendarFile}>Export calendar</button>
      <a class="ml-auto text-sm underline" href="/review">Review</a>
    </div>
    <p class="text-sm text-quiet">
      Lanes run while this application is open in a tab, every half hour. What was missed while it
      was closed is published at the same pace afterwards, never all at once.
    </p>
    <SummaryForm />
    {#each pauses.value ?? [] as pause (pause.placeId)}
      <p class="rounded-base border border-edge p-2 text-sm" role="status">
        {names.value?.get(pause.placeId) ?? 'A place'} keeps failing: {problemMessage(pause.problem)
          .what} Trying again at {formatDateTime(new Date(pause.until).toISOString())}.
      </p>
    {/each}
    {#if lanes.isRead && lanes.all.length === 0}
      <EmptyState title="No lanes yet">
        <p>
          A lane does by itself what you do on the desk and in Updates: it reads a source, filters
          it, makes posts, videos or updates, waits for your approval, and publishes at your pace.
        </p>
        {#snippet actions()}
          <button class="strong btn btn-sm" onclick={() => lanes.add()}
            >Create the first lane</button
          >
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
