<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy';
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
  import { page } from '$app/state';
  import { htmlText } from '$lib/core/feeds/text.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import AsPublished from '$lib/ui/desk/AsPublished.svelte';
  import BlockList from '$lib/ui/desk/BlockList.svelte';
  import Checks from '$lib/ui/desk/Checks.svelte';
  import { Desk } from '$lib/ui/desk/deskState.svelte.ts';
  import PlaceIt from '$lib/ui/desk/PlaceIt.svelte';
  import PostDetails from '$lib/ui/desk/PostDetails.svelte';
  import TemplateField from '$lib/ui/desk/TemplateField.svelte';
  import Transcript from '$lib/ui/desk/Transcript.svelte';
  import EmptyState from '$lib/ui/EmptyState.svelte';

  const desk = $derived.by(() => {
    void page.params.id;
    return new Desk();
  });
  let opened = $state(false);
  let manner = $state('write');

  $effect(() => {
    opened = false;
    void desk.open(page.params.id ?? '').then(() => (opened = true));
  });
  $effect(() => {
    // Anything on the desk that is changed is kept, a moment later.
    void JSON.stringify([desk.template, desk.status, desk.on, desk.blogId]);
    if (!desk.isLoaded) return;
    const timer = setTimeout(() => void desk.save(), 400);
    return () => clearTimeout(timer);
  });

  async function copy() {
    await navigator.clipboard.writeText(desk.post?.html ?? '');
    deck.say('The HTML is on the clipboard.');
  }
</script>

<svelte:head><title>{desk.video?.title ?? 'Desk'} · Swift Twin</title></svelte:head>

{#if opened && !desk.video}
  <EmptyState title="This video is not here">
    <p>It may have been removed at the channel, or the channel is not linked any more.</p>
    {#snippet actions()}<a class="strong btn btn-sm" href="/">Go to In step</a>{/snippet}
  </EmptyState>
{:else if desk.video}
  <div class="desk grid h-full gap-x-4 overflow-y-auto px-3 lg:overflow-hidden">
    <aside class="hidden py-3 lg:block lg:overflow-y-auto" aria-label="Video">
      <Transcript {desk} />
    </aside>
    <div class="flex min-w-0 flex-col py-3 lg:overflow-y-auto lg:px-1">
      <header class="flex flex-wrap items-center gap-2 pb-3">
        <a href="/" class="text-sm underline">In step</a>
        <h1
          class="min-w-0 flex-1 basis-full truncate text-lg font-semibold sm:basis-0"
          title={desk.video.title}
        >
          <span class="sr-only">Desk: </span>{desk.video.title}
        </h1>
        <SegmentedControl value={manner} onValueChange={({ value }) => (manner = value ?? 'write')}>
          <SegmentedControl.Label class="sr-only">Show the post</SegmentedControl.Label>
          <SegmentedControl.Control class="flex rounded-base border border-edge bg-sheet p-0.5">
            {#each [['write', 'Write'], ['published', 'As published'], ['html', 'HTML']] as [value, label] (value)}
              <SegmentedControl.Item
                value={value ?? ''}
                class="cursor-pointer rounded-base px-2.5 py-0.5 text-sm data-[focus-visible]:outline-2 data-[state=checked]:bg-ink data-[state=checked]:text-canvas"
              >
                <SegmentedControl.ItemText>{label}</SegmentedControl.ItemText>
                <SegmentedControl.ItemHiddenInput />
              </SegmentedControl.Item>
            {/each}
          </SegmentedControl.Control>
        </SegmentedControl>
      </header>
      {#if manner === 'write'}
        <div class="flex flex-col gap-3">
          <TemplateField
            label="Title"
            bind:value={desk.template.title}
            fields={desk.fields}
            result={desk.post?.title}
          />
          <BlockList {desk} />
          <div class="flex gap-2">
            <button
              class="plain btn btn-sm"
              onclick={() =>
                deck.read(
                  desk.post?.title ?? '',
                  htmlText(desk.post?.html ?? ''),
                  desk.video?.language ?? ''
                )}
            >
              <Volume2 aria-hidden="true" />Read aloud
            </button>
            <button class="bare btn btn-sm" onclick={() => desk.clear()}>Clear the desk</button>
          </div>
        </div>
      {:else if manner === 'published'}
        <AsPublished {desk} />
      {:else}
        <div class="flex flex-col items-start gap-2">
          <button class="plain btn btn-sm" onclick={copy}
            ><Copy aria-hidden="true" />Copy the HTML</button
          >
          <textarea class="field times min-h-[34rem] w-full" readonly aria-label="HTML of the post"
            >{desk.post?.html}</textarea
          >
        </div>
      {/if}
    </div>
    <aside
      class="flex flex-col gap-5 py-3 lg:overflow-y-auto lg:px-1"
      aria-label="Checks and placing"
    >
      <Checks {desk} />
      <PlaceIt {desk} />
      <PostDetails {desk} />
    </aside>
    <div class="pb-6 lg:hidden"><Transcript {desk} /></div>
  </div>
{/if}

<style>
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
  @media (width >= 64rem) {
    .desk {
      grid-template-columns: minmax(0, 20rem) minmax(0, 1fr) minmax(0, 20rem);
    }
  }
</style>
