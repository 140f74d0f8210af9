import { bare } from '../text/bare.ts';
import type { Line, SpokenLine } from './line.ts';

/**
 * When each word of a line, as it is written, begins to be said: from the times of the words as they are
 * said, where the voice tells them, else by their lengths. A number that is said in several words begins
 * with the first of them.
 * @returns seconds from the start of the line, rising, one for each word between spaces
 */
export function wordTimes({ text, spoken }: Line, { seconds, words }: SpokenLine): number[] {
  const written = text.split(/\s+/).filter(Boolean);
  const said = spoken.split(/\s+/).filter(Boolean);
  const saidAt = words.length === said.length ? words : byLength(said, seconds);
  const anchors = anchorsOf(written.map(bare), said.map(bare));
  const times: number[] = [];
  for (let i = 0; i < written.length; i++) {
    const own = anchors.get(i);
    if (own !== undefined) {
      times.push(saidAt[own]!);
      continue;
    }
    // Between two that are known, by the letters between them.
    const [before, after] = [nearest(anchors, i, -1), nearest(anchors, i, 1, written.length)];
    const first = before === null ? 0 : before + 1;
    const last = after ?? written.length;
    const from = before === null ? 0 : (saidAt[anchors.get(before)! + 1] ?? seconds);
    const to = after === null ? seconds : saidAt[anchors.get(after)!]!;
    const letters = (a: number, b: number) => written.slice(a, b).join(' ').length;
    times.push(from + ((to - from) * letters(first, i)) / Math.max(1, letters(first, last)));
  }
  return times.map((t, i) => Math.min(seconds, Math.max(t, ...times.slice(0, i))));
}

function byLength(words: readonly string[], seconds: number): number[] {
  const total = words.join(' ').length || 1;
  let at = 0;
  return words.map((word) => {
    const time = (at / total) * seconds;
    at += word.length + 1;
    return time;
  });
}

/** The longest row of words that both have in the same order: which written word is which spoken one. */
function anchorsOf(written: readonly string[], said: readonly string[]): Map<number, number> {
  const rows = Array.from({ length: written.length + 1 }, () => new Uint16Array(said.length + 1));
  for (let i = written.length - 1; i >= 0; i--)
    for (let k = said.length - 1; k >= 0; k--)
      rows[i]![k] =
        written[i] === said[k] && written[i] !== ''
          ? rows[i + 1]![k + 1]! + 1
          : Math.max(rows[i + 1]![k]!, rows[i]![k + 1]!);
  const anchors = new Map<number, number>();
  for (let [i, k] = [0, 0]; i < written.length && k < said.length;) {
    if (written[i] === said[k] && written[i] !== '') anchors.set(i++, k++);
    else if (rows[i + 1]![k]! >= rows[i]![k + 1]!) i++;
    else k++;
  }
  return anchors;
}

function nearest(
  anchors: ReadonlyMap<number, number>,
  from: number,
  step: 1 | -1,
  end = 0
): number | null {
  for (let i = from + step; step < 0 ? i >= 0 : i < end; i += step) if (anchors.has(i)) return i;
  return null;
}
