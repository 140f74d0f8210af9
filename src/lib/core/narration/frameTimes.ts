import type { MoveSpan } from './motion.ts';
import type { TimedScene } from './timeLine.ts';

/** Frames a second where something moves. */
export const MOVING_RATE = 24;
/** No frame stays longer than this, so that a player finds a place to jump to. */
const MAX_FRAME = 5;
/** Two frames nearer than this are one. */
const NEAR = 1 / (2 * MOVING_RATE);

/**
 * When a scene needs a new frame: where what is shown changes, 24 a second during a move, and no oftener.
 * @param moves the times in which something moves, in their order
 * @param lights when a word lights up
 * @returns seconds of the video, rising, the first at the scene's start
 */
export function frameTimes(
  { start, end, stages }: TimedScene,
  moves: readonly MoveSpan[],
  lights: readonly number[] = []
): number[] {
  const wanted = [start, ...stages, ...lights];
  for (const { from, to } of moves) {
    const count = Math.ceil((to - from) * MOVING_RATE - 1e-6);
    for (let i = 0; i < count; i++) wanted.push(from + i / MOVING_RATE);
    // Where it has come to rest.
    wanted.push(to);
  }
  const times: number[] = [];
  for (const time of wanted.sort((a, b) => a - b)) {
    if (time >= end - 1e-6) break;
    const last = times.at(-1);
    const near = times.length === 1 ? 1e-3 : NEAR;
    if (last === undefined || time - last > near) times.push(time);
    // What changes is not shown before it does.
    else if (times.length > 1) times[times.length - 1] = time;
  }
  return times.flatMap((time, i) => {
    const next = times[i + 1] ?? end;
    const held: number[] = [];
    for (let t = time; t < next - 1e-6; t += MAX_FRAME) held.push(t);
    return held;
  });
}
