<script lang="ts">
  import { canPublish } from '$lib/core/model/place.ts';
  import { getEntry } from '$lib/data/outbox.ts';
  import { getTwin } from '$lib/data/twins.ts';
  import { undoEntry } from '$lib/delivery/deliverEntry.ts';
  import { clock } from '$lib/ui/clock.svelte.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import DateTimeField from '$lib/ui/DateTimeField.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import DeliveryStatus from '$lib/ui/DeliveryStatus.svelte';
  import { isUnderWay, publishLabel } from '$lib/ui/deliveryMessages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { placesOfKind } from '$lib/data/places.ts';
  import { isKeyProblem } from '$lib/core/delivery/retry.ts';
  import PublishPanel from '$lib/ui/PublishPanel.svelte';
  import { runTask } from '$lib/work/tasks.svelte.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();

  const VISIBILITIES = [
    ['draft', 'Draft: only you see it'],
    ['public', 'Public, now'],
    ['private', 'Private'],
    ['dated', 'Public on a date']
  ] as const;

  const entry = live(() => {
    const { key } = desk;
    return () => (key ? getEntry(key) : undefined);
  });
  const twin = live(() => {
    const id = desk.video?.id;
    return () => (id ? getTwin(id) : undefined);
  });
  // A key that ends, or is added in another tab, counts here at once.
  const blogs = live(() => () => placesOfKind('blog'));
  $effect(() => {
    if (blogs.value) desk.blogs = blogs.value;
  });
  let isSecondWanted = $state(false);
  let isPastMeant = $state(false);
  const now = clock(() => desk.status === 'dated');
  const isPast = $derived(new Date(desk.on).getTime() < now.value);
  const isThere = $derived(Boolean(entry.value?.url) && entry.value?.wanted === 'published');
  const isSending = $derived(entry.value !== undefined && isUnderWay(entry.value));
  const mayPublish = $derived(desk.blog !== null && canPublish(desk.blog));
  const draftOnly = $derived(desk.blog !== null && !desk.blog.rights.includes('create'));
  /** A post of this video that was not made here: publishing would make a second one. */
  const other = $derived(
    entry.value || twin.value?.post?.isMade ? null : (twin.value?.post ?? null)
  );
  const isReady = $derived(
    (other === null || isSecondWanted) &&
      mayPublish &&
      desk.isLoaded &&
      !isSending &&
      Boolean(desk.post?.title) &&
      (desk.status !== 'dated' || (desk.on !== '' && (isPastMeant || !isPast)))
  );
  const verb = $derived(
    publishLabel(isThere ? (entry.value?.sent ?? null) : null, desk.status, desk.on)
  );

  const action = $derived({ label: verb, isReady, run: () => desk.publish() });

  async function remove() {
    const { key, post } = desk;
    await runTask(`Deleting “${post?.title ?? ''}”`, () => undoEntry(key));
    deck.say('Deleting the post… The journal says how it ended.');
  }
</script>

<PublishPanel side="post" action={desk.blogs.length === 0 ? undefined : action}>
  {#if desk.blogs.length === 0}
    <p class="text-sm">
      No blog is connected yet. <a href="/places">Connect one</a>, or copy the HTML.
    </p>
  {:else}
    <label class="flex flex-col gap-1 text-sm font-semibold">
      Blog
      <select class="field font-normal" bind:value={desk.blogId}>
        {#each desk.blogs as blog (blog.id)}<option value={blog.id}>{blog.title}</option>{/each}
      </select>
    </label>
    {#if desk.blog?.problem && isKeyProblem(desk.blog.problem)}
      <p class="text-sm font-semibold">
        {desk.blog.title} refuses its key: it has expired or was withdrawn.
        <a href="/places">Add a new key</a>
      </p>
    {:else if !mayPublish}
      <p class="text-sm">
        {desk.blog?.title} is connected read only. <a href="/places">Add a key</a> to publish there.
      </p>
    {/if}
    <div class="text-sm">
      <Choice
        legend="Visibility"
        shown="above"
        isStacked
        options={VISIBILITIES}
        bind:value={desk.status}
        disabled={(status) => draftOnly && status !== 'draft'}
      />
      {#if draftOnly && mayPublish}<p class="text-quiet">The key can only save drafts.</p>{/if}
    </div>
    {#if desk.status === 'dated'}<DateTimeField bind:value={desk.on} bind:isPastMeant />{/if}
    {#if other}
      <div class="flex flex-col gap-1 rounded-base border border-edge p-2 text-sm">
        <p>
          This video already has a post:
          <a href={other.url} target="_blank" rel="noreferrer">{other.title}</a>
        </p>
        <label class="flex items-center gap-2">
          <input type="checkbox" bind:checked={isSecondWanted} /> Publish a second post anyway
        </label>
      </div>
    {/if}
  {/if}
  {#snippet status()}
    {#if entry.value}
      <DeliveryStatus entry={entry.value} noun="post" onremove={remove} />
    {/if}
  {/snippet}
</PublishPanel>
