<script lang="ts">
  import type { Half, Twin } from '$lib/core/model/twin.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { toggleAside } from './setAside.ts';
  import { updatable } from './updatable.ts';

  interface Props {
    /** Those that are selected and shown: what is done is done with them. */
    twins: readonly Twin[];
    /** How many more are selected, but left out by the filter. */
    hidden: number;
    /** How many are shown. */
    shown: number;
    onall: () => void;
    onclear: () => void;
  }
  let { twins, hidden, shown, onall, onclear }: Props = $props();
  const drifted = $derived(updatable(twins));
  const postless = $derived(
    twins.flatMap(({ standing, video }) => (standing === 'no-post' && video ? [video] : []))
  );
  /** Of two that are selected, a video alone and a post alone. */
  const couple = $derived.by(() => {
    const video = twins.find((t) => t.video && !t.post)?.video;
    const post = twins.find((t) => t.post && !t.video)?.post;
    return twins.length === 2 && video && post ? { video, post } : null;
  });
  const videoless = $derived(
    twins.flatMap(({ standing, post }) => (standing === 'no-video' && post ? [post] : []))
  );
  let making = $state.raw<{ what: 'post' | 'video'; halves: readonly Half[] } | null>(null);

  const hasPosts = $derived(
    twins.some(({ post, reason }) => post !== null || reason.kind === 'in-review')
  );
  let changing = $state.raw<readonly Twin[]>([]);

  async function pair({ video, post }: NonNullable<typeof couple>) {
    const { decidePairs } = await import('$lib/work/pairs.ts');
    const titles = { video: video.title, post: post.title };
    const undo = await decidePairs([{ video: video.id, post: post.id, relation: 'twin', titles }]);
    onclear();
    deck.say(`“${video.title}” is paired.`, { label: 'Undo', run: undo });
  }
  async function update() {
    const { updateDrifted } = await import('./updateDrifted.ts');
    await updateDrifted(drifted);
    onclear();
  }
  async function putAside() {
    await toggleAside(twins);
    onclear();
  }
</script>

<div class="flex flex-wrap items-center gap-2 bg-marked px-3 py-1 text-sm" role="status">
  {twins.length} selected{hidden > 0 ? `, ${hidden} more not shown` : ''}
  {#if couple}
    {@const both = couple}
    <button class="plain btn btn-sm" onclick={() => pair(both)}>Pair these two</button>
  {/if}
  {#if drifted.length > 0}
    <button class="plain btn btn-sm" onclick={update}>Update drifted ({drifted.length})</button>
  {/if}
  {#if postless.length > 0}
    <button class="plain btn btn-sm" onclick={() => (making = { what: 'post', halves: postless })}
      >Make {plural(postless.length, 'post', 'posts')}…</button
    >
  {/if}
  {#if videoless.length > 0}
    <button class="plain btn btn-sm" onclick={() => (making = { what: 'video', halves: videoless })}
      >Make {plural(videoless.length, 'video', 'videos')}…</button
    >
  {/if}
  {#if hasPosts}
    <button class="plain btn btn-sm" onclick={() => (changing = twins)}
      >Publish, schedule or tag…</button
    >
  {/if}
  {#if twins.length > 0}
    <button class="plain btn btn-sm" onclick={putAside}>Set aside / Restore</button>
  {/if}
  {#if twins.length < shown}
    <button class="bare btn btn-sm" onclick={onall}>Select all {shown}</button>
  {/if}
  <button class="bare btn btn-sm" onclick={onclear}>Clear</button>
</div>
{#if making}
  {@const of = making}
  {#await import('./MakeMany.svelte') then { default: MakeMany }}
    <MakeMany
      {...of}
      onclose={(isDone) => {
        making = null;
        if (isDone) onclear();
      }}
    />
  {/await}
{/if}
{#if changing.length > 0}
  {#await import('./ManyPosts.svelte') then { default: ManyPosts }}
    <ManyPosts
      twins={changing}
      onclose={(isDone) => {
        changing = [];
        if (isDone) onclear();
      }}
    />
  {/await}
{/if}
