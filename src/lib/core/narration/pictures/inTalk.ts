import type { Cue } from '../../captions/cue.ts';
import { languageOf } from '../../text/language.ts';
import { contentStems, wordsOf } from '../../text/terms.ts';

/** A moment of a talk in which something is spoken of. */
export interface Moment {
  /** Seconds. */
  at: number;
  /** What is said around it. */
  words: string;
}

/** Seconds that are taken together. */
const STRETCH = 12;

/**
 * The stretch of a talk that is most about what a text is about.
 * @param language BCP 47
 * @returns null where it shares less than two words with any
 */
export function momentAbout(text: string, cues: readonly Cue[], language: string): Moment | null {
  const spoken = languageOf(language);
  const wanted = new Set(contentStems(wordsOf(text), spoken));
  let best: Moment | null = null;
  let most = 1;
  for (const [i, { start }] of cues.entries()) {
    const said: string[] = [];
    for (let k = i; k < cues.length && cues[k]!.start < start + STRETCH; k++)
      said.push(cues[k]!.text);
    const words = said.join(' ');
    const shared = new Set(contentStems(wordsOf(words), spoken).filter((s) => wanted.has(s))).size;
    if (shared <= most) continue;
    most = shared;
    // A little in, when what is told is being shown.
    best = { at: start + 1.5, words };
  }
  return best;
}
