<script lang="ts">
  import { DateTime } from 'luxon';
  import { journalLineSchema, type JournalLine } from '$lib/core/model/journal.ts';
  import { type OutboxEntry } from '$lib/core/delivery/outbox.ts';
  import { isChange, isUpdate } from '$lib/core/delivery/payload.ts';
  import { allLanes } from '$lib/data/lanes.ts';
  import { allEntries, getEntry } from '$lib/data/outbox.ts';
  import { placeTitles } from '$lib/data/places.ts';
  import { outcomeOf, outcomeSchema, type JournalFilter } from '$lib/core/model/journalFilter.ts';
  import { forgetBefore, newestLine } from '$lib/data/journal.ts';
  import { readSetting, saveSetting } from '$lib/data/settings.ts';
  import { journalWorker } from '$lib/workers/journal.ts';
  import Steps from '$lib/ui/Steps.svelte';
  import { z } from 'zod';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import ConfirmButton from '$lib/ui/ConfirmButton.svelte';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import LongList from '$lib/ui/LongList.svelte';
  import {
    plural,
    formatDateTime,
    lineMessage,
    outcomeLabels,
    problemDetail,
    problemMessage
  } from '$lib/ui/messages.ts';
  import { retryNow, undoLast } from '$lib/delivery/deliverEntry.ts';
  import { undoUpdate } from '$lib/work/publishUpdates.ts';
  import { EVERYTHING } from '$lib/data/everything.ts';
  import { undoDiscard } from '$lib/work/discard.ts';
  import { runTask } from '$lib/work/tasks.svelte.ts';

  /** Lines that are read at first, and more each time the end comes near. */
  const MORE = 200;
  const empty: Omit<JournalFilter, 'named'> = {
    words: '',
    outcome: '',
    placeId: '',
    laneId: '',
    itemId: '',
    from: '',
    before: '',
    isBrief: true
  };
  let filter = $state<Omit<JournalFilter, 'named'>>({ ...empty });
  let day = $state('');
  let most = $state(MORE);
  let found = $state.raw<{ lines: JournalLine[]; total: number; all: number } | null>(null);
  const newestId = live(() => newestLine);
  let scroller = $state<HTMLElement>();
  let turn = 0;
  const isFiltered = $derived(
    Object.entries(filter).some(([name, value]) => name !== 'isBrief' && Boolean(value))
  );

  $effect(() => {
    const newest = newestId.value;
    const words = filter.words.trim();
    const asked = {
      ...$state.snapshot(filter),
      words,
      named: journalLineSchema.shape.what.options.filter((what) =>
        lineMessage(what).toLowerCase().includes(words.toLowerCase())
      )
    };
    const count = most;
    const mine = ++turn;
    if (newest === undefined) return;
    void journalWorker()
      .find(asked, count)
      .then((lines) => {
        if (mine === turn) found = lines;
      });
  });
  $effect(() => {
    const from = day ? DateTime.fromISO(day) : null;
    filter.from = from?.toJSDate().toISOString() ?? '';
    filter.before = from?.plus({ days: 1 }).toJSDate().toISOString() ?? '';
  });
  function onscroll(event: Event & { currentTarget: HTMLElement }) {
    const { scrollTop, clientHeight, scrollHeight } = event.currentTarget;
    const isNearEnd = scrollTop + clientHeight > scrollHeight - 1600;
    if (isNearEnd && found && found.lines.length < found.total) most = found.lines.length + MORE;
  }
  const lanes = live(() => allLanes);
  const keep = live(() => () => readSetting('journalDays', keptSchema));
  const entries = live(() => async () => new Map((await allEntries()).map((e) => [e.key, e])));
  const places = live(() => placeTitles);
  const shown = $derived(found?.lines ?? []);

  /** The newest line of an entry offers what can be done about it. */
  const newest = $derived.by(() => {
    const ids = new Map<string, number | undefined>();
    for (const line of shown) if (line.key && !ids.has(line.key)) ids.set(line.key, line.id);
    return ids;
  });
  const entryOf = (line: JournalLine): OutboxEntry | undefined =>
    line.key && newest.get(line.key) === line.id ? entries.value?.get(line.key) : undefined;

  const keptSchema = z.number().catch(0);
  async function keepFor(days: number) {
    await saveSetting('journalDays', days);
    if (days === 0) return;
    await forgetBefore(new Date(Date.now() - days * 86_400_000).toISOString());
    found = await journalWorker().find({ ...$state.snapshot(filter), named: [] }, most);
  }

  async function undo(entry: OutboxEntry) {
    const { title } = entry.payload;
    const isRestored = entry.sentBefore !== null;
    await runTask(isRestored ? `Restoring “${title}”` : `Deleting “${title}”`, () =>
      isUpdate(entry.payload) ? undoUpdate(entry) : undoLast(entry.key)
    );
    const now = await getEntry(entry.key);
    deck.say(
      now?.state === 'removed'
        ? isUpdate(entry.payload)
          ? 'The update was deleted.'
          : `“${title}” was deleted.`
        : now?.state === 'published' && isRestored
          ? `“${title}” is again as it was before.`
          : 'It is not undone yet; the journal says why.'
    );
  }
  async function bringBack(line: JournalLine) {
    const isBack = await undoDiscard(line.trash, line.title);
    deck.say(isBack ? 'It is back as it was.' : 'It can no longer be brought back.');
    if (line.trash === EVERYTHING) location.reload();
  }
</script>

<svelte:head><title>Journal · Swift Twin</title></svelte:head>

<div bind:this={scroller} class="h-full overflow-y-auto" {onscroll}>
  <div class="mx-auto flex max-w-5xl flex-col gap-3 p-4">
    <div class="flex flex-wrap items-center gap-3">
      <h1 class="text-lg font-semibold">Journal</h1>
      <p class="ml-auto text-sm text-quiet" role="status">
        {#if found}{found.total} of {plural(found.all, 'line', 'lines')}{/if}
      </p>
    </div>
    <div class="flex flex-wrap items-end gap-3 text-sm">
      <label class="flex flex-col gap-1"
        >Filter <input
          class="field w-48"
          type="search"
          bind:value={filter.words}
          placeholder="Which"
        /></label
      >
      <label class="flex flex-col gap-1"
        >Outcome
        <select class="field" bind:value={filter.outcome}>
          <option value="">All</option>
          {#each outcomeSchema.options as outcome (outcome)}
            <option value={outcome}>{outcomeLabels[outcome]}</option>
          {/each}
        </select></label
      >
      <label class="flex flex-col gap-1"
        >Place
        <select class="field w-40" bind:value={filter.placeId}>
          <option value="">All</option>
          {#each places.value ?? [] as [id, title] (id)}<option value={id}>{title}</option>{/each}
        </select></label
      >
      {#if (lanes.value ?? []).length > 0}
        <label class="flex flex-col gap-1"
          >Lane
          <select class="field w-40" bind:value={filter.laneId}>
            <option value="">All</option>
            {#each lanes.value ?? [] as { id, name } (id)}<option value={id}>{name}</option>{/each}
          </select></label
        >
      {/if}
      <label class="flex flex-col gap-1"
        >Day <input class="field" type="date" bind:value={day} /></label
      >
      <label class="flex items-center gap-2 py-1.5"
        ><input
          type="checkbox"
          checked={!filter.isBrief}
          onchange={(event) => (filter.isBrief = !event.currentTarget.checked)}
        />Readings and retries</label
      >
      {#if isFiltered}
        <button
          class="bare btn btn-sm"
          onclick={() => {
            filter = { ...empty };
            day = '';
          }}>Show all</button
        >
      {/if}
      <label class="flex flex-col gap-1"
        >Keep for
        <select
          class="field"
          value={String(keep.value ?? 0)}
          onchange={(event) => keepFor(Number(event.currentTarget.value))}
        >
          <option value="0">Forever</option>
          <option value="30">30 days</option>
          <option value="90">90 days</option>
          <option value="365">A year</option>
        </select></label
      >
    </div>
    {#if found && shown.length === 0}
      <EmptyState title={isFiltered ? 'No matching lines' : 'Nothing has happened yet'}>
        <p>
          {isFiltered ? 'Try other words.' : 'What you connect, publish and undo is listed here.'}
        </p>
      </EmptyState>
    {:else}
      <div
        role="table"
        aria-label="What happened, newest first"
        aria-rowcount={(found?.total ?? 0) + 1}
        class="text-sm"
      >
        <div
          role="row"
          aria-rowindex={1}
          class="columns hidden gap-x-3 border-t border-line text-xs text-quiet sm:grid"
        >
          <span role="columnheader">When</span>
          <span role="columnheader">What</span>
          <span role="columnheader">Which, where and why</span>
          <span role="columnheader"><span class="sr-only">To do</span></span>
        </div>

        <LongList
          role="rowgroup"
          items={shown}
          keyOf={(line) => line.id ?? line.at}
          height={36}
          {scroller}
        >
          {#snippet row(line)}
            {@const entry = entryOf(line)}
            <div class="columns flex flex-wrap gap-x-3 border-t border-line sm:grid">
              <div role="cell" class="figures py-1.5 whitespace-nowrap text-quiet">
                {formatDateTime(line.at)}
              </div>
              <div
                role="cell"
                class="my-1 border-l-4 py-0.5 pl-2 font-semibold {outcomeOf(line.what) ===
                'published'
                  ? 'border-post'
                  : 'border-transparent'}"
              >
                {lineMessage(line.what)}
              </div>
              <div role="cell" class="w-full py-1.5 sm:w-auto">
                {#if line.url}
                  <a href={line.url} target="_blank" rel="noreferrer" class="underline"
                    >{line.title || line.url}</a
                  >
                {:else}{line.title}{/if}
                {#if line.to}to {formatDateTime(line.to)}{/if}
                <span class="text-quiet">
                  {line.count === null ? '' : plural(line.count, 'item', 'items')}
                  {line.key && line.placeId
                    ? `at ${places.value?.get(line.placeId) ?? 'a disconnected place'}`
                    : ''}
                </span>
                {#if line.key}<Steps key={line.key} title={line.title} />{/if}
                {#if line.problem}
                  <p>
                    {problemMessage(line.problem).what}
                    {entry && entry.state !== 'failed'
                      ? 'It is tried again by itself.'
                      : problemMessage(line.problem).todo}
                    <span class="text-quiet">{problemDetail(line.problem)}</span>
                  </p>
                {/if}
              </div>
              <div role="cell" class="py-1 text-right whitespace-nowrap">
                {#if line.trash}
                  <button
                    class="plain btn btn-sm"
                    aria-label="Undo: {lineMessage(line.what)} {line.title}"
                    onclick={() => bringBack(line)}>Undo</button
                  >
                {:else if entry?.theirs}
                  <a class="plain btn btn-sm" href="/desk/{entry.itemId}">Compare</a>
                {:else if entry?.state === 'published' && entry.sentBefore}
                  <button
                    class="plain btn btn-sm"
                    aria-label="Undo: “{line.title}”"
                    title="Brings back the version before"
                    onclick={() => undo(entry)}>Undo</button
                  >
                {:else if entry?.state === 'published'}
                  <ConfirmButton
                    label="Undo…"
                    of={line.title}
                    confirm={isChange(entry.payload) ? 'Put it back' : 'Delete it there'}
                    keep="Keep it"
                    onconfirm={() => undo(entry)}
                  />
                {:else if entry?.state === 'failed'}
                  <button
                    class="plain btn btn-sm"
                    aria-label="Try again: “{line.title}”"
                    onclick={() => retryNow(entry.key)}>Try again</button
                  >
                {:else if entry?.state === 'waiting' || entry?.state === 'sending'}
                  <span class="text-quiet">under way</span>
                {/if}
              </div>
            </div>
          {/snippet}
        </LongList>
      </div>
    {/if}
  </div>
</div>

<style>
  .columns {
    grid-template-columns: 8rem 9rem minmax(0, 1fr) 11rem;
  }
</style>
