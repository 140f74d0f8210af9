import { syllable } from 'syllable';

/** Seconds a syllable takes at the usual speed, measured on the voices that ship. */
const SYLLABLE = 0.188;
const UNSPACED = /[\u3040-\u30ff\u3400-\u9fff\u0e00-\u0eff\uac00-\ud7af]/g;
const UNSPACED_LETTER = 0.19;

/**
 * About how long a spoken text takes to say, in seconds, before it has been said.
 * @param speed 1 is the usual speed, 2 twice as fast
 */
export function spokenSeconds(spoken: string, language: string, speed = 1): number {
  if (!spoken) return 0;
  const unspaced = spoken.match(UNSPACED)?.length ?? 0;
  const spaced = spoken.replace(UNSPACED, ' ');
  const syllables = language.startsWith('en') ? syllable(spaced) : vowelGroups(spaced);
  const pauses = (spoken.match(/[,;:](?=\s)/g)?.length ?? 0) * 0.22;
  const stops = (spoken.match(/[.!?](?=\s)/g)?.length ?? 0) * 0.4;
  return (syllables * SYLLABLE + unspaced * UNSPACED_LETTER + pauses + stops + 0.1) / speed;
}

const vowelGroups = (text: string): number =>
  text
    .normalize('NFD')
    .toLowerCase()
    .match(/[aeiouyæœøıаеёиоуыэюяіїєαεηιουω]+\p{M}*/gu)?.length ?? text.split(/\s+/).length * 2;
