<script lang="ts">
  import type { OutboxEntry } from '$lib/core/lanes/outbox.ts';
  import { canPublish } from '$lib/core/model/place.ts';
  import { db } from '$lib/data/db.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { placePost, retryPost, toPayload, undoPost } from '$lib/work/post.ts';
  import { runTask } from '$lib/work/tasks.svelte.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();

  const entry = live(() => {
    const { key } = desk;
    return () => (key ? db.outbox.get(key) : undefined);
  });
  const twin = live(() => {
    const id = desk.video?.id;
    return () => (id ? db.twins.get(id) : undefined);
  });
  let isSecondWanted = $state(false);
  const stands = $derived(entry.value?.state === 'placed' ? entry.value : null);
  const isUnderWay = $derived(entry.value?.state === 'waiting' || entry.value?.state === 'sending');
  const mayPublish = $derived(desk.blog !== null && canPublish(desk.blog));
  const draftOnly = $derived(desk.blog !== null && !desk.blog.rights.includes('create'));
  /** A post of this video that was not made here: placing would make a second one. */
  const other = $derived(
    entry.value || twin.value?.post?.isMade ? null : (twin.value?.post ?? null)
  );
  const isReady = $derived(
    (other === null || isSecondWanted) &&
      mayPublish &&
      desk.isLoaded &&
      !isUnderWay &&
      Boolean(desk.post?.title) &&
      (desk.status !== 'dated' || desk.on !== '')
  );
  const verb = $derived.by(() => {
    if (stands) return 'Place it again, in place of the last';
    if (desk.status === 'draft') return 'Place as a draft';
    return desk.status === 'dated' ? 'Place for this date' : `Place it, ${desk.status}`;
  });

  async function place() {
    const { video, post, blog, key } = desk;
    if (!video || !post || !blog) return;
    const payload = toPayload(post, { status: desk.status, on: desk.on });
    desk.markPlaced();
    await placePost(
      { key, itemId: video.id, placeId: blog.id, payload },
      video.placeId,
      desk.draft()
    );
  }

  async function undo(placed: OutboxEntry) {
    await runTask(`Removing “${placed.payload.title}”`, () => undoPost(placed.key));
    deck.say('The post was asked to be removed; the journal says what came of it.');
  }
</script>

<section
  aria-labelledby="place-title"
  class="flex flex-col gap-3 rounded-container border border-l-4 border-post bg-sheet p-3"
>
  <h2 id="place-title" class="font-semibold">Place it</h2>
  {#if desk.blogs.length === 0}
    <p class="text-sm">No blog is linked yet. <a href="/places">Link one</a>, or copy the HTML.</p>
  {:else}
    <label class="flex flex-col gap-1 text-sm font-semibold">
      Blog
      <select class="field font-normal" bind:value={desk.blogId}>
        {#each desk.blogs as blog (blog.id)}<option value={blog.id}>{blog.title}</option>{/each}
      </select>
    </label>
    {#if !mayPublish}
      <p class="text-sm">
        {desk.blog?.title} is linked for reading. <a href="/places">Give it a key</a> to publish there.
      </p>
    {/if}
    <fieldset class="flex flex-col gap-1 text-sm">
      <legend class="font-semibold">How it stands there</legend>
      {#each [['draft', 'Draft: only you see it'], ['public', 'Public, now'], ['private', 'Private'], ['dated', 'Public on a date']] as [value, label] (value)}
        <label class="flex items-center gap-2">
          <input
            type="radio"
            name="status"
            {value}
            bind:group={desk.status}
            disabled={draftOnly && value !== 'draft'}
          />
          {label}
        </label>
      {/each}
      {#if draftOnly && mayPublish}<p class="text-quiet">The key may leave drafts only.</p>{/if}
    </fieldset>
    {#if desk.status === 'dated'}
      <label class="flex flex-col gap-1 text-sm font-semibold">
        Date and time, here
        <input class="field font-normal" type="datetime-local" bind:value={desk.on} />
      </label>
    {/if}
    {#if other}
      <div class="flex flex-col gap-1 rounded-base border border-edge p-2 text-sm">
        <p>
          This video has a post already:
          <a href={other.url} target="_blank" rel="noreferrer">{other.title}</a>
        </p>
        <label class="flex items-center gap-2">
          <input type="checkbox" bind:checked={isSecondWanted} /> Make a second post all the same
        </label>
      </div>
    {/if}
    <button class="strong btn whitespace-normal" disabled={!isReady} onclick={place}>{verb}</button>
  {/if}
  {#if isUnderWay && entry.value}
    <p class="text-sm" role="status">
      {entry.value.wanted === 'removed' ? 'Being removed.' : 'Being placed.'}
      {entry.value.attempts > 0 ? `Try ${entry.value.attempts + 1}: the last one went wrong.` : ''}
    </p>
    {#if entry.value.problem}<ProblemNote
        problem={entry.value.problem}
        item={entry.value.payload.title}
      />{/if}
  {:else if stands}
    <div class="flex flex-wrap items-center gap-2 text-sm" role="status">
      <a href={stands.url} target="_blank" rel="noreferrer">See it at the blog</a>
      <button class="plain btn btn-sm" onclick={() => undo(stands)}>Undo: remove the post</button>
    </div>
  {:else if entry.value?.state === 'failed' && entry.value.problem}
    {@const failed = entry.value}
    <ProblemNote problem={entry.value.problem} item={entry.value.payload.title}>
      {#snippet actions()}
        <button class="plain btn btn-sm" onclick={() => retryPost(failed.key)}>Try again</button>
        <a class="bare btn btn-sm" href="/places">Go to Places</a>
      {/snippet}
    </ProblemNote>
  {/if}
</section>
