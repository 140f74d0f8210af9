import type { Scene, SceneKind } from '../scenes.ts';
import type { TimeLine } from '../timeLine.ts';

/** A stretch of the video in which words alone are seen. */
export interface PictureGap {
  /** Seconds of the time line. */
  from: number;
  to: number;
  /** The scenes within it that a picture may stand in, by number. */
  scenes: number[];
}

/** Seconds of words alone after which something else should be seen. */
export const LONGEST_WITHOUT = 20;

/** Kinds that are something to look at by themselves; a large number is not. */
const DRAWN: ReadonlySet<SceneKind> = new Set(['title', 'chart', 'table', 'end']);
/** Kinds that may show a picture beside their words. */
const MAY_HAVE: ReadonlySet<SceneKind> = new Set(['statement', 'list']);

/** Where a video goes on for too long without a picture or anything drawn. */
export function pictureGaps(scenes: readonly Scene[], { scenes: timed }: TimeLine): PictureGap[] {
  const gaps: PictureGap[] = [];
  let open: PictureGap | null = null;
  const close = () => {
    if (open && open.to - open.from > LONGEST_WITHOUT && open.scenes.length > 0) gaps.push(open);
    open = null;
  };
  for (const [i, scene] of scenes.entries()) {
    const time = timed[i];
    if (!time) continue;
    if (scene.picture || DRAWN.has(scene.kind)) {
      close();
      continue;
    }
    open ??= { from: time.start, to: time.start, scenes: [] };
    open.to = time.end;
    if (MAY_HAVE.has(scene.kind) && scene.lines.length > 0) open.scenes.push(i);
    // A long stretch is more than one gap.
    if (open.to - open.from > 2 * LONGEST_WITHOUT) close();
  }
  close();
  return gaps;
}

/** What is left of a gap once one of its scenes has a picture: none, one or two that are still too long. */
export function restOfGap(
  { from, to, scenes }: PictureGap,
  filled: number,
  { scenes: timed }: TimeLine
): PictureGap[] {
  const time = timed[filled];
  if (!time) return [];
  const parts = [
    { from, to: time.start, scenes: scenes.filter((i) => i < filled) },
    { from: time.end, to, scenes: scenes.filter((i) => i > filled) }
  ];
  return parts.filter((part) => part.to - part.from > LONGEST_WITHOUT && part.scenes.length > 0);
}
