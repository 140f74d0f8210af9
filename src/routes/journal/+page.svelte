<script lang="ts">
  import type { JournalLine } from '$lib/core/model/journal.ts';
  import { isUpdate, type OutboxEntry } from '$lib/core/lanes/outbox.ts';
  import { db } from '$lib/data/db.ts';
  import { recentLines } from '$lib/data/journal.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import { countWords, dateTimeWords, lineWords, problemWords } from '$lib/ui/words.ts';
  import { retryPost, undoPost } from '$lib/work/post.ts';
  import { runTask } from '$lib/work/tasks.svelte.ts';

  const lines = live(() => () => recentLines());
  const entries = live(
    () => async () => new Map((await db.outbox.toArray()).map((e) => [e.key, e]))
  );
  const places = live(
    () => async () =>
      new Map(
        [...(await db.places.toArray()), ...(await db.networks.toArray())].map((p) => [
          p.id,
          p.title
        ])
      )
  );
  let words = $state('');
  const shown = $derived(
    (lines.value ?? []).filter((line) =>
      `${lineWords(line.what)} ${line.title}`.toLowerCase().includes(words.trim().toLowerCase())
    )
  );

  /** The newest line of an entry offers what can be done about it. */
  const newest = $derived.by(() => {
    const ids = new Map<string, number | undefined>();
    for (const line of lines.value ?? [])
      if (line.key && !ids.has(line.key)) ids.set(line.key, line.id);
    return ids;
  });
  const entryOf = (line: JournalLine): OutboxEntry | undefined =>
    line.key && newest.get(line.key) === line.id ? entries.value?.get(line.key) : undefined;

  async function undo(entry: OutboxEntry) {
    await runTask(`Removing “${entry.payload.title}”`, () => undoPost(entry.key));
    const now = await db.outbox.get(entry.key);
    deck.say(
      now?.state === 'removed'
        ? isUpdate(entry.payload)
          ? 'The update was taken back.'
          : 'The post was removed from the blog.'
        : 'It is not removed yet; the journal says why.'
    );
  }
</script>

<svelte:head><title>Journal · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-5xl flex-col gap-3 p-4">
    <div class="flex flex-wrap items-center gap-3">
      <h1 class="text-lg font-semibold">Journal</h1>
      <label class="ml-auto flex items-center gap-2 text-sm">
        Filter <input
          class="field w-56"
          type="search"
          bind:value={words}
          placeholder="What or which"
        />
      </label>
    </div>
    {#if lines.value && shown.length === 0}
      <EmptyState title={words ? 'No line says that' : 'Nothing has happened yet'}>
        <p>
          {words
            ? 'Try other words.'
            : 'What is linked, read, placed and removed is noted here, with undo.'}
        </p>
      </EmptyState>
    {:else}
      <table class="w-full table-fixed text-sm">
        <caption class="sr-only">What happened, newest first</caption>
        <thead class="hidden text-left text-xs text-quiet sm:table-header-group">
          <tr>
            <th class="w-32 py-1 font-normal">When</th>
            <th class="w-36 font-normal">What</th>
            <th class="font-normal">Which, where and why</th>
            <th class="w-44 font-normal"><span class="sr-only">To do</span></th>
          </tr>
        </thead>
        <tbody>
          {#each shown as line (line.id)}
            {@const entry = entryOf(line)}
            <tr class="flex flex-wrap gap-x-3 border-t border-line align-top sm:table-row">
              <td class="times py-1.5 whitespace-nowrap text-quiet">{dateTimeWords(line.at)}</td>
              <td class="py-1.5 font-semibold">{lineWords(line.what)}</td>
              <td class="w-full py-1.5 sm:w-auto">
                {#if line.url}
                  <a href={line.url} target="_blank" rel="noreferrer" class="underline"
                    >{line.title || line.url}</a
                  >
                {:else}{line.title}{/if}
                <span class="text-quiet">
                  {line.count === null ? '' : countWords(line.count, 'item', 'items')}
                  {line.key && line.placeId
                    ? `at ${places.value?.get(line.placeId) ?? 'an unlinked place'}`
                    : ''}
                </span>
                {#if line.problem}
                  <p>
                    {problemWords(line.problem).what}
                    {entry && entry.state !== 'failed'
                      ? 'It is tried again by itself.'
                      : problemWords(line.problem).todo}
                    <span class="text-quiet">{line.problem.detail}</span>
                  </p>
                {/if}
              </td>
              <td class="py-1 text-right whitespace-nowrap">
                {#if entry?.state === 'placed'}
                  <button
                    class="plain btn btn-sm"
                    aria-label="Undo: remove “{line.title}”"
                    onclick={() => undo(entry)}>Undo</button
                  >
                {:else if entry?.state === 'failed'}
                  <button
                    class="plain btn btn-sm"
                    aria-label="Try again: “{line.title}”"
                    onclick={() => retryPost(entry.key)}>Try again</button
                  >
                {:else if entry?.state === 'waiting' || entry?.state === 'sending'}
                  <span class="text-quiet">under way</span>
                {/if}
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </div>
</div>
