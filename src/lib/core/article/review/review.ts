import { syllable } from 'syllable';
import { usualRate } from '../../text/vectors.ts';
import { detectLanguage, languageOf, type Language } from '../../text/language.ts';
import { WORDY } from '../../lang/en/wordy.ts';
import { sentencesIn } from '../../text/sentencesIn.ts';
import { wordsOf } from '../../text/terms.ts';
import type { TextBlock } from '../../markup/textBlocks.ts';

/** Where a finding stands: which block, and which characters of its text. */
export interface Spot {
  block: number;
  from: number;
  to: number;
}

export type ReviewFinding =
  | { kind: 'word-often'; word: string; count: number; times: number; spots: Spot[] }
  | { kind: 'phrase-often'; phrase: string; count: number; spots: Spot[] }
  | { kind: 'sentences-open-alike'; opening: string; count: number; spots: Spot[] }
  | { kind: 'paragraphs-open-alike'; opening: string; count: number; spots: Spot[] }
  | { kind: 'sentence-long'; words: number; spots: Spot[] }
  | { kind: 'wordy'; phrase: string; instead: string; spots: Spot[] }
  | { kind: 'hard-to-read'; grade: number; spots: Spot[] };

export interface Review {
  findings: ReviewFinding[];
  words: number;
  sentences: number;
  /** Flesch reading ease, 0 to 100, the higher the easier; null where there is too little text. */
  ease: number | null;
  /** Flesch-Kincaid grade: years of school. Null for other languages than English. */
  grade: number | null;
}

const LONG_SENTENCE = 30;
const HARD_GRADE = 12;
/** A word is too often there from so many uses on, one in so many words, at so many times its usual rate. */
const OFTEN = { fewest: 4, apart: 120, times: 3, least: 0.3 };

/**
 * What a careful reader would mark: words and phrases said too often, openings alike, long
 * sentences, wordiness, and how hard the text reads (Flesch 1948; Kincaid and others 1975).
 * @param subject stems that the text is about, which may be said often
 */
export function reviewText(blocks: readonly TextBlock[], subject: readonly string[] = []): Review {
  const prose = blocks.flatMap((block, index) =>
    block.kind === 'code' ? [] : [{ ...block, index }]
  );
  const all = prose.map((b) => b.text).join('\n');
  const code = detectLanguage(all);
  const language = languageOf(code === 'und' ? 'en' : code);
  const sentences = prose.flatMap((block) =>
    sentencesIn(block.text).map((s) => ({ ...s, block: block.index, kind: block.kind }))
  );
  const read = sentences.filter((s) => s.kind !== 'heading');
  const words = read.flatMap((s) => wordsOf(s.text));
  const isEnglish = language.code === 'en';
  const { ease, grade } = readingEase(words, read.length, isEnglish);
  const headings = new Set(prose.filter((b) => b.kind === 'heading').map((b) => b.text));
  const spotOf = (s: { block: number; from: number; to: number }): Spot => ({
    block: s.block,
    from: s.from,
    to: s.to
  });
  const findings: ReviewFinding[] = [
    ...wordsOften(prose, words, language, new Set(subject)),
    // Headings say again what the text says, and the list of chapters says the headings again.
    ...phrasesOften(
      prose.filter((b) => b.kind !== 'heading' && !headings.has(b.text)),
      language,
      new Set(subject)
    ),
    ...opensAlike(read).map(([opening, same]) => ({
      kind: 'sentences-open-alike' as const,
      opening,
      count: same.length,
      spots: same.map(spotOf)
    })),
    ...paragraphsAlike(prose),
    ...read
      .map((s) => ({ s, words: wordsOf(s.text).length }))
      .filter(({ words: n }) => n > LONG_SENTENCE)
      .map(({ s, words: n }) => ({ kind: 'sentence-long' as const, words: n, spots: [spotOf(s)] })),
    ...(isEnglish ? wordiness(prose) : [])
  ];
  if (grade !== null && grade > HARD_GRADE)
    findings.push({ kind: 'hard-to-read', grade, spots: [] });
  return { findings, words: words.length, sentences: read.length, ease, grade };
}

type Prose = TextBlock & { index: number };

function readingEase(words: readonly string[], sentences: number, isEnglish: boolean) {
  if (words.length < 30 || sentences === 0) return { ease: null, grade: null };
  const perSentence = words.length / sentences;
  const vowels = (word: string) => word.match(/[aeiouyäöüáéíóúàèìòùâêîôû]+/g)?.length ?? 1;
  const syllables = words.reduce((n, w) => n + (isEnglish ? syllable(w) : vowels(w)), 0);
  const perWord = syllables / words.length;
  const round = (x: number) => Math.round(x * 10) / 10;
  return {
    ease: round(
      isEnglish
        ? 206.835 - 1.015 * perSentence - 84.6 * perWord
        : // Amstad's constants (1978), made for German and fair for languages with longer words.
          180 - perSentence - 58.5 * perWord
    ),
    grade: isEnglish ? round(0.39 * perSentence + 11.8 * perWord - 15.59) : null
  };
}

function wordsOften(
  prose: readonly Prose[],
  words: readonly string[],
  language: Language,
  subject: ReadonlySet<string>
): ReviewFinding[] {
  const counts = new Map<string, number>();
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  const usual = (word: string) =>
    language.code === 'en' ? Math.max(OFTEN.least, usualRate(word)) : OFTEN.least * 4;
  return [...counts]
    .filter(([word, count]) => {
      if (count < Math.max(OFTEN.fewest, words.length / OFTEN.apart) || /^\d/.test(word))
        return false;
      if (subject.has(language.stem(word)) || (language.stops.has(word) && !ADVERBS.has(word)))
        return false;
      return (count * 1000) / words.length > OFTEN.times * usual(word);
    })
    .map(([word, count]) => ({
      kind: 'word-often' as const,
      word,
      count,
      times: Math.round((count * 1000) / words.length / usual(word)),
      spots: spotsOf(prose, word)
    }))
    .sort((a, b) => b.count * Math.log(b.times + 1) - a.count * Math.log(a.times + 1))
    .slice(0, 12);
}

/** Small words that wear thin all the same. */
const ADVERBS = new Set('really just very quite actually basically simply little'.split(' '));

function spotsOf(prose: readonly Prose[], phrase: string): Spot[] {
  const escaped = phrase
    .replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
    .replace(/'/g, "['’]")
    .replace(/ /g, '\\s+');
  const pattern = new RegExp(`(?<![\\p{L}\\p{N}'’-])${escaped}(?![\\p{L}\\p{N}-])`, 'giu');
  return prose.flatMap(({ text, index }) =>
    [...text.matchAll(pattern)].map((m) => ({
      block: index,
      from: m.index,
      to: m.index + m[0].length
    }))
  );
}

function phrasesOften(
  prose: readonly Prose[],
  language: Language,
  subject: ReadonlySet<string>
): ReviewFinding[] {
  const counts = new Map<string, number>();
  for (const { text } of prose) {
    for (const sentence of sentencesIn(text)) {
      const words = wordsOf(sentence.text);
      for (const n of [3, 4, 5, 6, 7])
        for (let i = 0; i + n <= words.length; i++) {
          const phrase = words.slice(i, i + n);
          if (phrase.every((w) => language.stops.has(w))) continue;
          const telling = phrase.filter((w) => !language.stops.has(w));
          // A term of three words is the subject; what is said around it is manner.
          if (telling.length > 0 && telling.every((w) => subject.has(language.stem(w)))) continue;
          const key = phrase.join(' ');
          counts.set(key, (counts.get(key) ?? 0) + 1);
        }
    }
  }
  const often = [...counts]
    .filter(([, n]) => n >= 3)
    .sort((a, b) => b[1] - a[1] || b[0].length - a[0].length);
  return often
    .filter(([p, n]) => !often.some(([q, m]) => q !== p && q.includes(p) && m >= n))
    .slice(0, 8)
    .map(([phrase, count]) => ({
      kind: 'phrase-often' as const,
      phrase,
      count,
      spots: spotsOf(prose, phrase)
    }));
}

type Placed = { text: string; from: number; to: number; block: number };

/** Sentences in a row, or four in all, that begin with the same two words. */
function opensAlike(sentences: readonly Placed[]): [string, Placed[]][] {
  const byOpening = new Map<string, { s: Placed; at: number }[]>();
  for (const [at, s] of sentences.entries()) {
    const words = wordsOf(s.text);
    if (words.length < 4) continue;
    const opening = words.slice(0, 2).join(' ');
    byOpening.set(opening, [...(byOpening.get(opening) ?? []), { s, at }]);
  }
  return [...byOpening]
    .filter(([, same]) => {
      const runs = same.filter(({ at }, i) => at - (same[i - 1]?.at ?? -9) <= 1).length;
      return same.length >= 4 || runs >= 2;
    })
    .map(([opening, same]) => [opening, same.map(({ s }) => s)]);
}

function paragraphsAlike(prose: readonly Prose[]): ReviewFinding[] {
  const byOpening = new Map<string, Spot[]>();
  for (const { kind, text, index } of prose) {
    if (kind !== 'paragraph') continue;
    const match = /^\W*((?:[\p{L}\p{N}'’-]+\W+){2}[\p{L}\p{N}'’-]+)/u.exec(text);
    if (!match?.[1]) continue;
    const opening = wordsOf(match[1]).join(' ');
    const from = match[0].length - match[1].length;
    byOpening.set(opening, [
      ...(byOpening.get(opening) ?? []),
      { block: index, from, to: match[0].length }
    ]);
  }
  return [...byOpening]
    .filter(([, spots]) => spots.length > 1)
    .map(([opening, spots]) => ({
      kind: 'paragraphs-open-alike' as const,
      opening,
      count: spots.length,
      spots
    }));
}

const wordiness = (prose: readonly Prose[]): ReviewFinding[] =>
  WORDY.flatMap(([phrase, instead]) =>
    spotsOf(prose, phrase).map((spot) => ({
      kind: 'wordy' as const,
      phrase,
      instead,
      spots: [spot]
    }))
  );
