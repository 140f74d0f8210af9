import type { SceneLayout } from './layout/mark.ts';
import type { Light } from './layout/wordLights.ts';
import { atRest, marksAt, movesIn, type MovedMark } from './motion.ts';
import { frameTimes } from './frameTimes.ts';
import type { Style } from './styles.ts';
import type { TimedScene } from './timeLine.ts';

/** All that is seen in one scene, and when. */
export interface ScenePlan {
  layout: SceneLayout;
  timed: TimedScene;
  /** Words that light up as they are said; none where the style has them off. */
  lights: readonly Light[];
}

/** What is painted at a moment of a scene; seconds of the video. */
export function paintedAt(
  { layout, timed, lights }: ScenePlan,
  seconds: number,
  style: Style
): MovedMark[] {
  const stage = Math.max(
    0,
    timed.stages.findLastIndex((t) => t <= seconds + 1e-6)
  );
  const light = lights.findLast(({ at }) => at <= seconds + 1e-6);
  return [...marksAt(layout, timed, stage, seconds, style), ...(light?.marks.map(atRest) ?? [])];
}

/** When a scene needs a new frame; seconds of the video. */
export const momentsOf = ({ layout, timed, lights }: ScenePlan, style: Style): number[] =>
  frameTimes(
    timed,
    movesIn(layout, timed, style),
    lights.map(({ at }) => at)
  );
