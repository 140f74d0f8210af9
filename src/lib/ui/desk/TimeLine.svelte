<script lang="ts">
  import { timeCode } from '$lib/core/chapters/chapter.ts';
  import { moveChapter } from '$lib/core/chapters/edit.ts';
  import { charted } from '$lib/ui/charted.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  let strip = $state<HTMLDivElement>();
  const length = $derived(Math.max(1, desk.duration));
  const share = (seconds: number) => `${Math.min(100, (100 * seconds) / length)}%`;

  const chart = charted(
    async () => (await import('./turnChart.ts')).drawTurns,
    () => {
      const curve = desk.talk?.curve ?? [];
      return curve.length > 0 ? { curve, duration: length } : null;
    }
  );

  const secondAt = (event: PointerEvent | MouseEvent) => {
    const box = strip?.getBoundingClientRect();
    return box ? (length * (event.clientX - box.left)) / box.width : 0;
  };

  function drag(event: PointerEvent, index: number) {
    if (index === 0 || !(event.currentTarget instanceof HTMLElement)) return;
    const handle = event.currentTarget;
    handle.setPointerCapture(event.pointerId);
    const move = (e: PointerEvent) =>
      desk.setChapters(moveChapter(desk.chapters, index, secondAt(e)));
    const end = () => {
      handle.removeEventListener('pointermove', move);
      handle.removeEventListener('pointerup', end);
    };
    handle.addEventListener('pointermove', move);
    handle.addEventListener('pointerup', end);
  }

  function key(event: KeyboardEvent, index: number) {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 }[event.key];
    const chapter = desk.chapters[index];
    if (!by || !chapter) return;
    event.preventDefault();
    desk.setChapters(moveChapter(desk.chapters, index, chapter.start + by));
  }
</script>

<div class="flex flex-col">
  <div
    bind:this={strip}
    class="relative h-16 rounded-base border border-line bg-sheet"
    role="group"
    aria-label="Time line: where the talk turns, and where chapters begin"
  >
    <!-- A click plays from there; the chapters and the transcript do the same by keyboard. -->
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
    <div
      class="absolute inset-0 cursor-pointer"
      onclick={(event) => desk.video && deck.play(desk.video, secondAt(event))}
    >
      <canvas {@attach chart} aria-hidden="true"></canvas>
    </div>
    {#if desk.pointed}
      <div
        class="pointer-events-none absolute inset-y-0 bg-marked opacity-70"
        style:left={share(desk.pointed.start)}
        style:width="max(3px, {share(desk.pointed.end - desk.pointed.start)})"
      ></div>
    {/if}
    {#each desk.chapters as chapter, i (i)}
      <div
        role="slider"
        tabindex="0"
        class="tick absolute inset-y-0 w-3 -translate-x-1/2 {i > 0 ? 'cursor-ew-resize' : ''}"
        style:left={share(chapter.start)}
        aria-label="Start of {chapter.title}"
        aria-valuemin={0}
        aria-valuemax={Math.round(length)}
        aria-valuenow={Math.round(chapter.start)}
        aria-valuetext={timeCode(chapter.start)}
        title="{timeCode(chapter.start)} {chapter.title}"
        onpointerdown={(event) => drag(event, i)}
        onkeydown={(event) => key(event, i)}
      ></div>
    {/each}
  </div>
  <div class="times flex justify-between text-quiet" aria-hidden="true">
    <span>0:00</span><span>{timeCode(length)}</span>
  </div>
</div>

<style>
  .tick::before {
    content: '';
    position: absolute;
    inset-block: 0;
    left: calc(50% - 1px);
    width: 2px;
    background: var(--ink);
  }
  .tick::after {
    content: '';
    position: absolute;
    top: 0;
    left: calc(50% - 4px);
    border: 4px solid transparent;
    border-top-color: var(--ink);
  }
</style>
