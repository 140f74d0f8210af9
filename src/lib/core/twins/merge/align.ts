import { diffArrays } from 'diff';
import { htmlText } from '../../text/html.ts';
import type { Piece } from './pieces.ts';

/** Share of words that two pieces have in common, from which one is taken for the other, changed. */
const ALIKE = 0.5;
/** Pairs of pieces that are compared word by word between two that are the same. */
const MOST_PAIRS = 40_000;

/** How near two pieces of different keys are to each other, from 0 to 1. */
type Nearness = (before: Piece, after: Piece) => number;

const nearness: Nearness = (a, b) => (a.tag === b.tag ? shared(wordsOf(a), wordsOf(b)) : 0);

/**
 * The same, where it is known what is made of pieces now: one that stands as it is made now was changed
 * from what that is made of, and from nothing else.
 * @param toFresh of `base` in `fresh`, as `align` found it
 */
export function nearnessBeside(
  base: readonly Piece[],
  fresh: readonly Piece[],
  toFresh: readonly number[]
): Nearness {
  const made = new Set(fresh.map((piece) => piece.key));
  const now = new Map(base.map((piece, i) => [piece, fresh[toFresh[i] ?? -1]?.key]));
  return (a, b) => (made.has(b.key) ? Number(now.get(a) === b.key) : nearness(a, b));
}

/**
 * Which piece of one text is which of another: the same, or one that was changed.
 * @returns for each of `before` its place in `after`, in rising order; -1 where it is gone
 */
export function align(
  before: readonly Piece[],
  after: readonly Piece[],
  near: Nearness = nearness
): number[] {
  const at = new Array<number>(before.length).fill(-1);
  let [i, k] = [0, 0];
  let [gone, come]: [number[], number[]] = [[], []];
  const close = () => {
    for (const [a, b] of alike(piecesAt(before, gone), piecesAt(after, come), near))
      at[gone[a] ?? 0] = come[b] ?? -1;
    [gone, come] = [[], []];
  };
  const keys = (pieces: readonly Piece[]) => pieces.map((piece) => piece.key);
  for (const { added, removed, value } of diffArrays(keys(before), keys(after))) {
    for (let n = 0; n < value.length; n++) {
      if (removed) gone.push(i++);
      else if (added) come.push(k++);
      else {
        close();
        at[i++] = k++;
      }
    }
  }
  close();
  return at;
}

const piecesAt = (pieces: readonly Piece[], places: readonly number[]): Piece[] =>
  places.flatMap((place) => pieces[place] ?? []);

/**
 * Pieces that stand elsewhere in the order, the same or changed, for those that `align` has not found.
 * @param at of `before` in `after`, as `align` found it
 */
export function movedPieces(
  before: readonly Piece[],
  after: readonly Piece[],
  at: readonly number[],
  near: Nearness = nearness
): Map<number, number> {
  const taken = new Set(at);
  const left = [...after.keys()].filter((k) => !taken.has(k));
  const moved = new Map<number, number>();
  if (left.length === 0 || before.length * left.length > MOST_PAIRS) return moved;
  const take = (i: number, found: (piece: Piece) => boolean) => {
    const place = left.findIndex((k) => after[k] && found(after[k]));
    if (place < 0) return;
    moved.set(i, left[place] ?? 0);
    left.splice(place, 1);
  };
  const missing = before.flatMap((piece, i) => (at[i] === -1 ? [{ piece, i }] : []));
  for (const { piece, i } of missing) take(i, (other) => other.key === piece.key);
  for (const { piece, i } of missing)
    if (!moved.has(i)) take(i, (other) => near(piece, other) >= ALIKE);
  return moved;
}

/** Pairs of changed pieces, in the order of both, with the most words in common in all. */
function alike(gone: readonly Piece[], come: readonly Piece[], near: Nearness): [number, number][] {
  const [rows, columns] = [gone.length, come.length];
  if (rows === 0 || columns === 0 || rows * columns > MOST_PAIRS) return [];
  const score = gone.map((a) => come.map((b) => near(a, b)));
  const best = Array.from({ length: rows + 1 }, () => new Float64Array(columns + 1));
  for (let i = rows - 1; i >= 0; i--) {
    for (let k = columns - 1; k >= 0; k--) {
      const paired = score[i]?.[k] ?? 0;
      best[i]![k] = Math.max(
        best[i + 1]![k] ?? 0,
        best[i]![k + 1] ?? 0,
        paired >= ALIKE ? paired + (best[i + 1]![k + 1] ?? 0) : 0
      );
    }
  }
  const pairs: [number, number][] = [];
  for (let i = 0, k = 0; i < rows && k < columns;) {
    const here = best[i]![k] ?? 0;
    if (here === (best[i + 1]![k] ?? 0)) i++;
    else if (here === (best[i]![k + 1] ?? 0)) k++;
    else pairs.push([i++, k++]);
  }
  return pairs;
}

/** Words of pieces, which are compared with many others. */
const words = new WeakMap<Piece, ReadonlySet<string>>();

function wordsOf(piece: Piece): ReadonlySet<string> {
  const known = words.get(piece);
  if (known) return known;
  const text = htmlText(piece.source).toLowerCase();
  const found = new Set(text.split(/[^\p{L}\p{N}]+/u).filter(Boolean));
  words.set(piece, found);
  return found;
}

/** Dice's coefficient of two sets of words. */
function shared(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  if (a.size + b.size === 0) return 0;
  let both = 0;
  for (const word of a) if (b.has(word)) both++;
  return (2 * both) / (a.size + b.size);
}

/** Whether two pieces are near enough to be one that was changed. */
export const isAlike = (a: Piece, b: Piece): boolean => shared(wordsOf(a), wordsOf(b)) >= ALIKE;
