<script lang="ts">
  import { isUpdate, isVideo } from '$lib/core/delivery/payload.ts';
  import type { LaneRecord } from '$lib/core/lanes/record.ts';
  import { isBlocked, type Decision } from '$lib/core/lanes/decide.ts';
  import { allLanes, decideAll, recordsInReview } from '$lib/data/lanes.ts';
  import { entriesIn } from '$lib/data/outbox.ts';
  import { placeTitles } from '$lib/data/places.ts';
  import { rowForKey } from '$lib/ui/listKeys.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import FindingList from '$lib/ui/lanes/FindingList.svelte';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import PayloadPreview from '$lib/ui/lanes/PayloadPreview.svelte';
  import Held from '$lib/ui/updates/InReview.svelte';
  import { plural, formatDateTime } from '$lib/ui/messages.ts';
  import { withToggled } from '$lib/ui/selection.ts';

  const names = live(() => async () => {
    const lanes = (await allLanes()).map((lane) => [lane.id, lane.name] as const);
    return new Map([...(await placeTitles()), ...lanes]);
  });
  const waiting = live(() => recordsInReview);
  const alone = live(() => async () => (await entriesIn('in-review')).some((e) => e.laneId === ''));
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

  const SAID: Record<Decision, string> = {
    approve: 'approved; the pace of the lane decides when',
    'send-back': 'sent back to be made again',
    skip: 'will never be made'
  };
  async function decideOn(records: LaneRecord[], decision: Decision) {
    if (records.length === 0) return;
    const decided = await decideAll(records, decision, Date.now());
    selected = new Set();
    const blocked = records.length - decided;
    const left =
      blocked > 0 ? ` ${plural(blocked, 'item is', 'items are')} blocked by a check.` : '';
    const off = (await allLanes()).filter(
      (lane) => !lane.isOn && records.some((record) => record.laneId === lane.id)
    );
    const held =
      decision === 'approve' && off.length > 0
        ? ` Nothing is published while ${off.map((lane) => `“${lane.name}”`).join(', ')} is off.`
        : '';
    deck.say(`${plural(decided, 'item', 'items')} ${SAID[decision]}.${held}${left}`);
    list?.focus();
  }
  // The keys work at once, unless something else was focused already.
  $effect(() => {
    if (list && document.activeElement === document.body) list.focus();
  });
  function toggle(id: string) {
    selected = withToggled(selected, id);
  }
  function move(to: number) {
    current = Math.max(0, Math.min(to, rows.length - 1));
    list?.querySelectorAll('li')[current]?.scrollIntoView({ block: 'nearest' });
  }
  function onkeydown(event: KeyboardEvent) {
    const row = rows[at];
    const target = event.target as HTMLElement;
    // A tick leaves the focus in its box, which takes the space itself.
    const isBox = target instanceof HTMLInputElement && target.type === 'checkbox';
    if ((target !== list && !isBox) || (isBox && event.key === ' ')) return;
    if (!row || event.ctrlKey || event.metaKey || event.altKey) return;
    switch (event.key) {
      case 'Enter':
        opened = opened === row.record.id ? '' : row.record.id;
        break;
      case ' ':
        toggle(row.record.id);
        break;
      case 'o':
        void decideOn(chosen, 'approve');
        break;
      case 'b':
        void decideOn(chosen, 'send-back');
        break;
      case 'x':
        void decideOn(chosen, 'skip');
        break;
      default: {
        const to = rowForKey(event.key, at, rows.length);
        if (to === null) return;
        move(to);
      }
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
        <p class="ml-auto text-sm text-quiet max-sm:sr-only" id="review-keys">
          <kbd>↑</kbd> <kbd>↓</kbd> move · <kbd>Enter</kbd> preview · <kbd>O</kbd> approve ·
          <kbd>B</kbd> back to editing · <kbd>X</kbd> never make this · <kbd>Space</kbd> select
        </p>
      {/if}
    </div>
    {#if selected.size > 0}
      <div
        class="flex flex-wrap items-center gap-2 rounded-base bg-marked px-3 py-1 text-sm"
        role="status"
      >
        {plural(selected.size, 'item', 'items')} selected
        <button class="plain btn btn-sm" onclick={() => decideOn(chosen, 'approve')}>Approve</button
        >
        <button class="plain btn btn-sm" onclick={() => decideOn(chosen, 'send-back')}
          >Back to editing</button
        >
        <button class="plain btn btn-sm" onclick={() => decideOn(chosen, 'skip')}
          >Never make this</button
        >
      </div>
    {/if}
    <Held networks={names.value ?? new Map()} />
    {#if waiting.value && rows.length === 0 && alone.value === false}
      <EmptyState title="Nothing to review">
        <p>
          What lanes make waits here until you approve it, unless a lane publishes without approval.
        </p>
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
                  {names.value?.get(record.laneId) ?? 'A lane'}, made {formatDateTime(
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
                }}>Preview<span class="sr-only"> at “{record.title}”</span></button
              >
              <a
                class="bare btn btn-sm"
                href={entries.some((e) => isUpdate(e.payload))
                  ? `/updates/${record.itemId}`
                  : entries.some((e) => isVideo(e.payload))
                    ? `/booth/${record.itemId}`
                    : `/desk/${record.itemId}`}
                >Edit<span class="sr-only">: “{record.title}”</span></a
              >
              <button
                class="strong btn btn-sm"
                disabled={entries.some(isBlocked)}
                onclick={() => decideOn([record], 'approve')}
                >Approve<span class="sr-only">: “{record.title}”</span></button
              >
              <button class="bare btn btn-sm" onclick={() => decideOn([record], 'send-back')}
                >Back to editing<span class="sr-only">: “{record.title}”</span></button
              >
              <button class="bare btn btn-sm" onclick={() => decideOn([record], 'skip')}
                >Skip<span class="sr-only">: “{record.title}” for good</span></button
              >
            </div>
            {#each entries as { key, findings } (key)}
              <FindingList {findings} />
            {/each}
            {#if opened === record.id}
              {#each entries as entry (entry.key)}
                <div class="pt-2 text-sm">
                  <h2 class="font-semibold">{names.value?.get(entry.placeId)}</h2>
                  <PayloadPreview
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
