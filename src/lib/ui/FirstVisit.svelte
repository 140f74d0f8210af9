<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import type { Snippet } from 'svelte';
  import { goto } from '$app/navigation';
  import { canPublish, type Place } from '$lib/core/model/place.ts';
  import type { Twin } from '$lib/core/model/twin.ts';
  import { saveSetting } from '$lib/data/settings.ts';
  import { demoWithUndo } from './startOver.ts';
  import { setKey } from '$lib/work/connect.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import { readPlaces } from '$lib/work/read.ts';
  import type { Demo } from '$lib/work/start.ts';
  import LinkForm from './placesView/LinkForm.svelte';

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
    {#await import('./placesView/KeyForm.svelte') then { default: KeyForm }}
      <KeyForm
        place={blog}
        goesTo={[blog.micropub, blog.tokenEndpoint]}
        purpose="Key for publishing to"
        help="Made at the blog, for programs. It stays in this browser and is used only to publish there."
        {give}
        take={() => undefined}
      />
    {/await}
    <button class="bare btn self-start btn-sm" onclick={() => (isReadOnly = true)}
      >Continue without a key</button
    >
  {/if}
{/snippet}
{#snippet toItems()}
  {#await import('./FirstItems.svelte') then { default: FirstItems }}
    <FirstItems {twins} {end} />
  {/await}
{/snippet}

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-2xl flex-col gap-4 px-4 py-8">
    <h1 class="text-xl font-semibold">Keep your channel and your blog in step</h1>
    <ol class="flex flex-col gap-3">
      {@render stage(1, 'Connect your channel', `${channel?.title ?? ''} is connected.`, toChannel)}
      {@render stage(2, 'Connect your blog', `${blog?.title ?? 'It'} is connected.`, toBlog)}
      {@render stage(3, 'Bring them in step', '', toItems)}
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
