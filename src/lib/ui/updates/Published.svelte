<script lang="ts">
  import { type OutboxEntry } from '$lib/core/delivery/outbox.ts';
  import { isUpdate, type Payload } from '$lib/core/delivery/payload.ts';
  import type { Network } from '$lib/core/model/network.ts';
  import type { Problem } from '$lib/core/model/place.ts';
  import type { Version } from '$lib/core/updates/version.ts';
  import type { Results } from '$lib/places/network.ts';
  import DeliveryStatus from '$lib/ui/DeliveryStatus.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { plural } from '$lib/ui/messages.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
  import { readResults, approveUpdates, undoUpdate } from '$lib/work/publishUpdates.ts';
  import HandedOff from './HandedOff.svelte';

  interface Props {
    entry: OutboxEntry;
    network: Network;
    /** What would be published now. */
    version?: Version;
  }
  let { entry, network, version }: Props = $props();
  let results = $state.raw<Results | null>(null);
  let problem = $state.raw<Problem | null>(null);
  const hasVotes = $derived(
    !network.isByHand && isUpdate(entry.payload) && entry.payload.form !== 'text'
  );
  const message = $derived.by(() => {
    if (!network.isByHand || entry.state !== 'published') return '';
    return entry.answer
      ? 'Posted by hand.'
      : 'Sent to your mailbox. It stays open until you have posted it.';
  });
  const all = $derived(results?.votes.reduce((sum, v) => sum + v.count, 0) ?? 0);

  const optionsOf = (payload: Payload): string =>
    isUpdate(payload) ? JSON.stringify(payload.options) : '';
  const hasOtherOptions = $derived(
    version !== undefined && optionsOf(version.payload) !== optionsOf(entry.sent ?? entry.payload)
  );

  async function refresh() {
    const done = await attempt(() => readResults(entry));
    results = done.value;
    problem = done.problem;
  }
  $effect(() => {
    if (hasVotes && entry.state === 'published') void refresh();
  });
</script>

<div class="flex flex-col gap-2 border-t border-line pt-2 text-sm">
  <DeliveryStatus
    {entry}
    noun={network.isByHand ? 'message' : 'update'}
    {message}
    onremove={() => runTask(`Deleting “${entry.payload.title}”`, () => undoUpdate(entry))}
  >
    {#if network.isByHand && entry.state === 'published'}<HandedOff {entry} />{/if}
    {#if hasVotes && results}
      <div role="group" aria-label="Results">
        <p>{results.isClosed ? 'Closed' : 'Open'}, {plural(all, 'answer', 'answers')} so far.</p>
        <ul>
          {#each results.votes as { name, count }, i (i)}
            <li class="flex items-center gap-2">
              <span class="min-w-0 flex-1 truncate">{name}</span>
              <span class="figures">{count}</span>
              <span class="block h-2 w-24 rounded-base bg-line" aria-hidden="true"
                ><span
                  class="block h-full rounded-base bg-ink"
                  style="width:{(100 * count) / Math.max(1, all)}%"
                ></span></span
              >
            </li>
          {/each}
        </ul>
        {#if all > 0 && !results.isClosed}
          <p class={hasOtherOptions ? 'font-semibold' : 'text-quiet'}>
            {#if hasOtherOptions}The options were changed: if you publish it again, answers are
              counted from zero and these {plural(all, 'answer', 'answers')} are lost.
            {:else}If you publish it again with the same options, its answers are kept.{/if}
          </p>
        {/if}
      </div>
    {/if}
    {#if problem}<ProblemNote {problem} />{/if}
    {#snippet actions()}
      {#if entry.state === 'in-review'}
        <button class="plain btn btn-sm" onclick={() => approveUpdates([entry])}>Approve</button>
      {/if}
      {#if hasVotes && entry.state === 'published'}
        <button class="bare btn btn-sm" onclick={refresh}>Refresh results</button>
      {/if}
    {/snippet}
  </DeliveryStatus>
</div>
