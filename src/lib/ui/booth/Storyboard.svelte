<script lang="ts">
  import ImageOff from '@lucide/svelte/icons/image-off';
  import { atRest } from '$lib/core/narration/motion.ts';
  import { sceneLabels } from '$lib/ui/boothMessages.ts';
  import type { Booth } from './boothState.svelte.ts';
  import Card from './Card.svelte';

  let { booth, onpick }: { booth: Booth; onpick: (index: number) => void } = $props();
  let strip = $state<HTMLElement>();
  const plan = $derived(booth.plan);
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
</script>

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
