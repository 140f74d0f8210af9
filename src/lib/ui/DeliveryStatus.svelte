<script lang="ts">
  import type { Snippet } from 'svelte';
  import { type OutboxEntry } from '$lib/core/delivery/outbox.ts';
  import { isPost } from '$lib/core/delivery/payload.ts';
  import { retryNow, settleTheirs } from '$lib/delivery/deliverEntry.ts';
  import { stopEntry } from '$lib/data/outbox.ts';
  import { clock } from './clock.svelte.ts';
  import { canCancel, deliveryMessage, isUnderWay, standsMessage } from './deliveryMessages.ts';
  import TheirVersion from './TheirVersion.svelte';
  import ConfirmButton from './ConfirmButton.svelte';
  import ProblemNote from './ProblemNote.svelte';

  interface Props {
    entry: OutboxEntry;
    /** What it is: post, video, update. */
    noun: string;
    onremove: () => unknown;
    /** Where it can be seen, or empty where nobody but its owner can see it. */
    url?: string;
    /** How far it has got, where more is known of it than the outbox knows. */
    message?: string;
    /** What else there is to say. */
    children?: Snippet;
    /** Further actions. */
    actions?: Snippet;
  }
  let { entry, noun, onremove, url = entry.url, message = '', children, actions }: Props = $props();
  const isSending = $derived(isUnderWay(entry));
  const now = clock(() => isSending);
  const isCancellable = $derived(canCancel(entry, now.value));
  const isThere = $derived(Boolean(entry.url) && entry.wanted === 'published');
  const stands = $derived(standsMessage(entry));
  const isPublic = $derived(!isPost(entry.payload) || entry.payload.status === 'public');
</script>

{#if stands && entry.state !== 'published'}<p class="text-sm">{stands}</p>{/if}
<p class="text-sm" role="status">
  {message || (entry.state === 'published' && stands) || deliveryMessage(entry, noun, now.value)}
  {#if entry.state === 'waiting' && entry.attempts > 0}
    <button class="plain btn btn-sm" onclick={() => stopEntry(entry.key, Date.now())}>Stop</button>
  {/if}
</p>
{#if entry.theirs}
  <TheirVersion
    theirs={entry.theirs}
    ours={isPost(entry.payload) ? entry.payload : null}
    onkeep={() => settleTheirs(entry.key, 'keep')}
    onoverwrite={() => settleTheirs(entry.key, 'overwrite')}
  />
{:else if entry.problem && entry.state !== 'published'}
  <ProblemNote problem={entry.problem} item={entry.payload.title}>
    {#snippet actions()}
      {#if entry.state === 'failed'}
        <button class="plain btn btn-sm" onclick={() => retryNow(entry.key)}>Try again</button>
        <a class="bare btn btn-sm" href="/places">Go to Places</a>
      {/if}
    {/snippet}
  </ProblemNote>
{/if}
{@render children?.()}
{#if isThere || isCancellable || actions}
  <div class="flex flex-wrap items-center gap-2 text-sm">
    {#if isThere && url}<a href={url} target="_blank" rel="noreferrer">View {noun}</a>{/if}
    {@render actions?.()}
    {#if isThere && !isSending}
      <ConfirmButton
        label="Delete {noun}…"
        confirm="Delete it {isPublic ? 'for everybody' : 'at its place'}"
        keep="Keep it"
        onconfirm={onremove}
      />
    {:else if isCancellable}
      <button class="bare btn btn-sm" onclick={() => onremove()}>Cancel</button>
    {/if}
  </div>
{/if}
