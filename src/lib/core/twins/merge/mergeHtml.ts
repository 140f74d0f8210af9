import { align, isAlike, movedPieces, nearnessBeside } from './align.ts';
import { piecesOf, type Piece } from './pieces.ts';

/** What making a text anew would change in it, at one place. All of it HTML. */
export interface Change {
  /** As it was made. */
  base: string;
  /** As it stands now. */
  mine: string;
  /** As it would be made now. */
  fresh: string;
  /** It was edited by hand just there, since it was made. */
  isConflict: boolean;
}

/** A text as it stands, and the places where making it anew would change it. */
export type Merged = (string | Change)[];

/**
 * Merges three versions of a text: block by block, and sentence by sentence within a block. What was
 * edited by hand and not made otherwise stays; what is made otherwise and was not edited by hand is a
 * change; what is both is a change in conflict.
 *
 * After Khanna, Kunal and Pierce, "A Formal Investigation of Diff3", FSTTCS 2007, over pieces that may
 * be the same or alike.
 * @param base HTML as it was made
 * @param mine as it stands, with edits by hand
 * @param fresh as it would be made now
 * @returns parts that, with each change as `mine`, are `mine` to the character
 */
export function mergeHtml(base: string, mine: string, fresh: string): Merged {
  const { before, pieces } = piecesOf(mine);
  const merged = mergePieces(piecesOf(base).pieces, pieces, piecesOf(fresh).pieces);
  return joined([before, ...merged]);
}

/** A merged text with some of its changes made: `both` puts what is new behind what stands. */
export function takeChanges(
  merged: Merged,
  choose: (change: Change) => 'mine' | 'fresh' | 'both'
): string {
  return merged
    .map((part) => {
      if (typeof part === 'string') return part;
      const choice = choose(part);
      return choice === 'both' ? [part.mine, part.fresh].filter(Boolean).join(' ') : part[choice];
    })
    .join('');
}

export const changesIn = (merged: Merged): Change[] =>
  merged.filter((part): part is Change => typeof part !== 'string');

/** A piece that was put elsewhere by hand, with what it was made as and what is made of it now. */
type Moved = ReadonlyMap<Piece, { base: Piece; fresh: Piece | null }>;

/** Merges three versions of a list of pieces. @returns parts as `mergeHtml` gives them */
export function mergePieces(
  base: readonly Piece[],
  mine: readonly Piece[],
  fresh: readonly Piece[]
): Merged {
  const toFresh = align(base, fresh);
  const near = nearnessBeside(base, fresh, toFresh);
  const toMine = align(base, mine, near);
  const elsewhere = movedPieces(base, mine, toMine, near);
  if (elsewhere.size === 0) return mergeInOrder(base, mine, fresh, toMine, toFresh, new Map());
  const anew = movedPieces(base, fresh, toFresh);
  const moved = new Map<Piece, { base: Piece; fresh: Piece | null }>();
  const [gone, used] = [new Set<number>(), new Set<number>()];
  for (const [i, k] of elsewhere) {
    const j = (toFresh[i] ?? -1) < 0 ? (anew.get(i) ?? -1) : (toFresh[i] ?? -1);
    const [own, stands] = [base[i], mine[k]];
    if (!own || !stands) continue;
    moved.set(stands, { base: own, fresh: fresh[j] ?? null });
    gone.add(i);
    used.add(j);
  }
  const stays = (_: unknown, i: number) => !gone.has(i);
  const left = [...fresh.keys()].filter((j) => !used.has(j));
  return mergeInOrder(
    base.filter(stays),
    mine,
    left.flatMap((j) => fresh[j] ?? []),
    toMine.filter(stays),
    toFresh.filter(stays).map((j) => left.indexOf(j)),
    moved
  );
}

function mergeInOrder(
  base: readonly Piece[],
  mine: readonly Piece[],
  fresh: readonly Piece[],
  toMine: readonly number[],
  toFresh: readonly number[],
  moved: Moved
): Merged {
  const merged: Merged = [];
  let [b, m, f] = [0, 0, 0];
  for (let i = 0; i <= base.length; i++) {
    const isEnd = i === base.length;
    const atMine = isEnd ? mine.length : (toMine[i] ?? -1);
    const atFresh = isEnd ? fresh.length : (toFresh[i] ?? -1);
    if (atMine < 0 || atFresh < 0) continue;
    const last = mine[m - 1] ?? null;
    merged.push(
      ...mergeBetween(base.slice(b, i), mine.slice(m, atMine), fresh.slice(f, atFresh), last, moved)
    );
    const [own, stands, made] = [base[i], mine[atMine], fresh[atFresh]];
    if (own && stands && made) merged.push(...mergePiece(own, stands, made));
    [b, m, f] = [i + 1, atMine + 1, atFresh + 1];
  }
  return merged;
}

/**
 * What stands between two pieces that are in all three, with what stands behind the first.
 * @param last the first of the two, or null at the beginning
 */
function mergeBetween(
  base: readonly Piece[],
  mine: readonly Piece[],
  fresh: readonly Piece[],
  last: Piece | null,
  moved: Moved
): Merged {
  const isMoved = mine.findIndex((piece) => moved.has(piece));
  const own = isMoved < 0 ? mine : mine.slice(0, isMoved);
  const put = mine.filter((piece) => !moved.has(piece));
  const merged = isTaken(base, put, fresh)
    ? [last?.after ?? '', ...asItStands(own)]
    : mergeGap(base, own, fresh, last);
  for (const piece of mine.slice(own.length)) {
    const from = moved.get(piece);
    if (!from) merged.push(piece.source);
    else if (from.fresh) merged.push(...mergePiece(from.base, piece, from.fresh));
    else merged.push({ base: from.base.source, mine: piece.source, fresh: '', isConflict: true });
    merged.push(piece.after);
  }
  return merged;
}

/** A piece that stands in all three, the same or changed; what stands behind it is left out. */
function mergePiece(base: Piece, mine: Piece, fresh: Piece): Merged {
  if (fresh.key === base.key || mine.key === fresh.key) return [mine.source];
  if (base.inside && mine.inside && fresh.inside) {
    const { open, pieces, close } = mine.inside;
    return [open, ...mergePieces(base.inside.pieces, pieces, fresh.inside.pieces), close];
  }
  const isConflict = mine.key !== base.key;
  return [{ base: base.source, mine: mine.source, fresh: fresh.source, isConflict }];
}

/** What was put in, taken out or put in place of something else. */
function mergeGap(
  base: readonly Piece[],
  mine: readonly Piece[],
  fresh: readonly Piece[],
  before: Piece | null
): Merged {
  const space = before?.after ?? '';
  const last = mine.at(-1);
  if (isSame(base, fresh) || isTaken(base, mine, fresh)) return [space, ...asItStands(mine)];
  if (base.length === 0 && !mine.some((own) => fresh.some((made) => isAlike(own, made)))) {
    // What was put in by hand stays, and what is new comes after it.
    const added = sourceOf(fresh, (last ?? before) ? 'behind' : 'in-front');
    const change = { base: '', mine: '', fresh: added, isConflict: false };
    return last
      ? [space, ...asItStands(mine.slice(0, -1)), last.source, change, last.after]
      : [change, space];
  }
  // What was only put beside it by hand is in nobody's way.
  const from = runOf(base, mine);
  if (from > 0 || (from === 0 && base.length < mine.length)) {
    const to = from + base.length;
    return [
      space,
      ...asItStands(mine.slice(0, from)),
      ...mergeGap(base, mine.slice(from, to), fresh, null),
      ...asItStands(mine.slice(to))
    ];
  }
  const change = {
    base: sourceOf(base),
    mine: sourceOf(mine),
    fresh: last ? sourceOf(fresh) : sourceOf(fresh, before ? 'behind' : 'in-front'),
    isConflict: !isSame(base, mine)
  };
  return last ? [space, change, last.after] : [change, space];
}

/** Where in some pieces others stand one after the other, unchanged; -1 where they do not. */
function runOf(some: readonly Piece[], within: readonly Piece[]): number {
  if (some.length === 0) return -1;
  return within.findIndex((_, at) => isSame(some, within.slice(at, at + some.length)));
}

const asItStands = (pieces: readonly Piece[]): string[] =>
  pieces.flatMap((piece) => [piece.source, piece.after]);

const isSame = (a: readonly Piece[], b: readonly Piece[]): boolean =>
  a.length === b.length && a.every((piece, i) => piece.key === b[i]?.key);

/** Whether all that is made stands there already, and what it was made of before is gone. */
function isTaken(base: readonly Piece[], mine: readonly Piece[], fresh: readonly Piece[]): boolean {
  let found = 0;
  for (const piece of mine) if (piece.key === fresh[found]?.key) found++;
  if (found < fresh.length) return false;
  const made = new Set(fresh.map((piece) => piece.key));
  return !mine.some(
    (piece) =>
      !made.has(piece.key) && base.some((old) => old.key === piece.key || isAlike(old, piece))
  );
}

/** Pieces one after the other; `where` they are put beside others, kept apart from them. */
function sourceOf(pieces: readonly Piece[], where?: 'behind' | 'in-front'): string {
  const last = pieces.at(-1);
  const source = pieces
    .map((piece) => (piece === last ? piece.source : piece.source + piece.after))
    .join('');
  if (!last || !source || !where) return source;
  const space = isText(last) ? ' ' : '\n';
  return where === 'behind' ? space + source : source + space;
}

const isText = (piece: Piece): boolean => piece.tag === '#sentence';

/** Neighbouring parts that stand as they are, as one. */
function joined(parts: Merged): Merged {
  const merged: Merged = [];
  for (const part of parts) {
    const last = merged.at(-1);
    if (typeof part === 'string' && typeof last === 'string')
      merged[merged.length - 1] = last + part;
    else if (part !== '') merged.push(part);
  }
  return merged;
}
