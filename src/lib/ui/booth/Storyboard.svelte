<script lang="ts">
  import ImageOff from '@lucide/svelte/icons/image-off';
  import { atRest } from '$lib/core/narration/motion.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { sceneLabels } from '$lib/ui/boothMessages.ts';
  import type { Booth } from './boothState.svelte.ts';
  import Card from './Card.svelte';

  let { booth, onpick }: { booth: Booth; onpick: (index: number) => void } = $props();
  let strip = $state<HTMLElement>();
  const plan = $derived(booth.plan);
  let isFilling = $state(false);
  /** Cards are drawn when they come into sight. */
  let seen = $state<Record<string, boolean>>({});

  $effect(() => {
    if (!strip || !plan) return;
    const observer = new IntersectionObserver(
      (entries) => {
        for (const { isIntersecting, target } of entries)
          if (isIntersecting && target instanceof HTMLElement)
            seen[target.dataset.index ?? ''] = true;
      },
      { root: strip, rootMargin: '300px' }
    );
    for (const child of strip.children) observer.observe(child);
    return () => observer.disconnect();
  });
  $effect(() => {
    const child = strip?.children[booth.current];
    child?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  });
  async function fill() {
    isFilling = true;
    const added = await booth.fillGaps();
    isFilling = false;
    deck.say(
      added > 0
        ? `${plural(added, 'picture was', 'pictures were')} added. Undo takes ${added === 1 ? 'it' : 'them'} out.`
        : 'None of your pictures and videos fits what is said there.'
    );
  }
</script>

{#if booth.gaps.length > 0}
  <div class="flex flex-wrap items-center gap-2 px-1 text-sm">
    <p>{plural(booth.gaps.length, 'stretch has', 'stretches have')} no picture.</p>
    <button class="plain btn btn-sm" disabled={isFilling} onclick={fill}
      >{isFilling ? 'Looking for pictures…' : 'Add the best of your pictures'}</button
    >
  </div>
{/if}
<ol bind:this={strip} class="flex shrink-0 gap-2 overflow-x-auto p-1" aria-label="Storyboard">
  {#each plan?.scenes ?? [] as scene, index (scene.id + index)}
    {@const isCurrent = index === booth.current}
    {@const gap = booth.gaps.find((g) => g.scenes[0] === index)}
    <li class="flex shrink-0 gap-1" data-index={index}>
      {#if gap}
        <button
          class="flex w-14 flex-col items-center justify-center rounded-base border border-dashed border-edge text-center text-xs leading-tight hover:border-ink"
          aria-label="{Math.round(gap.to - gap.from)} seconds without a picture, from scene {index +
            1}"
          onclick={() => onpick(index)}
        >
          <ImageOff aria-hidden="true" class="size-4" />
          {Math.round(gap.to - gap.from)} s
        </button>
      {/if}
      <button
        class="block overflow-hidden rounded-base border-2 {isCurrent
          ? 'border-post'
          : 'border-line hover:border-edge'}"
        style="height:4.6rem;aspect-ratio:{booth.frame.width}/{booth.frame.height}"
        aria-label="Scene {index + 1}, {sceneLabels[scene.kind]}"
        aria-current={isCurrent ? 'true' : undefined}
        tabindex={isCurrent ? 0 : -1}
        onclick={() => onpick(index)}
      >
        {#if seen[index] && plan}
          <Card
            marks={(plan.layouts[index]?.stages.at(-1)?.marks ?? []).map(atRest)}
            pictures={booth.pictures}
            frame={booth.frame}
            width={booth.frame.width > booth.frame.height ? 240 : 150}
            label=""
          />
        {/if}
      </button>
    </li>
  {/each}
</ol>
