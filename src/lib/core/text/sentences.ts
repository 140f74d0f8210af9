import { type SpokenWord } from '../captions/words.ts';
import { bare } from './bare.ts';
import type { Spoken } from '../captions/tidy.ts';
import { ALWAYS_CAPITAL } from '../lang/en/words.ts';
import { isAbbreviation } from '../lang/abbreviations.ts';
import { isQuestion } from './questions.ts';
import { scoreJoints, type SentenceWeights } from './sentenceModel.ts';
import { sentenceWeights } from './weights.ts';

/** A sentence with its seconds and its words: `from` up to, not including, `to`. */
export interface Sentence {
  start: number;
  end: number;
  text: string;
  from: number;
  to: number;
}

export interface Sentences {
  sentences: Sentence[];
  /** The words with the marks and capitals that were restored. */
  words: SpokenWord[];
  /** Whether the ends were found by the model, the captions having none. */
  isRestored: boolean;
}

/** Below this many sentence ends in a hundred words, captions count as unpunctuated. */
const MIN_STOPS = 2;
const STOP = /[.!?…。！？]["'”’»)\]]*$/;
/**
 * Joins words into sentences: by their punctuation where they have it. Where they have none, or
 * hardly any, the ends, commas at clear joints and capitals are restored: in English by a model
 * of words, parts of speech and pauses, in other languages by pauses and cues alone.
 * @param language ISO 639-1
 */
export function toSentences(
  { words, turns }: Spoken,
  language: string,
  model?: SentenceWeights
): Sentences {
  const stops = words.filter((w) => STOP.test(w.text)).length;
  const isRestored = words.length > 12 && stops * 100 < words.length * MIN_STOPS;
  const shown = isRestored ? restore(words, turns, language, model) : split(words, turns);
  let from = 0;
  const sentences = shown.map((texts) => {
    const to = from + texts.length;
    const sentence = {
      start: words[from]?.start ?? 0,
      end: words[to - 1]?.end ?? 0,
      text: joined(texts),
      from,
      to
    };
    from = to;
    return sentence;
  });
  const texts = shown.flat();
  return {
    sentences,
    words: words.map((word, i) => ({ ...word, text: texts[i] ?? word.text })),
    isRestored
  };
}

/** Between characters of scripts that have no spaces, the joint of two cues is none either. */
const joined = (texts: readonly string[]): string =>
  texts
    .join(' ')
    .replace(
      /(?<=[\u3001-\u30ff\u3400-\u9fff\uff01-\uff60]) (?=[\u3001-\u30ff\u3400-\u9fff\uff01-\uff60])/g,
      ''
    );

function split(words: readonly SpokenWord[], turns: ReadonlySet<number>): string[][] {
  const sentences: string[][] = [];
  let open: string[] = [];
  const hasCapitals = words.some((w) => /^\p{Lu}/u.test(w.text));
  for (const [i, word] of words.entries()) {
    open.push(word.text);
    const next = words[i + 1]?.text ?? '';
    const isStop =
      STOP.test(word.text) &&
      !isAbbreviation(word.text, next) &&
      !(
        hasCapitals &&
        /^\p{Ll}/u.test(next) &&
        !/[!?]/.test(word.text) &&
        /\.\.|…/.test(word.text)
      );
    const pause = (words[i + 1]?.start ?? 0) - word.end;
    // Someone else speaks, or a stretch without stops is left hanging before a long silence.
    const isBreak =
      turns.has(i) || (pause > 4 && /^\p{Lu}/u.test(next)) || open.length >= MAX_WORDS;
    if (isStop || isBreak || i === words.length - 1) {
      sentences.push(open);
      open = [];
    }
  }
  return sentences;
}

const MAX_WORDS = 90;

function restore(
  words: readonly SpokenWord[],
  turns: ReadonlySet<number>,
  language: string,
  model = language === 'en' ? sentenceWeights() : undefined
): string[][] {
  const isEnglish = language === 'en';
  const plain = words.map((w) => bare(w.text));
  const odds = isEnglish && model ? scoreJoints(plain, model) : null;
  const pauses = pauseOdds(words);
  const heard = words.map((_, i) => (pauses[i] ?? 0) + (odds ? (odds.end[i] ?? 0) + SPOKEN : -1));
  const lines = lineOdds(words, heard, isEnglish);
  const scores = words.map((word, i) => {
    if (STOP.test(word.text) && !isAbbreviation(word.text, words[i + 1]?.text ?? '')) return 8;
    return turns.has(i) ? 6 : (heard[i] ?? 0) + (lines[i] ?? 0);
  });
  const ends = bestEnds(scores, isEnglish ? ENGLISH_LENGTH : OTHER_LENGTH);
  const isShouted = isAllCapitals(words);
  const sentences: string[][] = [];
  let from = 0;
  for (const to of ends) {
    const texts = words.slice(from, to).map((w) => (isShouted ? w.text.toLowerCase() : w.text));
    const commas = texts.map(
      (_, k) => (odds?.comma[from + k] ?? -9) > COMMA && k < texts.length - 1
    );
    sentences.push(written(texts, plain.slice(from, to), commas, isEnglish));
    from = to;
  }
  return sentences;
}

/** Log-odds above which a comma is set: only at joints that are clear. */
const COMMA = -0.25;

/** Sentences are shorter when spoken than in the writing that most of the model was learned from. */
const SPOKEN = 0.9;

/**
 * What the end of a cue adds to the log-odds of a sentence end: much where captions are broken by
 * sense, nothing where they are broken by length. Which it is shows in how likely ends are there
 * without it.
 */
function lineOdds(
  words: readonly SpokenWord[],
  heard: readonly number[],
  isEnglish: boolean
): number[] {
  const isLineEnd = words.map((w, i) => words[i + 1]?.cue !== w.cue);
  if (!isEnglish) return isLineEnd.map((yes) => (yes ? 0.5 : -1.5));
  const chance = heard.map((x) => 1 / (1 + Math.exp(-x)));
  const mean = (wanted: boolean) => {
    const of = chance.filter((_, i) => isLineEnd[i] === wanted);
    return (of.reduce((sum, x) => sum + x, 0) + 0.1) / (of.length + 1);
  };
  const [there, elsewhere] = [mean(true), mean(false)];
  const clear = Math.max(0, Math.log(there / elsewhere) - LINE.chance);
  return isLineEnd.map((yes) => Math.min(LINE.most, clear) * (yes ? LINE.at : -LINE.inside));
}
const LINE = { chance: 0.35, most: 2.5, at: 0.7, inside: 0.5 };

/** What silence after a word adds to the log-odds of a sentence end. */
function pauseOdds(words: readonly SpokenWord[]): number[] {
  const gaps = words.map((w, i) => Math.max(0, (words[i + 1]?.start ?? w.end) - w.end));
  const paused = gaps.filter((g) => g > 0.15).length / Math.max(1, gaps.length);
  // Captions without gaps say nothing of pauses; in those with some, a word run on is evidence.
  const runOn = paused > 0.02 && paused < 0.35 ? -0.8 : 0;
  return gaps.map((g) => (g > 1.5 ? 3.5 : g > 0.7 ? 2.6 : g > 0.35 ? 1.8 : g > 0.15 ? 0.9 : runOn));
}

/** Log prior of a sentence by its length in words. */
type LengthPrior = (length: number) => number;
const ENGLISH_LENGTH: LengthPrior = (n) =>
  (n === 1 ? -1.6 : n === 2 ? -0.8 : 0) - Math.max(0, n - 28) * 0.12;
const OTHER_LENGTH: LengthPrior = (n) => -((Math.log(n / 14) / 0.6) ** 2) / 2 + 1.2;

/** Where sentences end, so that the sum of the scores at the ends and of the priors is greatest. */
function bestEnds(scores: readonly number[], prior: LengthPrior): number[] {
  const n = scores.length;
  const best = new Float64Array(n + 1).fill(-Infinity);
  const from = new Int32Array(n + 1);
  best[0] = 0;
  for (let to = 1; to <= n; to++) {
    const atEnd = to === n ? 0 : (scores[to - 1] ?? 0);
    for (let start = Math.max(0, to - MAX_WORDS); start < to; start++) {
      const sum = (best[start] ?? 0) + atEnd + prior(to - start);
      if (sum > (best[to] ?? -Infinity)) {
        best[to] = sum;
        from[to] = start;
      }
    }
  }
  const ends: number[] = [];
  for (let to = n; to > 0; to = from[to] ?? 0) ends.push(to);
  return ends.reverse();
}

function isAllCapitals(words: readonly SpokenWord[]): boolean {
  const letters = words
    .slice(0, 400)
    .map((w) => w.text)
    .join('');
  const capitals = letters.match(/\p{Lu}/gu)?.length ?? 0;
  return capitals > 4 * (letters.match(/\p{Ll}/gu)?.length ?? 0);
}

/** Words as one writes them: commas, a capital at the head, a mark at the end. */
function written(
  texts: string[],
  plain: string[],
  commas: boolean[],
  isEnglish: boolean
): string[] {
  return texts.map((text, k) => {
    let shown = text;
    if (isEnglish && (/^i(?:'|’|$)/.test(text) || ALWAYS_CAPITAL.has(plain[k] ?? ''))) {
      shown = capital(shown);
    }
    if (k === 0) shown = capital(shown);
    if (commas[k] && !/[,;:.!?…–—-]$/.test(shown)) shown += ',';
    if (k === texts.length - 1 && !STOP.test(shown)) {
      const mark = isEnglish && isQuestion(plain.filter(Boolean)) ? '?' : '.';
      shown = shown.replace(/(?<![,;:–—-])[,;:–—-]+$/, '') + mark;
    }
    return shown;
  });
}

const capital = (word: string): string => word.replace(/\p{L}/u, (c) => c.toUpperCase());
