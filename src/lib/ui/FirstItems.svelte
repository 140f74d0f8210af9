<script lang="ts">
  import type { Twin } from '$lib/core/model/twin.ts';
  import { isUnpaired } from '$lib/core/twins/unpaired.ts';
  import { formatDate, plural } from './messages.ts';
  import Thumbnail from './Thumbnail.svelte';

  interface Props {
    twins: readonly Twin[];
    /** Ends the first visit, and goes there. */
    end: (to?: string) => Promise<void>;
  }
  let { twins, end }: Props = $props();
  /** The newest upload that has no post yet. */
  const next = $derived(twins.find((t) => t.video && !t.post && t.video.visibility === 'public'));
  const unpaired = $derived(twins.filter(isUnpaired));
  const videosLeft = $derived(unpaired.filter((t) => t.video).length);
  const postsLeft = $derived(unpaired.length - videosLeft);
  /** A post that is there already is not made again: whoever comes with a catalogue pairs it first. */
  const mayPair = $derived(videosLeft > 0 && postsLeft > 0);
</script>

{#if mayPair}
  <div class="flex flex-wrap items-center gap-3">
    <p class="min-w-0 flex-1 basis-48 text-sm">
      {plural(videosLeft, 'video has', 'videos have')} no post, {plural(
        postsLeft,
        'post has',
        'posts have'
      )} no video. Pair those that belong together first.
    </p>
    <button class="strong btn" onclick={() => end('/pairs')}>Find pairs</button>
  </div>
{/if}
{#if next?.video}
  {@const { video } = next}
  <div class="flex flex-wrap items-center gap-3">
    {#if video.picture}
      <Thumbnail url={video.picture.url} class="h-16 w-28 rounded-base" />
    {/if}
    <p class="min-w-0 flex-1 basis-48">
      <span class="font-semibold">{video.title}</span><br />
      <span class="text-sm text-quiet">{formatDate(video.date)} · no post yet</span>
    </p>
    <button class="{mayPair ? 'plain' : 'strong'} btn" onclick={() => end(`/desk/${video.id}`)}
      >Make its post</button
    >
  </div>
  <p class="text-sm text-quiet">
    Its text is drawn from the captions. You read it first; nothing is published by itself.
  </p>
{:else}
  <p class="text-sm">Every public video has a post. The list shows how they go together.</p>
{/if}
<button class="plain btn self-start btn-sm" onclick={() => end()}>Show all videos and posts</button>
