<script lang="ts">
  import { isUpdate, type OutboxEntry } from '$lib/core/lanes/outbox.ts';
  import type { Network } from '$lib/core/model/network.ts';
  import type { Problem } from '$lib/core/model/place.ts';
  import type { Results } from '$lib/places/network.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { countWords, dateTimeWords } from '$lib/ui/words.ts';
  import { retryPost } from '$lib/work/post.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
  import { readResults, sendHeld, undoUpdate } from '$lib/work/tell.ts';
  import HandedOff from './HandedOff.svelte';

  let { entry, network }: { entry: OutboxEntry; network: Network } = $props();
  let results = $state.raw<Results | null>(null);
  let problem = $state.raw<Problem | null>(null);
  const hasVotes = $derived(
    !network.isByHand && isUpdate(entry.payload) && entry.payload.form !== 'text'
  );
  const isLater = $derived(
    entry.state === 'waiting' && entry.attempts === 0 && entry.nextTry > Date.now() + 5000
  );
  const all = $derived(results?.votes.reduce((sum, v) => sum + v.count, 0) ?? 0);

  async function look() {
    const done = await attempt(() => readResults(entry));
    results = done.value;
    problem = done.problem;
  }
  $effect(() => {
    if (hasVotes && entry.state === 'placed') void look();
  });
</script>

<div class="flex flex-col gap-2 border-t border-line pt-2 text-sm">
  <p role="status">
    {#if entry.state === 'placed' && network.isByHand}
      {entry.answer
        ? 'Posted by hand.'
        : 'Handed to you by message. It is open until you have posted it.'}
    {:else if entry.state === 'in-review'}Waits for review.
    {:else if entry.state === 'placed'}Told {dateTimeWords(new Date(entry.updated).toISOString())}.
    {:else if entry.state === 'removed'}Taken back.
    {:else if entry.state === 'failed'}Not told.
    {:else if isLater}Goes out {dateTimeWords(new Date(entry.nextTry).toISOString())}, while this
      application is open.
    {:else}On its way.{/if}
  </p>
  {#if entry.problem && entry.state !== 'placed'}
    <ProblemNote problem={entry.problem} item={entry.payload.title}>
      {#snippet actions()}
        <button class="plain btn btn-sm" onclick={() => retryPost(entry.key)}>Try again</button>
      {/snippet}
    </ProblemNote>
  {/if}
  {#if network.isByHand && entry.state === 'placed'}<HandedOff {entry} />{/if}
  {#if hasVotes && results}
    <div role="group" aria-label="Results">
      <p>{results.isClosed ? 'Closed' : 'Open'}, {countWords(all, 'answer', 'answers')} so far.</p>
      <ul>
        {#each results.votes as { name, count }, i (i)}
          <li class="flex items-center gap-2">
            <span class="min-w-0 flex-1 truncate">{name}</span>
            <span class="times">{count}</span>
            <span class="block h-2 w-24 rounded-base bg-line" aria-hidden="true"
              ><span
                class="block h-full rounded-base bg-ink"
                style="width:{(100 * count) / Math.max(1, all)}%"
              ></span></span
            >
          </li>
        {/each}
      </ul>
    </div>
  {/if}
  {#if problem}<ProblemNote {problem} />{/if}
  <div class="flex flex-wrap items-center gap-2">
    {#if entry.url && entry.state !== 'removed'}
      <a href={entry.url} target="_blank" rel="noreferrer"
        >{network.isByHand ? 'See the message' : 'See it there'}</a
      >
    {/if}
    {#if entry.state === 'in-review'}
      <button class="plain btn btn-sm" onclick={() => sendHeld([entry])}>Let it go out</button>
    {/if}
    {#if hasVotes && entry.state === 'placed'}
      <button class="bare btn btn-sm" onclick={look}>Look at the results again</button>
    {/if}
    {#if entry.state !== 'removed'}
      <button
        class="bare btn btn-sm"
        onclick={() => runTask(`Taking back “${entry.payload.title}”`, () => undoUpdate(entry))}
        >{entry.state === 'placed' ? 'Undo: take it back' : 'Do not send it'}</button
      >
    {/if}
  </div>
</div>
