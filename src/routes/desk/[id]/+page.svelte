<script lang="ts">
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
  import { page } from '$app/state';
  import { htmlText } from '$lib/core/text/html.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import AsPublished from '$lib/ui/desk/AsPublished.svelte';
  import BlockList from '$lib/ui/desk/BlockList.svelte';
  import Checks from '$lib/ui/desk/Checks.svelte';
  import { Desk } from '$lib/ui/desk/deskState.svelte.ts';
  import KeptLayouts from '$lib/ui/desk/KeptLayouts.svelte';
  import LengthGuide from '$lib/ui/desk/LengthGuide.svelte';
  import Links from '$lib/ui/desk/Links.svelte';
  import PublishPost from '$lib/ui/desk/PublishPost.svelte';
  import PostDetails from '$lib/ui/desk/PostDetails.svelte';
  import Proposals from '$lib/ui/desk/Proposals.svelte';
  import Recomputed from '$lib/ui/desk/Recomputed.svelte';
  import Review from '$lib/ui/desk/Review.svelte';
  import StepPictures from '$lib/ui/desk/StepPictures.svelte';
  import ExportPost from '$lib/ui/desk/ExportPost.svelte';
  import TemplateField from '$lib/ui/desk/TemplateField.svelte';
  import Transcript from '$lib/ui/desk/Transcript.svelte';
  import Editor from '$lib/ui/desk/Editor.svelte';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import LikelyTwin from '$lib/ui/LikelyTwin.svelte';
  import { sayDiscarded } from '$lib/ui/sayDiscarded.ts';
  import UndoButtons from '$lib/ui/UndoButtons.svelte';
  import UnsavedNote from '$lib/ui/UnsavedNote.svelte';

  const desk = $derived.by(() => {
    void page.params.id;
    return new Desk();
  });
  let opened = $state(false);
  let manner = $state('write');
  /** The columns come one a frame, so that none holds the page up. */
  let stage = $state(0);

  $effect(() => {
    opened = false;
    manner = 'write';
    stage = 0;
    void desk.open(page.params.id ?? '').then(() => (opened = true));
  });
  $effect(() => {
    if (!desk.video || stage >= 3) return;
    const frame = requestAnimationFrame(() => (stage += 1));
    return () => cancelAnimationFrame(frame);
  });
  $effect(() => desk.follow());

  async function clear() {
    const title = desk.video?.title ?? '';
    sayDiscarded(`Changes to “${title}” were discarded.`, await desk.clear(), title);
  }
</script>

<svelte:head><title>{desk.video?.title ?? 'Desk'} · Swift Twin</title></svelte:head>

{#if opened && !desk.video}
  <EmptyState title="This video is not here">
    <p>It may have been removed at the channel, or the channel is no longer connected.</p>
    {#snippet actions()}<a class="strong btn btn-sm" href="/">Go to In step</a>{/snippet}
  </EmptyState>
{:else if desk.video}
  <div class="desk grid h-full gap-x-4 overflow-y-auto px-3 lg:overflow-hidden">
    <!-- First in the order of keys: publishing is the one thing to do here. -->
    <aside
      class="order-2 flex min-w-0 flex-col gap-4 py-3 lg:order-3 lg:min-h-0 lg:px-1"
      aria-label="Checks and publishing"
    >
      <div class="flex flex-col gap-3 lg:max-h-[65%] lg:shrink-0 lg:overflow-y-auto">
        {#if stage > 0}<PublishPost {desk} />{/if}
        {#if stage > 2}<LikelyTwin id={desk.video.id} />{/if}
        <UnsavedNote autosave={desk.autosave} />
      </div>
      <div class="flex flex-col gap-5 lg:min-h-0 lg:overflow-y-auto lg:pb-4">
        <Checks {desk} />
        {#if stage > 1}
          <Review {desk} />
          <Links {desk} />
          <ExportPost {desk} />
          <StepPictures {desk} />
        {/if}
        {#if stage > 2}<PostDetails {desk} />{/if}
      </div>
    </aside>
    <div class="order-1 flex min-w-0 flex-col py-3 lg:order-2 lg:overflow-y-auto lg:px-1">
      <header class="flex flex-wrap items-center gap-2 pb-3">
        <a href="/" class="text-sm underline">In step</a>
        <h1
          class="line-clamp-2 min-w-0 flex-1 basis-full text-lg leading-tight font-semibold sm:basis-0"
          title={desk.video.title}
        >
          <span class="sr-only">Desk: </span>{desk.video.title}
        </h1>
        {#if manner === 'layout' || manner === 'published'}
          <UndoButtons autosave={desk.autosave} />
        {/if}
        <SegmentedControl value={manner} onValueChange={({ value }) => (manner = value ?? 'write')}>
          <SegmentedControl.Label class="sr-only">Show the post</SegmentedControl.Label>
          <SegmentedControl.Control class="flex rounded-base border border-edge bg-sheet p-0.5">
            {#each [['write', 'Write'], ['layout', 'Layout'], ['published', 'Preview'], ['html', 'HTML']] as [value, label] (value)}
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
          <Proposals {desk} />
          <LengthGuide {desk} />
          <Recomputed {desk} />
          {#if desk.isLoaded}<Editor {desk} />{/if}
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
            <button class="bare btn btn-sm" onclick={clear}>Discard changes</button>
          </div>
        </div>
      {:else if manner === 'layout'}
        <div class="flex flex-col gap-3">
          <Recomputed {desk} />
          <KeptLayouts {desk} />
          <BlockList {desk} />
        </div>
      {:else if manner === 'published'}
        <AsPublished {desk} />
      {:else}
        <textarea class="field times min-h-[34rem] w-full" readonly aria-label="HTML of the post"
          >{desk.post?.html}</textarea
        >
      {/if}
    </div>
    <aside class="order-3 min-w-0 pb-20 lg:order-1 lg:overflow-y-auto lg:py-3" aria-label="Video">
      <Transcript {desk} />
    </aside>
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
  @media (width >= 110rem) {
    .desk {
      grid-template-columns: minmax(0, 26rem) minmax(0, 1fr) minmax(0, 24rem);
    }
  }
</style>
