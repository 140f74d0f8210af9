<script lang="ts">
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import { resolutionSchema, pixelsOf } from '$lib/core/narration/frames.ts';
  import { isFilm } from '$lib/core/narration/films.ts';
  import type { Narration } from '$lib/core/narration/narration.ts';
  import { readRender } from '$lib/data/narrations.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import {
    renderProblemMessage,
    runningTime,
    soundLabels,
    soundMessage
  } from '$lib/ui/boothMessages.ts';
  import { formatSize } from '$lib/ui/formatSize.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { contentOf, renderVideo } from '$lib/work/narrate.ts';
  import { tasks } from '$lib/work/tasks.svelte.ts';
  import { exportVideo, type ExportKind } from '$lib/work/exportVideo.ts';
  import type { Encoding } from '$lib/video/encode.ts';
  import { readFile } from '$lib/video/files.ts';
  import { videoWorker } from '$lib/workers/video.ts';
  import PostFilms from './PostFilms.svelte';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  const narration = $derived(booth.narration);
  const render = live(() => {
    const id = booth.post?.id;
    return () => (id ? readRender(id) : null);
  });
  const isRunning = $derived(
    render.value?.state === 'running' && tasks.running.some((t) => t.label.startsWith('Rendering'))
  );
  const isDone = $derived(render.value?.state === 'done');
  const isCurrent = $derived(
    isDone && narration !== null && render.value?.madeFrom === contentOf(narration)
  );
  let encodings = $state<Encoding[] | null>(null);
  const encoding = $derived(encodings?.find((e) => e.format === narration?.format));
  let watched = $state('');

  $effect(() => {
    const { frame = 'wide', resolution = '720p' } = narration ?? {};
    void videoWorker()
      .encodings({ frame, resolution })
      .then((found) => (encodings = found));
  });
  $effect(() => () => URL.revokeObjectURL(watched));

  async function make() {
    const { post } = booth;
    if (!narration || !post) return;
    await booth.autosave.saveNow();
    await renderVideo($state.snapshot(narration) as Narration, post);
  }
  async function watch() {
    const file = render.value && (await readFile(render.value.file));
    URL.revokeObjectURL(watched);
    watched = file ? URL.createObjectURL(file) : '';
    if (!file) deck.say('The file is not in the browser any more. Render the video again.');
  }
  async function takeOut(what: ExportKind) {
    const { post } = booth;
    if (!narration || !post) return;
    const trouble = await exportVideo(
      what,
      $state.snapshot(narration) as Narration,
      post,
      booth.current
    );
    deck.say(trouble);
  }
</script>

{#if narration}
  <section
    aria-labelledby="make-title"
    class="flex flex-col gap-3 rounded-container border border-l-4 border-video bg-sheet p-3 text-sm"
  >
    <h2 id="make-title" class="text-base font-semibold">Render</h2>
    <PostFilms {booth} />
    {#if encodings?.length === 0}
      {@const words = renderProblemMessage({ kind: 'no-webcodecs' })}
      <p role="alert"><strong>{words.what}</strong> {words.todo}</p>
    {:else}
      <Choice
        legend="File format"
        options={[
          ['webm', 'WebM'],
          ['mp4', 'MP4']
        ] as const}
        bind:value={narration.format}
        disabled={(format) => encodings !== null && !encodings.some((e) => e.format === format)}
      />
      {#if encoding}
        <p class="text-quiet">{soundMessage(encoding)}</p>
      {/if}
      <Choice
        legend="Resolution"
        options={resolutionSchema.options.map((name) => {
          const { width, height } = pixelsOf(narration.frame, name);
          return [name, `${width} × ${height}`] as const;
        })}
        bind:value={narration.resolution}
      />
    {/if}
    <button
      class="strong btn whitespace-normal"
      disabled={isRunning || encodings?.length === 0 || narration.scenes.length === 0}
      onclick={make}
    >
      {#if isRunning}Rendering…{:else if render.value?.state === 'stopped' || (render.value?.state === 'running' && !isRunning)}Continue
        rendering{:else if isCurrent}Render again{:else}Render the video{/if}
    </button>
    {#if isRunning}
      <p role="status">Rendering… The deck below shows the progress; you can keep working.</p>
    {:else if render.value?.state === 'stopped'}
      <p role="status">Stopped. Finished parts are kept.</p>
    {:else if render.value?.state === 'failed' && render.value.problem}
      {@const words = renderProblemMessage(render.value.problem)}
      <div role="alert" class="flex gap-2">
        <TriangleAlert class="mt-0.5 size-4 shrink-0" aria-hidden="true" />
        <p><strong>{words.what}</strong> {words.todo}</p>
      </div>
    {:else if isDone && render.value}
      <p role="status">
        {isFilm(render.value) ? 'The post’s own video:' : 'Made:'}
        <span class="times">{runningTime(render.value.seconds)}</span>,
        {render.value.width} × {render.value.height}, sound in {soundLabels[render.value.audio]},
        {formatSize(render.value.bytes)}.
        {#if !isCurrent && !isFilm(render.value)}<strong>Something was changed since.</strong>{/if}
      </p>
      {#if watched}
        <!-- Its captions are drawn in the preview. -->
        <!-- svelte-ignore a11y_media_has_caption -->
        <video
          src={watched}
          controls
          class="max-h-60 w-full bg-black"
          aria-label="The finished video"
        ></video>
      {:else}
        <button class="plain btn btn-sm" onclick={watch}>Watch it</button>
      {/if}
    {/if}
    <details>
      <summary class="font-semibold">Export</summary>
      <div class="flex flex-wrap gap-1 py-2">
        {#each [['video', 'Video file'], ['zip', 'ZIP of all']] as const as [what, label] (what)}
          <button class="plain btn btn-sm" disabled={!isDone} onclick={() => takeOut(what)}
            >{label}</button
          >
        {/each}
        {#each [['captions', 'Captions (WebVTT)'], ['word-captions', 'Captions with word times'], ['script', 'Script text'], ['card', 'This card (PNG)'], ['wav', 'Sound (WAV)']] as const as [what, label] (what)}
          <button
            class="plain btn btn-sm"
            disabled={narration.scenes.length === 0}
            onclick={() => takeOut(what)}>{label}</button
          >
        {/each}
      </div>
    </details>
  </section>
{/if}
