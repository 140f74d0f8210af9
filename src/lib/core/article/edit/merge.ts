import { diffArrays, diffWordsWithSpace } from 'diff';

/** One thing that making the text anew would change in it. */
export interface MergePart {
  /** Blocks of the text as it stands, `from` up to, not including, `to`, that would go. */
  from: number;
  to: number;
  /** Blocks that would come in their place. */
  fresh: string[];
  /** The user changed something just there. */
  isTouched: boolean;
}

/**
 * What has changed in a text made anew since the one that the user began to edit, as pieces that can
 * be taken into the edited text one by one (a three-way comparison, block by block).
 * @param base the blocks as they were made when editing began
 * @param mine as they stand now
 * @param fresh as they are made today
 */
export function changesSince(
  base: readonly string[],
  mine: readonly string[],
  fresh: readonly string[]
): MergePart[] {
  const at = positions(base, mine);
  const pieces = hunks(base, fresh).flatMap(({ from, to, added }) => {
    // In the edited text the piece lies between the nearest blocks that are still as they were.
    let before = from - 1;
    while (before >= 0 && at[before] === -1) before--;
    let after = to;
    while (after < base.length && at[after] === -1) after++;
    const whole = {
      from: before < 0 ? 0 : (at[before] ?? 0) + 1,
      to: after >= base.length ? mine.length : (at[after] ?? mine.length)
    };
    const kept = at.slice(from, to).filter((k) => k !== -1);
    const isUntouched = kept.length === to - from;
    const place = isUntouched
      ? kept.length > 0
        ? { from: kept[0] ?? 0, to: (kept.at(-1) ?? 0) + 1 }
        : { from: whole.from, to: whole.from }
      : whole;
    const isTaken =
      place.to - place.from === added.length &&
      added.every((block, k) => mine[place.from + k] === block);
    return isTaken ? [] : [{ ...place, fresh: added, isTouched: !isUntouched }];
  });
  return joined(pieces);
}

/** Two changes within one stretch edited by hand are one: either is in the way of the other. */
function joined(pieces: readonly MergePart[]): MergePart[] {
  const apart: MergePart[] = [];
  for (const piece of pieces) {
    const last = apart.at(-1);
    if (last && piece.from < last.to) {
      last.to = Math.max(last.to, piece.to);
      last.fresh = [...last.fresh, ...piece.fresh];
      last.isTouched = true;
    } else apart.push({ ...piece });
  }
  return apart;
}

/** The edited text with some of the pieces taken. */
export function takePieces(mine: readonly string[], pieces: readonly MergePart[]): string[] {
  const blocks = [...mine];
  for (const { from, to, fresh } of [...pieces].sort((a, b) => b.from - a.from || b.to - a.to)) {
    blocks.splice(from, to - from, ...fresh);
  }
  return blocks;
}

/** Where each block of one text stands in another; -1 where it is gone or changed. */
function positions(base: readonly string[], mine: readonly string[]): number[] {
  const at = new Array<number>(base.length).fill(-1);
  let i = 0;
  let k = 0;
  for (const part of diffArrays([...base], [...mine])) {
    if (part.added) k += part.value.length;
    else if (part.removed) i += part.value.length;
    else for (let n = 0; n < part.value.length; n++) at[i++] = k++;
  }
  return at;
}

function hunks(base: readonly string[], fresh: readonly string[]) {
  const found: { from: number; to: number; added: string[] }[] = [];
  let i = 0;
  let open: (typeof found)[number] | null = null;
  for (const part of diffArrays([...base], [...fresh])) {
    if (!part.added && !part.removed) {
      i += part.value.length;
      open = null;
      continue;
    }
    if (!open) found.push((open = { from: i, to: i, added: [] }));
    if (part.removed) {
      i += part.value.length;
      open.to = i;
    } else open.added.push(...part.value);
  }
  return found;
}

export interface Change {
  text: string;
  is: 'kept' | 'in' | 'out';
}

/** Share of words that two sentences must have in common to be shown as one that was changed. */
const ALIKE = 0.5;

/** A text in pieces that are kept, go and come: whole sentences, or the words of one that changed. */
export function textChanges(before: string, after: string): Change[] {
  const changes: Change[] = [];
  let gone = '';
  for (const { value, added, removed } of diffArrays(pieces(before), pieces(after))) {
    const text = value.join('');
    if (added && gone && likeness(gone, text) >= ALIKE) {
      changes.pop();
      changes.push(...wordChanges(gone, text));
    } else changes.push({ text, is: added ? 'in' : removed ? 'out' : 'kept' });
    gone = removed ? text : '';
  }
  return changes;
}

/** Sentences and line ends, with the white space after them. */
const pieces = (text: string): string[] =>
  text.split(/(?<=\n)|(?<=[.!?…]["”’)]{0,3}\s{1,3})(?=\S)/).filter(Boolean);

function likeness(a: string, b: string): number {
  const [words, others] = [a, b].map((t) => new Set(t.toLowerCase().split(/\s+/).filter(Boolean)));
  if (!words || !others) return 0;
  const both = [...words].filter((word) => others.has(word)).length;
  return both / Math.max(1, Math.min(words.size, others.size));
}

const wordChanges = (before: string, after: string): Change[] =>
  diffWordsWithSpace(before, after).map(({ value, added, removed }) => ({
    text: value,
    is: added ? 'in' : removed ? 'out' : 'kept'
  }));
