<script lang="ts">
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import SkipBack from '@lucide/svelte/icons/skip-back';
  import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
  import { onDestroy } from 'svelte';
  import { captionsOf } from '$lib/core/narration/captions.ts';
  import { frameNameSchema } from '$lib/core/narration/frames.ts';
  import { paintedAt } from '$lib/core/narration/moment.ts';
  import { shownAt } from '$lib/core/narration/timeLine.ts';
  import { frameLabels, runningTime, sceneLabels } from '$lib/ui/boothMessages.ts';
  import { scenePlan } from '$lib/video/job.ts';
  import TimeCode from '$lib/ui/TimeCode.svelte';
  import type { Booth } from './boothState.svelte.ts';
  import Card from './Card.svelte';
  import ClipLayer from './ClipLayer.svelte';
  import type { Preview } from './preview.svelte.ts';

  let { booth, preview }: { booth: Booth; preview: Preview } = $props();
  let guide = $state<'none' | 'safe' | 'grid'>('none');
  let hasCaptions = $state(true);
  const plan = $derived(booth.plan);
  const shown = $derived(plan && shownAt(plan.timeLine, Math.max(0, preview.time)));
  const timed = $derived(plan && shown ? plan.timeLine.scenes[shown.scene] : null);
  const marks = $derived.by(() => {
    const scene = plan && shown ? scenePlan(plan, shown.scene) : null;
    const style = booth.narration?.style;
    if (!scene || !style) return [];
    // Standing still, it shows the card and not a moment of its move.
    const shownStyle = preview.isPlaying ? style : { ...style, motion: 'calm' as const };
    return paintedAt(scene, Math.max(0, preview.time), shownStyle);
  });
  const cues = $derived(plan ? captionsOf(plan.timeLine) : []);
  const cue = $derived(cues.find((c) => c.start <= preview.time && preview.time < c.end));
  const { frame } = $derived(booth);
  const duration = $derived(plan?.timeLine.duration ?? 0);
  const [before, after] = $derived([plan?.before ?? 0, plan?.after ?? 0]);
  /** The clip of the user's own that is seen by now, and how far it has got. */
  const clip = $derived.by(() => {
    if (preview.time < 0) return { name: booth.narration?.before ?? '', at: preview.time + before };
    if (after > 0 && preview.time > duration)
      return { name: booth.narration?.after ?? '', at: preview.time - duration };
    return null;
  });

  $effect(() => {
    if (preview.isPlaying && shown && shown.scene !== booth.current) booth.current = shown.scene;
  });
  $effect(() => {
    // What is changed may have moved the end.
    if (duration > 0 && preview.time > duration + after) preview.time = duration;
    if (preview.time < -before) preview.time = -before;
  });
  onDestroy(() => preview.close());

  function toggle() {
    if (!plan) return;
    if (preview.isPlaying) preview.pause();
    else
      void preview.play(plan, booth.said.speech, {
        name: booth.narration?.music ?? '',
        level: booth.narration?.musicLevel ?? 0
      });
  }
  const percent = (part: number, whole: number) => `${(100 * part) / whole}%`;
  const boxStyle = (box: { x: number; y: number; width: number; height: number }) =>
    `left:${percent(box.x, frame.width)};top:${percent(box.y, frame.height)};width:${percent(box.width, frame.width)};height:${percent(box.height, frame.height)}`;
</script>

<section aria-label="Preview" class="flex flex-col gap-2">
  <div class="flex flex-wrap items-center gap-3">
    <SegmentedControl
      value={booth.narration?.frame ?? 'wide'}
      onValueChange={({ value }) => booth.setFrame(frameNameSchema.parse(value))}
    >
      <SegmentedControl.Label class="sr-only">Frame</SegmentedControl.Label>
      <SegmentedControl.Control class="flex rounded-base border border-edge bg-sheet p-0.5">
        {#each frameNameSchema.options as name (name)}
          <SegmentedControl.Item
            value={name}
            class="cursor-pointer rounded-base px-2.5 py-0.5 text-sm data-[focus-visible]:outline-2 data-[state=checked]:bg-ink data-[state=checked]:text-canvas"
          >
            <SegmentedControl.ItemText>{frameLabels[name]}</SegmentedControl.ItemText>
            <SegmentedControl.ItemHiddenInput />
          </SegmentedControl.Item>
        {/each}
      </SegmentedControl.Control>
    </SegmentedControl>
    <label class="flex items-center gap-1.5 text-sm">
      Show
      <select class="field w-auto" bind:value={guide}>
        <option value="none">the whole frame</option>
        <option value="safe">space for text</option>
        <option value="grid">grid crop</option>
      </select>
    </label>
    <label class="flex items-center gap-1.5 text-sm">
      <input type="checkbox" bind:checked={hasCaptions} /> Captions
    </label>
  </div>
  <div class="stage flex items-center justify-center rounded-container bg-black/85">
    {#if plan}
      <div
        class="frame relative overflow-hidden"
        style="aspect-ratio:{frame.width}/{frame.height};--ratio:{frame.width / frame.height}"
      >
        <Card
          {marks}
          {frame}
          pictures={booth.pictures}
          width={frame.width}
          label={timed
            ? `${sceneLabels[timed.kind]} at ${runningTime(preview.time + before)}`
            : 'Preview'}
        />
        {#if guide === 'safe'}
          <div
            class="pointer-events-none absolute border-2 border-dashed border-white outline-1 outline-black"
            style={boxStyle(frame.safe)}
          ></div>
        {:else if guide === 'grid'}
          <div class="crop pointer-events-none absolute" style={boxStyle(frame.grid)}></div>
        {/if}
        {#if clip}
          <ClipLayer clip={clip.name} at={clip.at} isPlaying={preview.isPlaying} />
        {/if}
        {#if hasCaptions && cue && !clip}
          <p class="absolute inset-x-0 bottom-[3%] flex justify-center px-2 text-center">
            <span
              class="caption rounded-base bg-black/80 px-2 py-0.5 whitespace-pre-line text-white"
              >{cue.text}</span
            >
          </p>
        {/if}
      </div>
    {:else}
      <p class="p-6 text-sm text-white" role="status">Laying out the scenes.</p>
    {/if}
  </div>
  <div class="flex items-center gap-2">
    <button
      class="bare btn-icon btn-icon-sm"
      aria-label="Back to the beginning"
      onclick={() => {
        preview.pause();
        preview.time = -before;
        booth.current = 0;
      }}><SkipBack aria-hidden="true" class="size-4" /></button
    >
    <button class="strong btn btn-sm" disabled={!plan} onclick={toggle}>
      {#if preview.isPlaying}<Pause aria-hidden="true" />Pause{:else}<Play
          aria-hidden="true"
        />Play{/if}
    </button>
    <TimeCode seconds={preview.time + before} />
    <input
      type="range"
      class="min-w-0 flex-1"
      aria-label="Place in the video"
      min="0"
      max={before + duration + after}
      step="0.1"
      value={preview.time + before}
      oninput={(event) => {
        preview.pause();
        preview.time = Number(event.currentTarget.value) - before;
        if (plan) booth.current = shownAt(plan.timeLine, Math.max(0, preview.time)).scene;
      }}
    />
    <TimeCode seconds={before + duration + after} />
  </div>
</section>

<style>
  .stage {
    height: min(25rem, 48vh);
    padding: 0.4rem;
  }
  .frame {
    container-type: size;
    max-width: 100%;
    max-height: 100%;
    height: 100%;
  }
  @media (width < 40rem) {
    .stage {
      height: auto;
      min-height: 10rem;
    }
    .frame {
      height: auto;
      width: min(100%, calc(50vh * var(--ratio)));
    }
  }
  .caption {
    /* As large beside the frame as players make it. */
    font-size: max(0.55rem, 4.2cqmin);
  }
  .crop {
    box-shadow: 0 0 0 100rem rgb(0 0 0 / 0.82);
  }
  input[type='range'] {
    accent-color: var(--ink);
  }
</style>
