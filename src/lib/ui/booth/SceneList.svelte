<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import { isHeading, moveScene } from '$lib/core/narration/scenes.ts';
  import { rowForKey } from '$lib/ui/listKeys.ts';
  import TimeCode from '$lib/ui/TimeCode.svelte';
  import { sceneLabels } from '$lib/ui/boothMessages.ts';
  import type { Booth } from './boothState.svelte.ts';

  let { booth, onpick }: { booth: Booth; onpick: (index: number) => void } = $props();
  const scenes = $derived(booth.narration?.scenes ?? []);
  let list = $state<HTMLElement>();

  $effect(() => {
    // The scene that is shown stays in sight.
    list?.children[booth.current]?.scrollIntoView({ block: 'nearest' });
  });

  function onkeydown(event: KeyboardEvent, index: number) {
    const to = rowForKey(event.key, index, scenes.length);
    const button = to === null ? null : list?.children[to]?.querySelector('button');
    if (to === null || !button) return;
    event.preventDefault();
    onpick(to);
    button.focus();
  }
</script>

<ol bind:this={list} class="flex flex-col" aria-label="Script by scene">
  {#each scenes as scene, index (scene.id + index)}
    {@const timed = booth.plan?.timeLine.scenes[index]}
    {@const isCurrent = index === booth.current}
    {@const isSilent = scene.lines.some((l) => booth.said.silent.has(l.id))}
    {@const isMissing = scene.picture !== null && booth.missing.includes(scene.picture.url)}
    <li
      class="scene group relative border-l-4 {isCurrent
        ? 'border-post bg-marked'
        : 'border-transparent'}"
    >
      <button
        class="flex w-full flex-col gap-0.5 px-2 py-1.5 text-left"
        aria-current={isCurrent ? 'true' : undefined}
        onclick={() => onpick(index)}
        onkeydown={(event) => onkeydown(event, index)}
      >
        <span class="flex items-baseline gap-2 text-xs text-quiet">
          {#if timed}<TimeCode seconds={timed.start} />{/if}
          {sceneLabels[scene.kind]}
          {#if isSilent || isMissing}
            <span class="inline-flex items-center gap-1 text-ink"
              ><TriangleAlert class="size-3" aria-hidden="true" />{isMissing
                ? 'no picture'
                : 'no voice'}</span
            >
          {/if}
        </span>
        <span
          class="line-clamp-3 text-sm {isHeading(scene) || scene.kind === 'title'
            ? 'font-semibold'
            : ''}"
        >
          {scene.lines.map((l) => l.text).join(' ') || scene.picture?.alt || 'Without words'}
        </span>
      </button>
      {#if isCurrent}
        <span class="absolute top-0.5 right-0.5 flex">
          <button
            class="bare btn-icon btn-icon-sm"
            aria-label="Move this scene up"
            disabled={index === 0}
            onclick={() => booth.change((s) => moveScene(s, index, index - 1), index - 1)}
            ><ArrowUp aria-hidden="true" class="size-4" /></button
          >
          <button
            class="bare btn-icon btn-icon-sm"
            aria-label="Move this scene down"
            disabled={index === scenes.length - 1}
            onclick={() => booth.change((s) => moveScene(s, index, index + 1), index + 1)}
            ><ArrowDown aria-hidden="true" class="size-4" /></button
          >
        </span>
      {/if}
    </li>
  {/each}
</ol>

<style>
  /* Of hundreds of scenes only those in sight are laid out. */
  .scene {
    content-visibility: auto;
    contain-intrinsic-block-size: auto 5rem;
  }
</style>
