<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import type { Snippet } from 'svelte';
  import { goto } from '$app/navigation';
  import { canPublish, type Place } from '$lib/core/model/place.ts';
  import type { Twin } from '$lib/core/model/twin.ts';
  import { isUnpaired } from '$lib/core/twins/unpaired.ts';
  import { saveSetting } from '$lib/data/settings.ts';
  import { demoWithUndo } from './startOver.ts';
  import { setKey } from '$lib/work/connect.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import { readPlaces } from '$lib/work/read.ts';
  import type { Demo } from '$lib/work/start.ts';
  import { formatDate, plural } from './messages.ts';
  import KeyForm from './placesView/KeyForm.svelte';
  import LinkForm from './placesView/LinkForm.svelte';
  import Thumbnail from './Thumbnail.svelte';

  interface Props {
    places: readonly Place[];
    twins: readonly Twin[];
    demo: Demo | null;
  }
  let { places, twins, demo }: Props = $props();
  const channel = $derived(places.find((p) => p.kind === 'channel'));
  const blog = $derived(places.find((p) => p.kind === 'blog'));
  const isBlogReady = $derived(blog !== undefined && (canPublish(blog) || blog.micropub === ''));
  let isReadOnly = $state(false);
  const step = $derived(!channel ? 1 : !isBlogReady && !isReadOnly ? 2 : 3);
  /** The newest upload that has no post yet. */
  const next = $derived(twins.find((t) => t.video && !t.post && t.video.visibility === 'public'));
  const unpaired = $derived(twins.filter(isUnpaired));
  const videosLeft = $derived(unpaired.filter((t) => t.video).length);
  const postsLeft = $derived(unpaired.length - videosLeft);
  /** A post that is there already is not made again: whoever comes with a catalogue pairs it first. */
  const mayPair = $derived(videosLeft > 0 && postsLeft > 0);
  const exampleOf = (n: number, label: string) => {
    const address = demo?.places[n]?.address;
    return address ? { label, address } : null;
  };

  async function end(to = '') {
    await saveSetting('firstVisit', 'done');
    if (to) await goto(to);
  }
  async function give(key: string, signal: AbortSignal) {
    if (!blog) return;
    await setKey(blog, key, signal);
    const linked = blog;
    void attempt(() => readPlaces({ ...linked, hasKey: true }));
  }
</script>

{#snippet stage(number: number, title: string, done: string, content: Snippet)}
  <li
    class="flex gap-3 rounded-container border bg-sheet p-4 {step === number
      ? 'border-edge'
      : 'border-line'}"
    aria-current={step === number ? 'step' : undefined}
  >
    <span
      class="grid size-7 shrink-0 place-items-center rounded-full border border-edge font-semibold {step ===
      number
        ? 'bg-ink text-canvas'
        : ''}"
    >
      {#if step > number}<Check class="size-4" aria-label="Done" />{:else}{number}{/if}
    </span>
    <div class="flex min-w-0 flex-1 flex-col gap-2">
      <h2 class="font-semibold {step < number ? 'text-quiet' : ''}">{title}</h2>
      {#if step > number}<p class="text-sm text-quiet">{done}</p>{:else if step === number}
        {@render content()}
      {/if}
    </div>
  </li>
{/snippet}

{#snippet toChannel()}
  <LinkForm
    label="Address of your channel"
    help="Paste any address of it: its page, one of its videos, its feed. Reading it needs no account and no key."
    example={exampleOf(0, 'Use the demo channel')}
  />
{/snippet}
{#snippet toBlog()}
  {#if !blog}
    <LinkForm
      label="Address of your blog"
      help="Its front page, one of its posts or its feed. You see which videos have no post yet."
      example={exampleOf(1, 'Use the demo blog')}
    />
  {:else}
    <p class="text-sm">{blog.title} is connected. With a key, posts are published there.</p>
    <KeyForm
      place={blog}
      goesTo={[blog.micropub, blog.tokenEndpoint]}
      purpose="Key for publishing to"
      help="Made at the blog, for programs. It stays in this browser and is used only to publish there."
      {give}
      take={() => undefined}
    />
    <button class="bare btn self-start btn-sm" onclick={() => (isReadOnly = true)}
      >Continue without a key</button
    >
  {/if}
{/snippet}
{#snippet toPost()}
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
  <button class="plain btn self-start btn-sm" onclick={() => end()}
    >Show all videos and posts</button
  >
{/snippet}

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-2xl flex-col gap-4 px-4 py-8">
    <h1 class="text-xl font-semibold">Keep your channel and your blog in step</h1>
    <ol class="flex flex-col gap-3">
      {@render stage(1, 'Connect your channel', `${channel?.title ?? ''} is connected.`, toChannel)}
      {@render stage(2, 'Connect your blog', `${blog?.title ?? 'It'} is connected.`, toBlog)}
      {@render stage(3, mayPair ? 'Bring them in step' : 'Publish your first post', '', toPost)}
    </ol>
    {#if demo && places.length === 0}
      <p class="text-sm">
        Or look around first:
        <button class="plain btn btn-sm" onclick={() => demo && demoWithUndo(demo)}
          >Start with the demo world</button
        >
      </p>
    {/if}
    {#if places.length === 0}
      <p class="text-sm">
        You have an archive from another browser?
        <a class="underline" href="/archive">Import it</a>
      </p>
    {/if}
  </div>
</div>
