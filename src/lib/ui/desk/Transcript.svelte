<script lang="ts">
  import Play from '@lucide/svelte/icons/play';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TimeCode from '$lib/ui/TimeCode.svelte';
  import { countWords } from '$lib/ui/words.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  const words = $derived(desk.transcript.reduce((sum, p) => sum + p.text.split(/\s+/).length, 0));
  const chapterAt = (start: number, end: number) =>
    desk.details?.chapters.find((c) => c.start >= start - 1.5 && c.start < end - 1);
  const play = (at: number) => desk.video && deck.play(desk.video, at);
</script>

<section
  aria-labelledby="transcript-title"
  class="flex flex-col gap-2 {deck.playing ? 'pb-52' : ''}"
>
  <header class="flex items-center gap-2">
    <h2 id="transcript-title" class="font-semibold">Transcript</h2>
    <span class="text-sm text-quiet">{words ? countWords(words, 'word', 'words') : ''}</span>
    {#if desk.video}
      <button class="plain ml-auto btn btn-sm" onclick={() => play(0)}
        ><Play aria-hidden="true" />Play</button
      >
    {/if}
  </header>
  {#if desk.problem}
    <ProblemNote problem={desk.problem} item="Captions">
      {#snippet actions()}
        <button class="plain btn btn-sm" onclick={() => desk.readAgain()}>Read them again</button>
      {/snippet}
    </ProblemNote>
  {:else if desk.isLoaded && desk.transcript.length === 0}
    <p class="text-sm text-quiet">
      This video has no captions, so there is no text to draw from. The post can still show the
      video, with your own lead-in.
    </p>
  {/if}
  {#each desk.transcript as paragraph (paragraph.start)}
    {@const chapter = chapterAt(paragraph.start, paragraph.end)}
    {#if chapter}<h3 class="pt-2 text-sm font-semibold">{chapter.title}</h3>{/if}
    <div class="grid grid-cols-[3.2rem_1fr] gap-1">
      <button
        class="self-start rounded-base py-0.5 text-left underline hover:bg-marked"
        aria-label="Play from {Math.floor(paragraph.start)} seconds"
        onclick={() => play(paragraph.start)}><TimeCode seconds={paragraph.start} /></button
      >
      <p class="reading text-sm" lang={desk.video?.language || undefined}>{paragraph.text}</p>
    </div>
  {/each}
</section>
