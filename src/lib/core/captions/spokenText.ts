import type { Cue } from './cue.ts';
import { tidyCaptions } from './tidy.ts';

/** What is said in captions as one text, each word once, without sound notes and fillers. */
export const spokenText = (cues: readonly Cue[]): string =>
  tidyCaptions({ cues: [...cues], unreadable: [] })
    .words.map((word) => word.text)
    .join(' ');
