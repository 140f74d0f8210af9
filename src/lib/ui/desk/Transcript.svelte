<script lang="ts">
  import Play from '@lucide/svelte/icons/play';
  import Minus from '@lucide/svelte/icons/minus';
  import Plus from '@lucide/svelte/icons/plus';
  import Scissors from '@lucide/svelte/icons/scissors';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import { choicesOf } from '$lib/core/article/edit/choices.ts';
  import { splitChapter } from '$lib/core/chapters/edit.ts';
  import { rowForKey } from '$lib/ui/listKeys.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TimeCode from '$lib/ui/TimeCode.svelte';
  import { leftOutLabels } from '$lib/ui/talkMessages.ts';
  import { plural } from '$lib/ui/messages.ts';
  import ImportCaptions from './ImportCaptions.svelte';
  import Chapters from './Chapters.svelte';
  import type { Desk } from './deskState.svelte.ts';
  import TalkNotes from './TalkNotes.svelte';

  let { desk }: { desk: Desk } = $props();
  let wanted = $state('');
  let hit = $state(0);
  let list = $state<HTMLDivElement>();

  const reasons = $derived(
    new Map(desk.extracted?.article.leftOut.map(({ sentence, reason }) => [sentence, reason]))
  );
  const sentences = $derived(desk.talk?.sentences ?? []);
  const choices = $derived(choicesOf({ sentences }, desk.choices));
  const hits = $derived.by(() => {
    const text = wanted.trim().toLowerCase();
    return text.length < 2
      ? []
      : sentences.flatMap((s, i) => (s.text.toLowerCase().includes(text) ? [i] : []));
  });
  const found = $derived(hits[hit % Math.max(1, hits.length)] ?? -1);
  const pointedAt = $derived(
    desk.pointed
      ? sentences.findIndex(
          (s) => s.start < desk.pointed!.end - 0.05 && s.end > desk.pointed!.start + 0.05
        )
      : -1
  );
  const isLit = (i: number) => {
    const s = sentences[i];
    const { pointed } = desk;
    return Boolean(s && pointed && s.start < pointed.end - 0.05 && s.end > pointed.start + 0.05);
  };
  /** The sentence that has the focus, and the one under the pointer. */
  let at = $state(-1);
  let over = $state(-1);
  const under = $derived(sentences[over] ? over : sentences[at] ? at : -1);

  /** How many paragraphs stand on the page: those of a long talk come bit by bit. */
  let standing = $state(12);
  const paragraphs = $derived(desk.extracted?.paragraphs ?? []);
  $effect(() => {
    if (standing >= paragraphs.length) return;
    const frame = requestAnimationFrame(() => (standing += 12));
    return () => cancelAnimationFrame(frame);
  });

  $effect(() => {
    const target = found >= 0 ? found : desk.pointed?.by === 'text' ? pointedAt : -1;
    if (target < 0) return;
    list?.querySelector(`[data-sentence="${target}"]`)?.scrollIntoView({ block: 'nearest' });
  });

  function point(i: number) {
    const s = sentences[i];
    if (!s) return;
    desk.pointed = { start: s.start, end: s.end, by: 'transcript' };
  }
  const indexOf = (target: EventTarget | null) =>
    Number(
      (target as Element | null)?.closest<HTMLElement>('[data-sentence]')?.dataset.sentence ?? -1
    );
  const play = (seconds: number) => desk.video && deck.play(desk.video, seconds);
  const chapterAt = (start: number, end: number) =>
    desk.chapters.find((c) => c.start >= start - 1.5 && c.start < end - 1);

  /** The arrow keys go from sentence to sentence. */
  function walk(event: KeyboardEvent) {
    const i = indexOf(event.target);
    // Sentences run on in lines, so sideways is a way too.
    const key = { ArrowRight: 'ArrowDown', ArrowLeft: 'ArrowUp' }[event.key] ?? event.key;
    const to = rowForKey(key, i, sentences.length);
    if (i < 0 || to === null) return;
    event.preventDefault();
    list?.querySelector<HTMLElement>(`[data-sentence="${to}"]`)?.focus();
  }

  function split(i: number) {
    const s = sentences[i];
    if (!s) return;
    const title = s.text
      .split(/\s+/)
      .slice(0, 5)
      .join(' ')
      .replace(/(?<![,.;:!?…])[,.;:!?…]+$/, '');
    desk.setChapters(splitChapter(desk.chapters, s.start, title));
    deck.say('A chapter begins here now. Give it a title above.');
  }
</script>

<div class="flex flex-col gap-4 {deck.playing ? 'pb-52' : ''}">
  {#if desk.talk || desk.chapters.length > 0}<Chapters {desk} />{/if}
  <section aria-labelledby="transcript-title" class="flex flex-col gap-2">
    <header class="flex items-center gap-2">
      <h2 id="transcript-title" class="font-semibold">Transcript</h2>
      <span class="text-sm text-quiet"
        >{desk.talk ? plural(desk.talk.guidance.talkWords, 'word', 'words') : ''}</span
      >
      {#if desk.video}
        <button class="plain ml-auto btn btn-sm" onclick={() => play(0)}
          ><Play aria-hidden="true" />Play</button
        >
      {/if}
    </header>
    {#if desk.problem}
      <ProblemNote problem={desk.problem} item="Captions">
        {#snippet actions()}
          <button class="plain btn btn-sm" onclick={() => desk.readAgain()}>Try again</button>
        {/snippet}
      </ProblemNote>
    {:else if desk.isLoaded && sentences.length === 0}
      <p class="text-sm text-quiet">
        This video has no captions, so there is no text to use. Import captions below, or write the
        post yourself.
      </p>
    {/if}
    {#if sentences.length > 0}
      <div class="flex items-center gap-2">
        <label class="sr-only" for="search-transcript">Search in the transcript</label>
        <input
          id="search-transcript"
          type="search"
          class="field"
          placeholder="Search in the transcript"
          bind:value={wanted}
          oninput={() => (hit = 0)}
          onkeydown={(event) => event.key === 'Enter' && hits.length > 0 && (hit += 1)}
        />
        {#if wanted.trim().length > 1}
          <span class="figures shrink-0 text-quiet" role="status"
            >{hits.length === 0 ? 'none' : `${(hit % hits.length) + 1} of ${hits.length}`}</span
          >
        {/if}
      </div>
      <TalkNotes {desk} />
      <div
        class="sticky top-0 z-10 flex min-h-11 items-center gap-2 border-b border-line bg-canvas py-1 text-sm lg:-top-3"
      >
        {#if under >= 0}
          {@const reason = reasons.get(under)}
          <TimeCode seconds={sentences[under]?.start ?? 0} />
          <span class="min-w-0 flex-1"
            >{reason
              ? `Left out: ${leftOutLabels[reason]}.`
              : choices.get(under) === 'keep'
                ? 'In the article: you kept it.'
                : 'In the article.'}</span
          >
          {#if under === at}
            {@const chosen = choices.get(under)}
            {#if chosen}
              <button class="plain btn shrink-0 btn-sm" onclick={() => desk.choose(under, null)}
                ><Undo2 aria-hidden="true" />Undo {chosen}</button
              >
            {:else}
              <button
                class="plain btn shrink-0 btn-sm"
                onclick={() => desk.choose(under, reason ? 'keep' : 'drop')}
                >{#if reason}<Plus aria-hidden="true" />Keep{:else}<Minus
                    aria-hidden="true"
                  />Drop{/if}</button
              >
            {/if}
            <button class="plain btn shrink-0 btn-sm" onclick={() => split(under)}
              ><Scissors aria-hidden="true" />Chapter here</button
            >
          {/if}
        {:else}<span class="text-quiet">Point at a sentence to see where it went.</span>{/if}
      </div>
    {/if}
    <!-- Sentences are pointed at; each row has its buttons for the keyboard. -->
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <div
      bind:this={list}
      class="flex flex-col gap-1"
      onmousemove={(event) => {
        // A page that scrolls under a pointer at rest points at nothing.
        if (event.movementX === 0 && event.movementY === 0) return;
        const i = indexOf(event.target);
        if (i === over) return;
        over = i;
        if (i >= 0) point(i);
      }}
      onfocusin={(event) => {
        const i = indexOf(event.target);
        if (i < 0) return;
        over = -1;
        point((at = i));
      }}
      onkeydown={walk}
      onmouseleave={() => {
        over = -1;
        desk.pointed = null;
      }}
    >
      {#each paragraphs.slice(0, standing) as paragraph (paragraph.from)}
        {@const chapter = chapterAt(paragraph.start, paragraph.end)}
        {#if chapter}<h3 class="pt-2 text-sm font-semibold">{chapter.title}</h3>{/if}
        <div class="paragraph grid grid-cols-[3.2rem_1fr] gap-1">
          <button
            class="self-start rounded-base py-0.5 text-left underline hover:bg-marked"
            aria-label="Play from {Math.floor(paragraph.start)} seconds"
            onclick={() => play(paragraph.start)}><TimeCode seconds={paragraph.start} /></button
          >
          <p class="reading text-sm" lang={desk.talk?.language || undefined}>
            {#each sentences.slice(paragraph.from, paragraph.to) as sentence, k (k)}
              {@const i = paragraph.from + k}
              {@const reason = reasons.get(i)}
              <span
                role="button"
                data-sentence={i}
                tabindex={i === Math.max(0, at) ? 0 : -1}
                class="sentence {reason ? 'out' : ''} {isLit(i) ? 'lit' : ''} {hits.includes(i)
                  ? 'hit'
                  : ''} {i === found ? 'found' : ''}"
                aria-label="{sentence.text} {reason
                  ? `Left out: ${leftOutLabels[reason]}`
                  : 'In the article'}"
                onclick={() => play(sentence.start)}
                onkeydown={(event) => event.key === 'Enter' && play(sentence.start)}
                >{`${sentence.text} `}</span
              >
            {/each}
          </p>
        </div>
      {/each}
    </div>
  </section>
  {#if desk.isLoaded}<ImportCaptions {desk} />{/if}
</div>

<style>
  .paragraph {
    content-visibility: auto;
    contain-intrinsic-size: auto 6rem;
  }
  .sentence {
    cursor: pointer;
    border-radius: var(--radius-base);
  }
  .out {
    color: var(--ink-quiet);
  }
  .out:hover,
  .out:focus-visible {
    text-decoration: line-through 1px var(--edge);
  }
  .hit {
    text-decoration: underline 2px;
  }
  .found {
    outline: 2px solid var(--thread-video);
  }
  .lit {
    background: var(--marked);
    box-shadow: none;
  }
</style>
