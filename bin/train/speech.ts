/**
 * Unscripted talks with an editor's judgements, written for this project (bin/train/speech): read, turned
 * into captions as they come from the world, and parted for cross-validation. Forty-four are for learning
 * and measuring; those in `further/`, by another hand, are only learned from.
 */
import { readFileSync, readdirSync } from 'node:fs';
import type { ReadCaptions } from '../../src/lib/core/captions/read.ts';
import { readCaptions } from '../../src/lib/core/captions/read.ts';

const FOLDER = new URL('./speech/', import.meta.url);

/** A word as it is truly said, in seconds. */
interface TrueWord {
  text: string;
  start: number;
  end: number;
}

/** K must stand in an article of a third of the length, O may, D must not. */
export type Letter = 'K' | 'O' | 'D';

export interface LabelledTalk {
  name: string;
  title: string;
  words: TrueWord[];
  /** Index of the word after each sentence. */
  ends: number[];
  /** Where an editor's chapters begin; the first at 0. */
  chapters: { start: number; title: string }[];
  letters: Letter[];
  /** Indexes of the sentences that bear each takeaway out. */
  takeaways: number[][];
}

/**
 * `clean`: with marks, broken by sense. `words`: a time for every word, no marks. `gapless`: lines that
 * follow each other at once. `even`: times spread evenly over half a minute.
 */
export type CaptionKind = 'clean' | 'words' | 'gapless' | 'even';
export const CAPTION_KINDS: readonly CaptionKind[] = ['clean', 'words', 'gapless', 'even'];

/** The talks that are measured on, by name. */
export const labelledTalks = (): LabelledTalk[] => readFolder(FOLDER);

/** Talks that are only learned from. */
export const furtherTalks = (): LabelledTalk[] => readFolder(new URL('further/', FOLDER));

const readFolder = (folder: URL): LabelledTalk[] =>
  readdirSync(new URL('talks/', folder))
    .sort()
    .map((file) => readLabelled(file.replace('.txt', ''), folder));

/** The n-th of so many parts of the talks, and the others. Talks of one writer are spread over all parts. */
export function fold<T>(talks: readonly T[], n: number, of: number): { held: T[]; others: T[] } {
  return {
    held: talks.filter((_, i) => i % of === n),
    others: talks.filter((_, i) => i % of !== n)
  };
}

const SENTENCE_END = /[.?!…]["”')]*$/;
const BROKEN_OFF = /\.\.\.$/;

/** mulberry32 over a talk's name: the same times at every reading. */
function chanceOf(name: string): () => number {
  let state = [...name].reduce((a, c) => (a * 31 + c.charCodeAt(0)) | 0, 7919);
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Times are a model of speech: a speaker's rate, pauses at some sentence ends, hesitations. */
function readLabelled(name: string, folder: URL): LabelledTalk {
  const chance = chanceOf(name);
  const normal = () => Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance());
  const lognormal = (median: number, spread: number) => median * Math.exp(spread * normal());
  const text = readFileSync(new URL(`talks/${name}.txt`, folder), 'utf8').split('\n');
  const judged = JSON.parse(readFileSync(new URL(`labels/${name}.json`, folder), 'utf8')) as {
    labels: string;
    takeaways: { from: number[] }[];
  };
  const talk: LabelledTalk = {
    name,
    title: (text[0] ?? '').replace(/^% /, '').split(' | ')[0] ?? '',
    words: [],
    ends: [],
    chapters: [],
    letters: [...judged.labels] as Letter[],
    takeaways: judged.takeaways.map((t) => t.from)
  };
  const rate = 2.35 + 0.6 * chance();
  const runOn = 0.25 + 0.35 * chance();
  let t = 0.4 + chance();
  let heading: string | null = null;
  for (const line of text) {
    if (line.startsWith('%')) continue;
    if (line.startsWith('# ')) heading = line.slice(2).trim();
    else
      for (const token of line.trim().split(/\s+/).filter(Boolean)) {
        if (token === '[pause]') t += 1.1 + 2 * chance();
        if (!/[\p{L}\p{N}]/u.test(token) || token === '[pause]') continue;
        const letters = token.replace(/[^\p{L}\p{N}]/gu, '').length;
        const length = ((0.35 + 0.65 * (letters / 4.2)) / rate) * Math.exp(0.18 * normal());
        if (heading !== null) {
          const isFirst = talk.chapters.length === 0;
          if (!isFirst && chance() < 0.5) t += lognormal(0.5, 0.6);
          talk.chapters.push({ start: isFirst ? 0 : t, title: heading });
          heading = null;
        }
        talk.words.push({ text: token, start: t, end: t + length });
        t += length;
        if (SENTENCE_END.test(token) && !BROKEN_OFF.test(token)) {
          talk.ends.push(talk.words.length);
          if (chance() > runOn) t += lognormal(0.38, 0.6);
        } else if (/(?:,|;|:|\.\.\.)["”')]*$/.test(token)) {
          if (chance() < 0.35) t += lognormal(0.22, 0.5);
        } else if (chance() < 0.035) t += lognormal(0.35, 0.7);
      }
  }
  // The last thought may be broken off.
  if (talk.ends.at(-1) !== talk.words.length) talk.ends.push(talk.words.length);
  return talk;
}

const clock = (seconds: number): string => {
  const ms = Math.round(seconds * 1000);
  const two = (n: number, size = 2) => String(n).padStart(size, '0');
  return `${two(Math.floor(ms / 3_600_000))}:${two(Math.floor(ms / 60_000) % 60)}:${two(Math.floor(ms / 1000) % 60)}.${two(ms % 1000, 3)}`;
};
const unmarked = (word: string): string => word.toLowerCase().replace(/[.,?!;:…"“”()]/g, '');

/** The captions of a talk, of one kind. */
export function captionsAs(talk: LabelledTalk, kind: CaptionKind): ReadCaptions {
  const lines = kind === 'clean' ? bySense(talk.words) : byChance(talk);
  const shown = kind === 'even' ? evened(talk.words) : lines;
  const cues = shown.map((line, i) => {
    const first = line[0]!;
    const isRunOn = kind === 'words' || kind === 'gapless';
    const end = (isRunOn && shown[i + 1]?.[0]?.start) || line.at(-1)!.end;
    const text = line
      .map((w, k) => {
        if (kind === 'clean') return w.text;
        return kind === 'words' && k > 0
          ? `<${clock(w.start)}><c>${unmarked(w.text)}</c>`
          : unmarked(w.text);
      })
      .join(' ');
    return `${clock(first.start)} --> ${clock(Math.max(end, first.start + 0.05))}\n${text}\n`;
  });
  return readCaptions(`WEBVTT\n\n${cues.join('\n')}`, 'vtt');
}

function bySense(words: readonly TrueWord[]): TrueWord[][] {
  const lines: TrueWord[][] = [];
  for (let i = 0; i < words.length;) {
    let n = 1;
    for (; n < 14 && i + n < words.length; n++) {
      const last = words[i + n - 1]!;
      if (/[.?!]["”')]*$/.test(last.text) && n > 2) break;
      if (last.text.endsWith(',') && n > 6) break;
      if (words[i + n]!.start - last.end > 0.8) break;
    }
    lines.push(words.slice(i, i + n));
    i += n;
  }
  return lines;
}

/** Three to nine words, wherever they stand. */
function byChance({ name, words }: LabelledTalk): TrueWord[][] {
  const chance = chanceOf(`${name} lines`);
  const lines: TrueWord[][] = [];
  for (let i = 0; i < words.length;) {
    const n = 3 + Math.floor(7 * chance());
    lines.push(words.slice(i, i + n));
    i += n;
  }
  return lines;
}

function evened(words: readonly TrueWord[]): TrueWord[][] {
  const spread: TrueWord[] = [];
  for (let i = 0, j = 0; i < words.length; i = j) {
    const from = words[i]!.start;
    while (j < words.length && words[j]!.start - from < 26) j++;
    const step = ((words[j]?.start ?? words[j - 1]!.end) - from) / (j - i);
    for (let k = i; k < j; k++)
      spread.push({
        text: words[k]!.text,
        start: from + step * (k - i),
        end: from + step * (k - i + 1)
      });
  }
  return Array.from({ length: Math.ceil(spread.length / 8) }, (_, k) =>
    spread.slice(k * 8, k * 8 + 8)
  );
}
