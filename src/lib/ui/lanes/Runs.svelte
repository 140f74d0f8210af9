<script lang="ts">
  import ConfirmButton from '$lib/ui/ConfirmButton.svelte';
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import type { LaneRecord } from '$lib/core/lanes/record.ts';
  import type { LaneRun } from '$lib/core/lanes/run.ts';
  import { latestRuns, makeAgain, recordsOf } from '$lib/data/lanes.ts';
  import { entriesOfLane } from '$lib/data/outbox.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { recordLabels } from '$lib/ui/laneMessages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { plural, formatDateTime, problemMessage } from '$lib/ui/messages.ts';
  import { undoRun } from '$lib/work/lanes/undoRun.ts';
  import DropNote from './DropNote.svelte';

  let { lane, names }: { lane: Lane; names: ReadonlyMap<string, string> } = $props();
  /** Runs and items that are shown. */
  const [RUNS, ITEMS] = [10, 200];
  const runs = live(() => {
    const laneId = lane.id;
    return () => latestRuns(laneId, RUNS);
  });
  const records = live(() => {
    const laneId = lane.id;
    return async () =>
      (await recordsOf(laneId)).sort((a, b) => b.changed - a.changed).slice(0, ITEMS);
  });
  /** Where what was placed can be seen, by record. */
  const addresses = live(() => {
    const laneId = lane.id;
    return async () => {
      const placed = await entriesOfLane(laneId);
      const seen = placed.filter((e) => e.state === 'published' && (e.answer || e.url));
      const told = seen.map(({ answer, url, ...e }) => ({ ...e, url: answer || url }));
      return Map.groupBy(told, (e) => e.itemId);
    };
  });
  const isDropped = (state: string) => state === 'dropped';
  const held = $derived((records.value ?? []).filter((r) => !isDropped(r.state)));
  const dropped = $derived((records.value ?? []).filter((r) => isDropped(r.state)));

  /** What was undone, skipped or removed is made once more by the next run. */
  async function release({ id, title }: LaneRecord) {
    await makeAgain(id, Date.now());
    deck.say(`The next run of “${lane.name}” makes “${title}” again.`);
  }
  async function undo(run: LaneRun) {
    const { undone, left } = await undoRun(run);
    deck.say(
      left.length === 0
        ? `${plural(undone, 'item was', 'items were')} undone.`
        : `${plural(undone, 'item was', 'items were')} undone; not yet: ${left.join(', ')}.`
    );
  }
</script>

{#snippet link(url: string, words: string)}
  <a class="underline" href={url} target="_blank" rel="noreferrer">{words}</a>
{/snippet}

{#if runs.value && runs.value.length > 0}
  <details class="text-sm">
    <summary>History: {plural(runs.value.length, 'run', 'runs')}</summary>
    <ul class="flex flex-col gap-1 pt-2" aria-label="Runs of {lane.name}">
      {#each runs.value as run (run.id)}
        <li class="flex flex-wrap items-center gap-x-3">
          <span class="figures text-quiet">{formatDateTime(new Date(run.at).toISOString())}</span>
          <span class="flex-1">
            {run.ended === null ? 'Running: ' : ''}found {run.seen}, left out {run.dropped}, made
            {run.made}{run.failed > 0 ? `, could not make ${run.failed}` : ''}.
            {run.problem ? problemMessage(run.problem).what : ''}
          </span>
          {#if run.made > 0}
            <ConfirmButton
              label="Undo this run…"
              confirm="Delete what it published"
              keep="Keep it"
              onconfirm={() => undo(run)}
            />
          {/if}
        </li>
      {/each}
    </ul>
    <ul class="flex flex-col gap-0.5 pt-2" aria-label="Items of {lane.name}">
      {#each held as record (record.id)}
        {@const [first, ...others] = addresses.value?.get(record.itemId) ?? []}
        <li>
          <span class="font-semibold">{recordLabels[record.state]}</span>:
          {#if first}{@render link(first.url, record.title)}{:else}{record.title}{/if}
          {#each others as { key, url, placeId } (key)}
            , {@render link(url, names.get(placeId) ?? 'another place')}
          {/each}
          {#if record.state === 'undone' || record.state === 'skipped' || record.state === 'failed'}
            <button class="bare btn btn-sm" onclick={() => release(record)}
              >Make again<span class="sr-only">: “{record.title}”</span></button
            >
          {/if}
          {#if record.problem}<span class="text-quiet"
              >{problemMessage(record.problem).what} {record.problem.detail}</span
            >{/if}
        </li>
      {/each}
    </ul>
    {#if dropped.length > 0}
      <details class="pt-1">
        <summary>Left out: {dropped.length}</summary>
        <ul class="list-disc pl-5" aria-label="Left out by {lane.name}">
          {#each dropped as record (record.id)}
            <li>
              {record.title}:
              {#if record.reason}<DropNote reason={record.reason} />{/if}
              {#if record.reason?.kind === 'made-already'}
                <button class="bare btn btn-sm" onclick={() => release(record)}
                  >Make again<span class="sr-only">: “{record.title}”</span></button
                >
              {/if}
            </li>
          {/each}
        </ul>
      </details>
    {/if}
  </details>
{/if}
