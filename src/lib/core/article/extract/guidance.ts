import { writeSentence } from './spoken.ts';
import type { Talk } from '../../text/talk.ts';
import { estimateLength, LENGTH_NAMES, type LengthEstimate, type LengthName } from './length.ts';

export interface LengthGuide extends LengthEstimate {
  length: LengthName;
}

/** Why a length suits. */
export type LengthReason = 'little-said' | 'usual' | 'much-said' | 'mostly-speech';

export interface Guidance {
  talkWords: number;
  /** Words that would be worth writing: without greetings, calls and the like. */
  worthWords: number;
  /** Minutes that the talk takes. */
  talkMinutes: number;
  lengths: LengthGuide[];
  suits: LengthName;
  reason: LengthReason;
}

/** How long an article of this talk could be, and which length suits it. */
export function guideLength(talk: Talk): Guidance {
  const talkWords = talk.words.length;
  const worthWords = talk.sentences.reduce((sum, _, i) => {
    const written = writeSentence(talk, i);
    return sum + ('words' in written ? written.words.length : 0);
  }, 0);
  const lengths = LENGTH_NAMES.map((length) => ({
    length,
    ...estimateLength({ talkWords, worthWords }, length)
  }));
  const { suits, reason } = suitable(worthWords, talkWords);
  return {
    talkWords,
    worthWords,
    talkMinutes: ((talk.words.at(-1)?.end ?? 0) - (talk.words[0]?.start ?? 0)) / 60,
    lengths,
    suits,
    reason
  };
}

function suitable(worth: number, said: number): { suits: LengthName; reason: LengthReason } {
  // Below about 350 words a post hardly stands on its own, so nothing is given away.
  if (worth < 450) return { suits: 'long', reason: 'little-said' };
  if (worth > 4500) return { suits: 'short', reason: 'much-said' };
  if (worth < said * 0.5) return { suits: 'short', reason: 'mostly-speech' };
  return { suits: 'medium', reason: 'usual' };
}
