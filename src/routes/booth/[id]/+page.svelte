<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { Booth } from '$lib/ui/booth/boothState.svelte.ts';
  import LookForm from '$lib/ui/booth/LookForm.svelte';
  import MakeIt from '$lib/ui/booth/MakeIt.svelte';
  import PublishVideo from '$lib/ui/booth/PublishVideo.svelte';
  import { Preview } from '$lib/ui/booth/preview.svelte.ts';
  import PictureLibrary from '$lib/ui/booth/PictureLibrary.svelte';
  import ReadAloud from '$lib/ui/booth/ReadAloud.svelte';
  import SceneForm from '$lib/ui/booth/SceneForm.svelte';
  import SceneList from '$lib/ui/booth/SceneList.svelte';
  import ScriptForm from '$lib/ui/booth/ScriptForm.svelte';
  import SoundForm from '$lib/ui/booth/SoundForm.svelte';
  import Stage from '$lib/ui/booth/Stage.svelte';
  import Storyboard from '$lib/ui/booth/Storyboard.svelte';
  import VoiceForm from '$lib/ui/booth/VoiceForm.svelte';
  import { sayDiscarded } from '$lib/ui/sayDiscarded.ts';
  import LikelyTwin from '$lib/ui/LikelyTwin.svelte';
  import UnsavedNote from '$lib/ui/UnsavedNote.svelte';
  import EmptyState from '$lib/ui/EmptyState.svelte';

  let booth = $state.raw(new Booth());
  const preview = new Preview();
  let opened = $state(false);
  /** The line from which the script is being read aloud, by id. */
  let readingFrom = $state('');

  $effect(() => {
    const { id } = page.params;
    // On the way to another view there is none.
    if (!id) return;
    opened = false;
    preview.pause();
    preview.time = 0;
    const next = new Booth();
    booth = next;
    void next.open(id).then(() => (opened = true));
  });
  $effect(() => booth.follow());

  async function clear() {
    const title = booth.post?.title ?? '';
    const trash = await booth.clear();
    await goto('/');
    sayDiscarded(`Changes to “${title}” were discarded.`, trash, title);
  }

  function pick(index: number) {
    preview.pause();
    booth.current = index;
    const timed = booth.plan?.timeLine.scenes[index];
    // A moment in, where a list has its first item and a page its text.
    if (timed) preview.time = Math.min(timed.end - 0.01, timed.start + 0.01);
  }
</script>

<svelte:head><title>{booth.post?.title ?? 'Booth'} · Swift Twin</title></svelte:head>

{#if opened && !booth.post}
  <EmptyState title="This post is not here">
    <p>It may have been removed at the blog, or the blog is no longer connected.</p>
    {#snippet actions()}<a class="strong btn btn-sm" href="/">Go to In step</a>{/snippet}
  </EmptyState>
{:else if booth.post && booth.narration}
  <div class="booth grid h-full gap-x-4 overflow-y-auto px-3 lg:overflow-hidden">
    <aside
      class="order-2 min-w-0 pb-6 lg:order-none lg:overflow-y-auto lg:py-3"
      aria-label="Script"
    >
      {#if booth.hasDrifted}
        <div
          role="status"
          class="mb-2 flex flex-col items-start gap-1 rounded-base border border-edge bg-sheet p-2 text-sm"
        >
          The post has changed since these scenes were made from it.
          <button class="plain btn btn-sm" onclick={() => booth.makeAnew()}>Regenerate them</button>
        </div>
      {:else if booth.narration.isEdited}
        <div class="mb-2 flex flex-wrap items-center gap-2 text-sm text-quiet">
          Changed by hand.
          <button class="bare btn btn-sm" onclick={() => booth.makeAnew()}
            >Regenerate the scenes</button
          >
        </div>
      {/if}
      <SceneList {booth} onpick={pick} />
    </aside>
    <div class="order-1 flex min-w-0 flex-col gap-3 py-3 lg:order-none lg:overflow-y-auto lg:px-1">
      <header class="flex flex-wrap items-center gap-2">
        <a href="/" class="text-sm underline">In step</a>
        <h1
          class="line-clamp-2 min-w-0 flex-1 text-lg leading-tight font-semibold"
          title={booth.post.title}
        >
          <span class="sr-only">Booth: </span>{booth.post.title}
        </h1>
        <button class="bare btn btn-sm" onclick={clear}>Discard changes</button>
      </header>
      <Stage {booth} {preview} />
      <Storyboard {booth} onpick={pick} />
      <SceneForm {booth} {preview} onread={(id) => (readingFrom = id)} />
    </div>
    <aside
      class="order-3 flex min-w-0 flex-col gap-5 py-3 lg:order-none lg:overflow-y-auto lg:px-1"
      aria-label="How it is made"
    >
      <UnsavedNote autosave={booth.autosave} />
      <MakeIt {booth} />
      <PublishVideo {booth} />
      <LikelyTwin id={booth.post.id} />
      <ScriptForm {booth} />
      <VoiceForm {booth} {preview} onpick={pick} onread={(id) => (readingFrom = id)} />
      <LookForm {booth} />
      <PictureLibrary {booth} />
      <SoundForm {booth} />
    </aside>
  </div>
  {#if readingFrom}
    <ReadAloud {booth} {preview} from={readingFrom} onclose={() => (readingFrom = '')} />
  {/if}
{/if}

<style>
  .booth {
    grid-template-columns: minmax(0, 1fr);
  }
  @media (width >= 64rem) {
    .booth {
      grid-template-columns: minmax(0, 17rem) minmax(0, 1fr) minmax(0, 20rem);
    }
  }
  @media (width >= 110rem) {
    .booth {
      grid-template-columns: minmax(0, 22rem) minmax(0, 1fr) minmax(0, 24rem);
    }
  }
</style>
