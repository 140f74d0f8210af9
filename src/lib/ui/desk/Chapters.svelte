<script lang="ts">
  import Merge from '@lucide/svelte/icons/merge';
  import { timeCode } from '$lib/core/chapters/chapter.ts';
  import { chapterFaults, joinChapter, moveChapter } from '$lib/core/chapters/edit.ts';
  import { readTimestamp } from '$lib/core/captions/timestamp.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { chapterFaultMessage } from '$lib/ui/talkMessages.ts';
  import type { Desk } from './deskState.svelte.ts';
  import TimeLine from './TimeLine.svelte';

  let { desk }: { desk: Desk } = $props();
  const faults = $derived(chapterFaults(desk.chapters, desk.duration));
  const origin = $derived(
    desk.ownChapters ? 'yours' : desk.isChannelsChapters ? 'from the channel' : 'found in the talk'
  );

  function moveTo(index: number, text: string, input: HTMLInputElement) {
    const at = readTimestamp(text);
    if (at === null) {
      input.value = timeCode(desk.chapters[index]?.start ?? 0);
      deck.say(`“${text}” is no time. Write it as 1:23 or 1:02:03.`);
    } else desk.setChapters(moveChapter(desk.chapters, index, at));
  }
</script>

<section aria-labelledby="chapters-title" class="flex flex-col gap-1.5">
  <header class="flex flex-wrap items-baseline gap-x-2">
    <h2 id="chapters-title" class="font-semibold">Chapters</h2>
    {#if desk.chapters.length > 0}<span class="text-sm text-quiet">{origin}</span>{/if}
  </header>
  <TimeLine {desk} />
  <ol class="flex flex-col" aria-label="Chapters">
    {#each desk.chapters as chapter, i (i)}
      <li class="flex items-center gap-1">
        <input
          class="times min-h-6 w-[4rem] shrink-0 rounded-base border border-transparent bg-transparent px-1 hover:border-edge focus:border-edge"
          aria-label="Start of chapter {i + 1}"
          value={timeCode(chapter.start)}
          disabled={i === 0}
          onchange={(event) => moveTo(i, event.currentTarget.value, event.currentTarget)}
        />
        <input
          class="min-h-6 min-w-0 flex-1 rounded-base border border-transparent bg-transparent px-1 text-sm hover:border-edge focus:border-edge"
          aria-label="Title of chapter {i + 1}"
          value={chapter.title}
          oninput={(event) => desk.renameChapter(i, event.currentTarget.value)}
        />
        <button
          class="bare btn-icon btn-icon-sm"
          aria-label="Join “{chapter.title}” to the chapter before"
          title="Join to the chapter before"
          disabled={i === 0}
          onclick={() => desk.setChapters(joinChapter(desk.chapters, i))}
          ><Merge aria-hidden="true" /></button
        >
      </li>
    {/each}
  </ol>
  {#each faults as fault, i (i)}<p class="text-sm text-quiet">
      {chapterFaultMessage(fault, desk.chapters)}
    </p>{/each}
  {#if desk.talk}
    <div class="flex flex-wrap gap-1">
      {#if desk.isChannelsChapters || desk.ownChapters}
        <button class="plain btn btn-sm" onclick={() => desk.proposeChapters()}
          >Find chapters in the talk</button
        >
      {/if}
      {#if desk.ownChapters}
        <button class="bare btn btn-sm" onclick={() => desk.setChapters(null)}>
          {desk.details?.chapters.length ? 'Take the channel’s' : 'Take those found'}
        </button>
      {/if}
    </div>
    <p class="text-sm text-quiet">
      To split a chapter, click the sentence it is to begin with, then “Chapter here”.
    </p>
  {/if}
</section>
