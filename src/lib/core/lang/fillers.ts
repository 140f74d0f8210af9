import * as german from './de/speech.ts';
import * as english from './en/speech.ts';

/** Sounds that fill a pause, in whichever language. */
export const FILLERS: ReadonlySet<string> = new Set([...english.FILLERS, ...german.FILLERS, 'euh']);
