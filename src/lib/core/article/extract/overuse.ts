import type { Talk } from '../../text/talk.ts';
import { usualRate } from '../../text/vectors.ts';
import { bare } from '../../text/bare.ts';
import type { Candidate } from './candidate.ts';
import type { LeftOutReason, WrittenWord } from './written.ts';

/** Adverbs that can go without loss. */
const EMPTY_WORDS = new Set(
  'really just very quite actually simply basically literally definitely totally absolutely completely pretty certainly perhaps maybe always even also still already probably usually'.split(
    ' '
  )
);
/** A word is overused from so many uses on, when they are this many times its usual rate. */
const OVERUSE = { fewest: 4, times: 3 };

/**
 * Takes out adverbs, then the least telling sentences, where a word is used far too often.
 * @param steps indexes of sentences that stay, since others cannot be followed without them
 */
export function withoutOveruse(
  talk: Talk,
  chosen: Candidate[],
  subject: readonly string[],
  leftOut: Map<number, LeftOutReason>,
  steps: ReadonlySet<number> = new Set()
): Candidate[] {
  if (talk.language.code !== 'en') return chosen;
  const about = new Set(subject);
  let kept = chosen;
  for (let round = 0; round < 40; round++) {
    const word = overused(talk, kept, about)[0];
    if (!word) return kept;
    if (EMPTY_WORDS.has(word)) {
      kept = kept.map((c) => ({ ...c, words: withoutWord(c.words, word) }));
      continue;
    }
    const needed = new Set([
      ...steps,
      ...kept
        .filter((c, i) => c.dependsOnPrevious && kept[i - 1]?.index === c.index - 1)
        .map((c) => c.index - 1)
    ]);
    const users = kept
      .filter(
        (c) => c.words.some((w) => bare(w.text) === word) && !c.isKept && !needed.has(c.index)
      )
      .sort((a, b) => a.must - b.must);
    const worst = users[0];
    if (!worst) return kept;
    leftOut.set(worst.index, 'repeats');
    kept = kept.filter((c) => c !== worst);
  }
  return kept;
}

/** Words used far above their usual rate that the talk is not about, worst first. */
export function overused(
  talk: Pick<Talk, 'language'>,
  sentences: readonly { words: readonly WrittenWord[] }[],
  about: ReadonlySet<string>
): string[] {
  const counts = new Map<string, number>();
  let total = 0;
  for (const { words } of sentences)
    for (const w of words) {
      const word = bare(w.text);
      total++;
      // “going to” for “gonna” is a turn of speech and no word of its own.
      if (word && !word.includes(' ')) counts.set(word, (counts.get(word) ?? 0) + 1);
    }
  return [...counts]
    .filter(([word, n]) => {
      if (n < OVERUSE.fewest || about.has(talk.language.stem(word))) return false;
      // Pronouns, verbs and articles of speech are no fault of style.
      if (talk.language.stops.has(word) && !EMPTY_WORDS.has(word)) return false;
      return (n * 1000) / total > OVERUSE.times * Math.max(usualRate(word), 0.3);
    })
    .sort((a, b) => b[1] / usualRate(b[0]) - a[1] / usualRate(a[0]))
    .map(([word]) => word);
}

function withoutWord(words: WrittenWord[], word: string): WrittenWord[] {
  if (words.length < 5) return words;
  const kept = words.filter(
    (w, i) => bare(w.text) !== word || /[.!?,;:]$/.test(w.text) || i === words.length - 1
  );
  const first = kept[0];
  if (first && first !== words[0])
    kept[0] = { ...first, text: first.text.replace(/\p{L}/u, (c) => c.toUpperCase()) };
  return kept;
}
