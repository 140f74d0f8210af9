<script lang="ts">
  import type { Frame } from '$lib/core/narration/frames.ts';
  import type { Mark } from '$lib/core/narration/layout.ts';
  import { paint, type Pictures } from '$lib/video/paint.ts';

  interface Props {
    marks: readonly Mark[];
    pictures: Pictures;
    frame: Frame;
    /** Pixels of the canvas. */
    width: number;
    progress?: number;
    label: string;
  }
  let { marks, pictures, frame, width, progress = 0, label }: Props = $props();
  let canvas = $state<HTMLCanvasElement>();
  const height = $derived(Math.round((width * frame.height) / frame.width));

  $effect(() => {
    const context = canvas?.getContext('2d', { alpha: false });
    if (context) paint(context, marks, pictures, progress, width / frame.width);
  });
</script>

<div class="h-full w-full" role={label ? 'img' : 'presentation'} aria-label={label || undefined}>
  <canvas bind:this={canvas} {width} {height} class="block h-full w-full"></canvas>
</div>
