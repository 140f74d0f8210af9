import type { Mark, SceneLayout } from '$lib/core/narration/layout.ts';
import { frameTimes, shownAt, type TimeLine } from '$lib/core/narration/timeLine.ts';

/** One frame of a part. Seconds from the start of the part. */
export interface PlannedFrame {
  at: number;
  marks: Mark[];
  /** How much of its scene is over, for what moves. */
  progress: number;
}

/** A stretch of the video that is encoded by itself, so that what is finished is not made again. */
export interface Part {
  start: number;
  seconds: number;
  frames: PlannedFrame[];
}

/** Seconds after which a part ends with the next scene. */
const LENGTH = 30;

/** Divides a video into parts at the ends of scenes. Each is told by its own content alone. */
export function planParts(timeLine: TimeLine, layouts: readonly SceneLayout[]): Part[] {
  const bounds: { start: number; end: number }[] = [];
  for (const { start, end } of timeLine.scenes) {
    const last = bounds.at(-1);
    if (last && last.end - last.start < LENGTH) last.end = end;
    else bounds.push({ start, end });
  }
  const times = frameTimes(timeLine);
  let next = 0;
  return bounds.map(({ start, end }) => {
    const frames: PlannedFrame[] = [];
    for (; next < times.length && (times[next] ?? 0) < end - 1e-9; next++) {
      const at = times[next] ?? 0;
      const shown = shownAt(timeLine, at);
      const scene = timeLine.scenes[shown.scene];
      const length = scene ? scene.end - scene.start : 1;
      frames.push({
        at: at - start,
        marks: layouts[shown.scene]?.stages[shown.stage]?.marks ?? [],
        progress: scene?.isMoving ? (at - scene.start) / length : 0
      });
    }
    return { start, seconds: end - start, frames };
  });
}

/** A name that changes with whatever the part shows. */
export async function partName(prefix: string, content: unknown): Promise<string> {
  const bytes = new TextEncoder().encode(JSON.stringify(content));
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  const hex = [...digest.subarray(0, 12)].map((b) => b.toString(16).padStart(2, '0')).join('');
  return `${prefix}-part-${hex}`;
}
