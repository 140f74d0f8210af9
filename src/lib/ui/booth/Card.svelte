<script lang="ts">
  import type { Frame } from '$lib/core/narration/frames.ts';
  import type { MovedMark } from '$lib/core/narration/motion.ts';
  import { paint, type Pictures } from '$lib/video/paint.ts';

  interface Props {
    marks: readonly MovedMark[];
    pictures: Pictures;
    frame: Frame;
    /** Pixels of the canvas. */
    width: number;
    label: string;
  }
  let { marks, pictures, frame, width, label }: Props = $props();
  let canvas = $state<HTMLCanvasElement>();
  const height = $derived(Math.round((width * frame.height) / frame.width));

  $effect(() => {
    const context = canvas?.getContext('2d', { alpha: false });
    if (context) paint(context, marks, pictures, width / frame.width);
  });
</script>

<div class="h-full w-full" role={label ? 'img' : 'presentation'} aria-label={label || undefined}>
  <canvas bind:this={canvas} {width} {height} class="block h-full w-full"></canvas>
</div>
