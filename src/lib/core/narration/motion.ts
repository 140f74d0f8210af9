import type { Mark, SceneLayout } from './layout/mark.ts';
import type { Style, StyleName } from './styles.ts';
import type { TimedScene } from './timeLine.ts';

/** How the lines of a style come: one family of moves each. */
type Family = 'rise' | 'wipe' | 'lift' | 'slide' | 'fade' | 'grow';

interface Moves {
  family: Family;
  /** Seconds that one mark takes to come. */
  seconds: number;
  /** Seconds between two lines that come one after the other. */
  apart: number;
}

const MOVES: Readonly<Record<StyleName, Moves>> = {
  margin: { family: 'rise', seconds: 0.32, apart: 0.04 },
  band: { family: 'wipe', seconds: 0.36, apart: 0.05 },
  sheet: { family: 'lift', seconds: 0.34, apart: 0.04 },
  panel: { family: 'slide', seconds: 0.32, apart: 0.04 },
  poster: { family: 'grow', seconds: 0.3, apart: 0.04 },
  line: { family: 'fade', seconds: 0.42, apart: 0.05 }
};

/** Lines that come one after the other, at most: later ones come with the last of these. */
const MOST_APART = 3;
/** Seconds in which a scene goes. */
const OUT = 0.3;
/** How far lines travel, in pixels of the frame. */
const WAY = 34;

/** A mark at a moment. */
export interface MovedMark {
  mark: Mark;
  /** Between 0 and 1. */
  opacity: number;
  /** Pixels of the frame. */
  shift: { x: number; y: number };
  scale: number;
  /** How much of it is shown along its width and its height, between 0 and 1. */
  shown: { x: number; y: number };
  /** How far a slow move has come, between 0 and 1. */
  progress: number;
}

const STILL = { opacity: 1, shift: { x: 0, y: 0 }, scale: 1, shown: { x: 1, y: 1 } };

/** A mark as it is when nothing moves. */
export const atRest = (mark: Mark): MovedMark => ({ mark, ...STILL, progress: 0 });

/** Slow at its end: what comes settles. */
const easeOut = (t: number): number => 1 - (1 - t) ** 2;
const easeIn = (t: number): number => t * t;
const between = (t: number): number => Math.min(1, Math.max(0, t));

/** A time in which something moves; seconds of the video. */
export interface MoveSpan {
  from: number;
  to: number;
}

/**
 * The marks that a stage brings, in the order in which they come: all that move and were not there before.
 * A title is there from the first frame, which players show before they play.
 */
function broughtBy(layout: SceneLayout, { kind }: TimedScene, stage: number): Mark[] {
  if (kind === 'title' && stage === 0) return [];
  const before = new Set(layout.stages[stage - 1]?.marks ?? []);
  return (layout.stages[stage]?.marks ?? []).filter((mark) => mark.move && !before.has(mark));
}

/** Seconds after the stage's own at which each mark that it brings begins to come. */
function delaysOf(marks: readonly Mark[], { apart }: Moves): Map<Mark, number> {
  const delays = new Map<Mark, number>();
  let lines = 0;
  for (const mark of marks) {
    const isLine = mark.move === 'line';
    delays.set(mark, Math.min(lines, MOST_APART) * apart);
    if (isLine) lines++;
  }
  return delays;
}

/** When something moves in a scene: as each stage comes, as the scene goes, and all along beside a picture. */
export function movesIn(layout: SceneLayout, timed: TimedScene, style: Style): MoveSpan[] {
  if (style.motion === 'calm') return [];
  if (layout.isMoving) return [{ from: timed.start, to: timed.end }];
  const moves = MOVES[style.name];
  const spans = timed.stages.flatMap((at, stage): MoveSpan[] => {
    const delays = [...delaysOf(broughtBy(layout, timed, stage), moves).values()];
    if (delays.length === 0) return [];
    return [{ from: at, to: Math.min(timed.end, at + Math.max(...delays) + moves.seconds) }];
  });
  return joinSpans([...spans, { from: Math.max(timed.start, timed.end - OUT), to: timed.end }]);
}

function joinSpans(spans: readonly MoveSpan[]): MoveSpan[] {
  const joined: MoveSpan[] = [];
  for (const { from, to } of spans) {
    const last = joined.at(-1);
    if (to <= from) continue;
    if (last && from <= last.to) last.to = Math.max(last.to, to);
    else joined.push({ from, to });
  }
  return joined;
}

/**
 * What is painted at a moment of a scene: its marks, each as far as it has come or gone.
 * @param seconds of the video
 */
export function marksAt(
  layout: SceneLayout,
  timed: TimedScene,
  stage: number,
  seconds: number,
  style: Style
): MovedMark[] {
  const marks = layout.stages[stage]?.marks ?? [];
  const progress = between((seconds - timed.start) / Math.max(0.01, timed.end - timed.start));
  if (style.motion === 'calm') return marks.map(atRest);
  const moves = MOVES[style.name];
  const begun = beginnings(layout, timed, stage, seconds, moves);
  const going = easeIn(between((seconds - (timed.end - OUT)) / OUT));
  return marks.map((mark) => {
    const at = begun.get(mark);
    const come = at === undefined ? 1 : easeOut(between((seconds - at) / moves.seconds));
    return { mark: counted(mark, come), ...movedBy(mark, come, going, moves.family), progress };
  });
}

/** When the marks began to come that may still be on their way: those of this stage and of any just before it. */
function beginnings(
  layout: SceneLayout,
  timed: TimedScene,
  stage: number,
  seconds: number,
  moves: Moves
): Map<Mark, number> {
  const begun = new Map<Mark, number>();
  const longest = moves.seconds + MOST_APART * moves.apart;
  for (let s = stage; s >= 0; s--) {
    const at = timed.stages[s] ?? timed.start;
    for (const [mark, delay] of delaysOf(broughtBy(layout, timed, s), moves))
      if (!begun.has(mark)) begun.set(mark, at + delay);
    if (seconds - at > longest) break;
  }
  return begun;
}

/** A number on its way up to what it is. */
function counted(mark: Mark, come: number): Mark {
  if (mark.kind !== 'text' || mark.move !== 'count' || come >= 1) return mark;
  return { ...mark, text: String(Math.round(Number(mark.text) * come)) };
}

function movedBy(
  { move }: Mark,
  come: number,
  going: number,
  family: Family
): Omit<MovedMark, 'mark' | 'progress'> {
  if (!move) return STILL;
  const gone = 1 - going;
  if (move === 'grow-x') return { ...STILL, opacity: gone, shown: { x: come, y: 1 } };
  if (move === 'grow-y') return { ...STILL, opacity: gone, shown: { x: 1, y: come } };
  if (move === 'shape' || move === 'count' || move === 'picture')
    return { ...STILL, opacity: Math.min(1, come * 1.4) * gone };
  const left = 1 - come;
  const moved = { ...STILL, opacity: come * gone };
  switch (family) {
    case 'rise':
      return { ...moved, shift: { x: 0, y: WAY * left - WAY * 0.5 * going } };
    case 'lift':
      return { ...moved, shift: { x: 0, y: WAY * 1.6 * left } };
    case 'slide':
      return { ...moved, shift: { x: -WAY * left + WAY * going, y: 0 } };
    case 'wipe':
      return { ...moved, opacity: gone, shown: { x: come, y: 1 } };
    case 'grow':
      return { ...moved, scale: 0.9 + 0.1 * come };
    case 'fade':
      return moved;
  }
}
