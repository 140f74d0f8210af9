import type { Cue } from './cue.ts';
import { DROP_NOISE, type TidyOptions } from './tidyOptions.ts';
import { FILLERS } from '../lang/speech.ts';
import type { RawCaptions } from './webvtt.ts';
import { showSilences, spreadWords, wordsOfCue, type SpokenWord } from './words.ts';
import { bare } from '../text/bare.ts';

export type MendingKind =
  | 'unreadable-time'
  | 'unordered'
  | 'zero-length'
  | 'overlap'
  | 'rolling'
  | 'sound-note'
  | 'speaker'
  | 'filler'
  | 'stutter';

/** What was mended or recognised, how often, and the second where it first was. */
export interface Mending {
  kind: MendingKind;
  count: number;
  first: number;
}

export interface Spoken {
  words: SpokenWord[];
  /** Cues in order, without overlaps and repeats, as the words were said. */
  mended: Mending[];
  /** Words whose following word is said by someone else, by index. */
  turns: Set<number>;
}

const SOUND = /[[(][^\])]{1,60}[\])]|[♪♫#*]{1,2}[^♪♫*\n]{0,300}[♪♫*]{1,2}|[♪♫]+/gu;
const SOUND_WORDS =
  /\b(music|applause|laugh(s|ter|ing)?|inaudible|silence|noise|cheer(s|ing)?|cough(s|ing)?|sigh(s|ing)?|musik|gelächter|beifall|applaus|musique|rires|música|risas)\b|[♪♫]/iu;
/** Least length of a cue, in seconds. */
const MIN_SECONDS = 0.1;

/** Cues in words: ordered, mended, each word said once, and without what the options leave out. */
export function tidyCaptions(raw: RawCaptions, options: TidyOptions = DROP_NOISE): Spoken {
  const log = new Log();
  for (const line of raw.unreadable) log.add('unreadable-time', line);
  const cues = inOrder(raw.cues, log);
  const turns = new Set<number>();
  const shown: Shown[] = [];
  let speaker = '';
  for (const [index, cue] of cues.entries()) {
    const clean = withoutNotes(cue, options, log);
    const hasTurn = clean.hasTurn || (clean.speaker !== '' && clean.speaker !== speaker);
    if (clean.speaker) speaker = clean.speaker;
    shown.push({ cue: clean.cue, words: wordsOfCue(clean.cue, index), isTurn: hasTurn });
  }
  showSilences(
    shown.flatMap((s) => s.words),
    ({ cue }) => (shown[cue]?.cue.stamps?.length ?? 0) >= (shown[cue]?.words.length ?? 0) - 1
  );
  const words: SpokenWord[] = [];
  for (const [i, fresh] of withoutRepeats(shown, log).entries()) {
    if (shown[i]?.isTurn && words.length > 0) turns.add(words.length - 1);
    for (const word of fresh) addWord(words, word, options, log);
  }
  for (const [i, word] of words.entries()) {
    word.start = Math.max(word.start, words[i - 1]?.start ?? 0);
    const next = words[i + 1];
    word.end = Math.max(word.start, Math.min(word.end, next?.start ?? word.end));
  }
  return { words, mended: log.list(), turns };
}

/** A cue as it is shown: its words, and whether someone else begins to speak. */
interface Shown {
  cue: Cue;
  words: SpokenWord[];
  isTurn: boolean;
}

class Log {
  #found = new Map<MendingKind, Mending>();
  add(kind: MendingKind, at: number, count = 1): void {
    const known = this.#found.get(kind);
    if (known) known.count += count;
    else this.#found.set(kind, { kind, count, first: at });
  }
  list(): Mending[] {
    return [...this.#found.values()];
  }
}

function inOrder(raw: readonly Cue[], log: Log): Cue[] {
  for (const [i, cue] of raw.entries()) {
    if (cue.start < (raw[i - 1]?.start ?? 0)) log.add('unordered', cue.start);
  }
  const cues = raw
    .map((cue) => ({ ...cue }))
    .sort((a, b) => a.start - b.start || a.end - b.end)
    .filter((cue) => cue.text.trim());
  for (const [i, cue] of cues.entries()) {
    const next = cues[i + 1];
    if (cue.end <= cue.start) {
      log.add('zero-length', cue.start);
      cue.end = cue.start + Math.max(MIN_SECONDS, cue.text.length * 0.06);
      if (next && next.start > cue.start) cue.end = Math.min(cue.end, next.start);
    }
    if (next && next.start < cue.end) {
      log.add('overlap', cue.start);
      if (next.start - cue.start >= MIN_SECONDS) cue.end = next.start;
    }
  }
  return cues;
}

/** Takes sound notes and speaker marks out of a cue; stamps keep to their words. */
function withoutNotes(
  cue: Cue,
  options: TidyOptions,
  log: Log
): { cue: Cue; hasTurn: boolean; speaker: string } {
  let hasTurn = false;
  let speaker = cue.speaker ?? '';
  // What goes is blanked, not cut, so that the offsets of the stamps stay true.
  const blank = (found: string) => ' '.repeat(found.length);
  const text = cue.text
    .replace(SOUND, (found) => {
      if (!SOUND_WORDS.test(found) && !/^\[/.test(found)) return found;
      log.add('sound-note', cue.start);
      return options.soundNotes ? blank(found) : found;
    })
    .replace(/(^|\n|\s)(>{2,}|&gt;&gt;|[-–—](?=\s?\p{Lu}))/gu, (found) => {
      log.add('speaker', cue.start);
      hasTurn = true;
      return options.speakers ? blank(found) : found;
    })
    .replace(
      /(^|\n)[^\S\n]*([\p{Lu}][\p{Lu}\p{M}.' -]{1,24}):(?=\s)/gu,
      (found, _line, name: string) => {
        log.add('speaker', cue.start);
        hasTurn = true;
        speaker = name.trim();
        return options.speakers ? blank(found) : found;
      }
    );
  return { cue: { ...cue, text }, hasTurn, speaker };
}

/**
 * Rolling captions show again what the cue before showed. When a good part of the cues begin with
 * the end of the cue before, each such beginning is dropped; a lone repeat is really said.
 */
function withoutRepeats(shown: readonly Shown[], log: Log): SpokenWord[][] {
  const overlaps = shown.map(({ words }, i) => overlap(shown[i - 1]?.words ?? [], words));
  const rolling = overlaps.filter((n) => n > 0).length;
  if (rolling < 3 || rolling * 4 < shown.length) {
    // Without a pattern, only a cue shown again at once, word for word, is a repeat.
    return shown.map(({ words }, i) => {
      const before = shown[i - 1]?.words ?? [];
      const isAgain =
        words.length > 3 &&
        overlaps[i] === words.length &&
        before.length === words.length &&
        (words[0]?.start ?? 0) - (before.at(-1)?.end ?? 0) < 0.1;
      if (isAgain) log.add('rolling', words[0]?.start ?? 0);
      return isAgain ? [] : words;
    });
  }
  return shown.map(({ cue, words }, i) => {
    const n = overlaps[i] ?? 0;
    if (n === 0) return words;
    log.add('rolling', cue.start);
    const fresh = words.slice(n);
    if (cue.stamps) return fresh;
    // What was shown before takes no time now.
    const texts = fresh.map((word) => word.text);
    return spreadWords(texts, cue.start, cue.end, fresh[0]?.cue ?? 0);
  });
}

/** How many words at the end of one cue are the first words of the next. */
function overlap(before: readonly SpokenWord[], words: readonly SpokenWord[]): number {
  for (let n = Math.min(before.length, words.length); n > 0; n--) {
    const from = before.length - n;
    if (words.slice(0, n).every((w, i) => bare(w.text) === bare(before[from + i]?.text ?? ''))) {
      return n > 1 || words.length === 1 || before.length === 1 ? n : 0;
    }
  }
  return 0;
}

function addWord(words: SpokenWord[], word: SpokenWord, options: TidyOptions, log: Log): void {
  const said = bare(word.text);
  if (!said) {
    // A mark that stands alone belongs to the word before it.
    const last = words.at(-1);
    if (last && /[.!?…,;:–—-]/.test(word.text))
      last.text += /^[–—-]/.test(word.text) ? ` ${word.text}` : word.text;
    return;
  }
  if (FILLERS.has(said)) {
    log.add('filler', word.start);
    if (options.fillers) {
      keepStop(words, word);
      return;
    }
  }
  const last = words.at(-1);
  if (last && isStutter(bare(last.text), said, last.text)) {
    log.add('stutter', word.start);
    if (options.stutters) {
      words[words.length - 1] = { ...word, start: last.start };
      return;
    }
  }
  words.push({ ...word });
  const again = saidAgain(words);
  if (again > 0) {
    log.add('stutter', word.start, again);
    if (options.stutters) words.splice(words.length - 2 * again, again);
  }
}

/** How many words at the end repeat as many before them: "wind it, wind it in layers". */
function saidAgain(words: readonly SpokenWord[]): number {
  const last = bare(words.at(-1)?.text ?? '');
  for (let n = 4; n > 1; n--) {
    const from = words.length - 2 * n;
    if (from < 0 || bare(words[from + n - 1]?.text ?? '') !== last) continue;
    const before = words.slice(from, from + n);
    // What is said again after a stop is said on purpose, and so is counting.
    if (before.some((w) => /[.!?…]$/.test(w.text) || /^\p{N}/u.test(w.text))) continue;
    // "Over and over and under" is no stutter.
    if (before.some((w) => /^(?:and|or|by|und|oder)$/.test(bare(w.text)))) continue;
    if (before.every((w, k) => bare(w.text) === bare(words[from + n + k]?.text ?? ''))) return n;
  }
  return 0;
}

/** "Right um." becomes "Right.": the end of a sentence outlives its filler. */
function keepStop(words: SpokenWord[], filler: SpokenWord): void {
  const last = words.at(-1);
  const stop = /(?<![.!?…])[.!?…]+$/.exec(filler.text)?.[0];
  if (last && stop && !/[.!?…]$/.test(last.text)) last.text = last.text.replace(/,$/, '') + stop;
}

/** Small words that are really said twice are few; "that that" and "had had" are grammar. */
const TWICE = new Set(
  'that had is very so no yes bye really many much more again now over under back up down round'.split(
    ' '
  )
);

function isStutter(before: string, said: string, shown: string): boolean {
  if (/[.!?…]$/.test(shown)) return false;
  if (shown.endsWith('-') && said.startsWith(before)) return true;
  return before === said && !TWICE.has(said) && !/^\d/.test(said);
}
