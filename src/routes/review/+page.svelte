<script lang="ts">
  import { isUpdate, isVideo } from '$lib/core/lanes/outbox.ts';
  import type { LaneRecord } from '$lib/core/lanes/record.ts';
  import { db } from '$lib/data/db.ts';
  import { decide } from '$lib/data/lanes.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import Piece from '$lib/ui/lanes/Piece.svelte';
  import Held from '$lib/ui/updates/Held.svelte';
  import { countWords, dateTimeWords } from '$lib/ui/words.ts';

  const names = live(
    () => async () =>
      new Map(
        [
          ...(await db.places.toArray()),
          ...(await db.networks.toArray()),
          ...(await db.lanes.toArray()).map((l) => ({ id: l.id, title: l.name }))
        ].map((p) => [p.id, p.title])
      )
  );
  const waiting = live(() => async () => {
    const records = await db.records.where({ state: 'in-review' }).sortBy('changed');
    return Promise.all(
      records.map(async (record) => ({
        record,
        entries: (await db.outbox.bulkGet(record.keys)).filter((e) => e !== undefined)
      }))
    );
  });
  const alone = live(
    () => async () =>
      (await db.outbox.where({ state: 'in-review' }).toArray()).some((e) => e.laneId === '')
  );
  let current = $state(0);
  let selected = $state<ReadonlySet<string>>(new Set());
  let opened = $state('');
  let list = $state<HTMLElement>();
  const rows = $derived(waiting.value ?? []);
  const at = $derived(Math.min(current, Math.max(0, rows.length - 1)));
  const chosen = $derived.by((): LaneRecord[] => {
    const some = rows.filter((r) => selected.has(r.record.id)).map((r) => r.record);
    const one = rows[at]?.record;
    return some.length > 0 ? some : one ? [one] : [];
  });

  const SAID = {
    'let-out': 'let out; the pace of the lane says when',
    'send-back': 'sent back, to be made anew',
    skip: 'skipped for good'
  };
  async function settle(records: LaneRecord[], decision: keyof typeof SAID) {
    if (records.length === 0) return;
    await decide(records, decision, Date.now());
    selected = new Set();
    deck.say(`${countWords(records.length, 'item', 'items')} ${SAID[decision]}.`);
    list?.focus();
  }
  function toggle(id: string) {
    const next = new Set(selected);
    if (!next.delete(id)) next.add(id);
    selected = next;
  }
  function move(to: number) {
    current = Math.max(0, Math.min(to, rows.length - 1));
    list?.querySelectorAll('li')[current]?.scrollIntoView({ block: 'nearest' });
  }
  function onkeydown(event: KeyboardEvent) {
    const row = rows[at];
    if (event.target !== list || !row || event.ctrlKey || event.metaKey || event.altKey) return;
    switch (event.key) {
      case 'ArrowDown':
        move(at + 1);
        break;
      case 'ArrowUp':
        move(at - 1);
        break;
      case 'Enter':
        opened = opened === row.record.id ? '' : row.record.id;
        break;
      case ' ':
        toggle(row.record.id);
        break;
      case 'o':
        void settle(chosen, 'let-out');
        break;
      case 'b':
        void settle(chosen, 'send-back');
        break;
      case 'x':
        void settle(chosen, 'skip');
        break;
      default:
        return;
    }
    event.preventDefault();
  }
</script>

<svelte:head><title>Review · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-5xl flex-col gap-3 p-4">
    <div class="flex flex-wrap items-center gap-3">
      <h1 class="text-lg font-semibold">Review</h1>
      <a class="text-sm underline" href="/lanes">Lanes</a>
      {#if rows.length > 0}
        <p class="ml-auto text-sm text-quiet" id="review-keys">
          <kbd>↑</kbd> <kbd>↓</kbd> move · <kbd>Enter</kbd> look · <kbd>O</kbd> let out ·
          <kbd>B</kbd> send back · <kbd>X</kbd> skip for good · <kbd>Space</kbd> select
        </p>
      {/if}
    </div>
    {#if selected.size > 0}
      <div
        class="flex flex-wrap items-center gap-2 rounded-base bg-marked px-3 py-1 text-sm"
        role="status"
      >
        {countWords(selected.size, 'item', 'items')} selected
        <button class="plain btn btn-sm" onclick={() => settle(chosen, 'let-out')}>Let out</button>
        <button class="plain btn btn-sm" onclick={() => settle(chosen, 'send-back')}
          >Send back</button
        >
        <button class="plain btn btn-sm" onclick={() => settle(chosen, 'skip')}
          >Skip for good</button
        >
      </div>
    {/if}
    <Held networks={names.value ?? new Map()} />
    {#if waiting.value && rows.length === 0 && alone.value === false}
      <EmptyState title="Nothing waits for you">
        <p>What lanes make waits here until you have looked at it, unless their gate is open.</p>
        {#snippet actions()}<a class="plain btn btn-sm" href="/lanes">Go to Lanes</a>{/snippet}
      </EmptyState>
    {/if}
    {#if rows.length > 0}
      <!-- The list takes the focus; its rows are moved through by key. -->
      <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
      <ul
        bind:this={list}
        class="flex flex-col gap-2"
        aria-label="Made by lanes"
        aria-describedby="review-keys"
        tabindex="0"
        {onkeydown}
      >
        {#each rows as { record, entries }, i (record.id)}
          <li
            class="rounded-container border border-l-4 bg-sheet p-3 {i === at
              ? 'border-line border-l-ink'
              : 'border-line border-l-edge'} {selected.has(record.id) ? 'bg-marked' : ''}"
            aria-current={i === at ? 'true' : undefined}
          >
            <div class="flex flex-wrap items-center gap-2 text-sm">
              <input
                type="checkbox"
                class="size-4"
                aria-label="Select {record.title}"
                checked={selected.has(record.id)}
                onchange={() => toggle(record.id)}
              />
              <div class="min-w-0 flex-1 basis-64">
                <p class="font-semibold">{record.title}</p>
                <p class="text-quiet">
                  {names.value?.get(record.laneId) ?? 'A lane'}, made {dateTimeWords(
                    new Date(record.changed).toISOString()
                  )}, for
                  {entries.map((e) => names.value?.get(e.placeId) ?? 'a place').join(', ')}
                </p>
              </div>
              <button
                class="plain btn btn-sm"
                aria-expanded={opened === record.id}
                onclick={() => {
                  current = i;
                  opened = opened === record.id ? '' : record.id;
                }}>Look<span class="sr-only"> at “{record.title}”</span></button
              >
              <a
                class="bare btn btn-sm"
                href={entries.some((e) => isUpdate(e.payload))
                  ? `/updates/${record.itemId}`
                  : entries.some((e) => isVideo(e.payload))
                    ? `/booth/${record.itemId}`
                    : `/desk/${record.itemId}`}
                >Change it by hand<span class="sr-only">: “{record.title}”</span></a
              >
              <button class="strong btn btn-sm" onclick={() => settle([record], 'let-out')}
                >Let out<span class="sr-only">: “{record.title}”</span></button
              >
              <button class="bare btn btn-sm" onclick={() => settle([record], 'send-back')}
                >Send back<span class="sr-only">: “{record.title}”</span></button
              >
              <button class="bare btn btn-sm" onclick={() => settle([record], 'skip')}
                >Skip<span class="sr-only">: “{record.title}” for good</span></button
              >
            </div>
            {#if opened === record.id}
              {#each entries as entry (entry.key)}
                <div class="pt-2 text-sm">
                  <h2 class="font-semibold">{names.value?.get(entry.placeId)}</h2>
                  <Piece
                    payload={entry.payload}
                    itemId={entry.itemId}
                    placeId={entry.placeId}
                    label="The post of {record.title}"
                  />
                </div>
              {/each}
            {/if}
          </li>
        {/each}
      </ul>
    {/if}
  </div>
</div>
