import type { Talk } from '../../text/talk.ts';
import type { WrittenWord } from './written.ts';

const list = (words: string): ReadonlySet<string> => new Set(words.trim().split(/\s+/));

/** Words on which no English clause ends: a comma after one of them breaks a thought off. */
const DANGLING = list(`
a an the my your our their to of and but or because so if when i we they i'm we're you're they're
he's she's it's there's i've we've you've they've i'll we'll you'll i'd we'd from into with at
`);
/** Most words of a false start that goes on otherwise. */
const SHORT = 4;
/** Words before a break among which the new start is looked for. */
const REACH = 7;

const BREAK = /(?:,|\.\.\.|…|—|–)$/;

/**
 * Cuts restarts to what was said last: "it's on the, it's in the menu" to "it's in the menu", "we're,
 * I'm putting it down" to "I'm putting it down".
 */
export function withoutRestarts(talk: Talk, words: readonly WrittenWord[]): WrittenWord[] {
  const kept = [...words];
  const plain = (i: number) => talk.plain[kept[i]?.at ?? -1] ?? '';
  for (let i = 0; i < kept.length - 1; i++) {
    const text = kept[i]?.text ?? '';
    if (!BREAK.test(text)) continue;
    const from = restartOf(kept, i, plain);
    if (from === null) continue;
    kept.splice(from, i + 1 - from);
    i = from - 1;
  }
  return kept;
}

/** Where a broken start begins that ends with the break after word `at`; null where nothing is broken. */
function restartOf(
  words: readonly WrittenWord[],
  at: number,
  plain: (i: number) => string
): number | null {
  const isDangling = DANGLING.has(plain(at)) || /(?:\.\.\.|…)$/.test(words[at]?.text ?? '');
  const next = plain(at + 1);
  let start = at;
  while (start > 0 && !/[,;:.…—–]$/.test(words[start - 1]?.text ?? '')) start--;
  // It begins again with the same words.
  const least = Math.max(start, at - REACH);
  for (let k = at; k >= least; k--) {
    if (plain(k) !== next) continue;
    const isSameStart = plain(k + 1) === plain(at + 2) && k + 1 <= at;
    // "When you lift it, you lift the beam" says two things.
    if (isDangling || (isSameStart && k === start && at - k < SHORT)) return k;
  }
  return isDangling && at - start < SHORT ? start : null;
}
