import { momentsOf, paintedAt, type ScenePlan } from '$lib/core/narration/moment.ts';
import type { MovedMark } from '$lib/core/narration/motion.ts';
import type { Style } from '$lib/core/narration/styles.ts';
import type { TimedScene } from '$lib/core/narration/timeLine.ts';

/** One frame of a part. Seconds from the start of the part. */
export interface PlannedFrame {
  at: number;
  seconds: number;
  marks: MovedMark[];
}

/** A stretch of the video that is encoded by itself, so that what is finished is not made again. */
export interface Part {
  /** Of the video. */
  start: number;
  seconds: number;
  /** Their times are those of the part: moved in time, it is the same part. */
  scenes: ScenePlan[];
}

/** Seconds after which a part ends with the next scene. */
const LENGTH = 30;

/** Divides a video into parts at the ends of scenes. Each is told by its own content alone. */
export function planParts(scenes: readonly ScenePlan[]): Part[] {
  const parts: Part[] = [];
  for (const scene of scenes) {
    const { start, end } = scene.timed;
    let part = parts.at(-1);
    if (!part || part.seconds >= LENGTH) {
      part = { start, seconds: 0, scenes: [] };
      parts.push(part);
    }
    part.scenes.push(moved(scene, -part.start));
    part.seconds = end - part.start;
  }
  return parts;
}

const moved = ({ layout, timed, lights }: ScenePlan, by: number): ScenePlan => ({
  layout,
  timed: movedInTime(timed, by),
  lights: lights.map((light) => ({ ...light, at: rounded(light.at + by) }))
});

const movedInTime = (timed: TimedScene, by: number): TimedScene => ({
  ...timed,
  start: rounded(timed.start + by),
  end: rounded(timed.end + by),
  stages: timed.stages.map((t) => rounded(t + by)),
  lines: []
});

/** To the microsecond, as files have it: what is left of a subtraction is no other part. */
const rounded = (seconds: number): number => Math.round(seconds * 1e6) / 1e6;

/** The frames of a part, one after the other: none is kept. */
export function* framesOf({ scenes }: Part, style: Style): Generator<PlannedFrame> {
  for (const scene of scenes) {
    const moments = momentsOf(scene, style);
    for (const [i, at] of moments.entries()) {
      const end = moments[i + 1] ?? scene.timed.end;
      yield { at, seconds: end - at, marks: paintedAt(scene, at, style) };
    }
  }
}
