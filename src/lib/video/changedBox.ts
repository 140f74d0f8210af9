import type { Box } from '$lib/core/narration/frames.ts';
import type { MovedMark } from '$lib/core/narration/motion.ts';
import { boxOf, type Context } from './paint.ts';

/** Type reaches a little out of its lines. */
const MARGIN = 8;

const isSame = (a: MovedMark, b: MovedMark): boolean =>
  a.mark === b.mark &&
  a.opacity === b.opacity &&
  a.scale === b.scale &&
  a.shift.x === b.shift.x &&
  a.shift.y === b.shift.y &&
  a.shown.x === b.shown.x &&
  a.shown.y === b.shown.y &&
  (a.mark.kind !== 'picture' || a.progress === b.progress);

/**
 * The part of a frame that differs from the one before, in its own pixels.
 * @param before null for the first frame: all of it is new
 * @returns null where nothing changed
 */
export function changedBox(
  context: Context,
  before: readonly MovedMark[] | null,
  after: readonly MovedMark[],
  whole: Box
): Box | null {
  if (!before) return whole;
  let changed: Box | null = null;
  const take = (moved: MovedMark) => {
    changed = joined(changed, areaOf(context, moved));
  };
  const rest = new Map(before.map((moved) => [moved.mark, moved]));
  for (const moved of after) {
    const was = rest.get(moved.mark);
    rest.delete(moved.mark);
    if (was && isSame(was, moved)) continue;
    if (was) take(was);
    take(moved);
  }
  for (const gone of rest.values()) take(gone);
  return changed && within(changed, whole);
}

function areaOf(context: Context, { mark, shift, scale }: MovedMark): Box {
  const box = boxOf(context, mark);
  const grown = scale === 1 ? 0 : Math.max(box.width, box.height) * Math.abs(1 - scale);
  const by = MARGIN + grown;
  return {
    x: box.x + Math.min(0, shift.x) - by,
    y: box.y + Math.min(0, shift.y) - by,
    width: box.width + Math.abs(shift.x) + 2 * by,
    height: box.height + Math.abs(shift.y) + 2 * by
  };
}

function joined(a: Box | null, b: Box): Box {
  if (!a) return b;
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y
  };
}

function within(box: Box, whole: Box): Box | null {
  const x = Math.max(whole.x, box.x);
  const y = Math.max(whole.y, box.y);
  const width = Math.min(whole.x + whole.width, box.x + box.width) - x;
  const height = Math.min(whole.y + whole.height, box.y + box.height) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : null;
}
