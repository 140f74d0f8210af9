import type { Chart } from 'chart.js';
import type { Attachment } from 'svelte/attachments';
import { mode } from './mode.svelte.ts';

/**
 * Draws a chart on a canvas, and anew when what is drawn or the colours change.
 * @param load brings what draws; Chart.js comes with it, once there is something to draw
 * @param data null where there is nothing to draw
 */
export const charted =
  <T>(
    load: () => Promise<(canvas: HTMLCanvasElement, data: T) => Chart>,
    data: () => T | null
  ): Attachment<HTMLCanvasElement> =>
  (canvas) => {
    void mode.isDark;
    const drawn = data();
    if (drawn === null) return;
    let chart: Chart | undefined;
    let isGone = false;
    void load().then((draw) => {
      if (!isGone) chart = draw(canvas, drawn);
    });
    return () => {
      isGone = true;
      chart?.destroy();
    };
  };
