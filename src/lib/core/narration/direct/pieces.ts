import { spokenSeconds } from '../duration.ts';
import { READABLE } from '../line.ts';
import type { Piece, SceneKind } from '../scenes.ts';
import { comparisonOf, halvesOf } from './comparison.ts';
import { figureIn } from './figure.ts';
import { gistOf, MOST_WORDS, phraseOf, type Phrase } from './gist.ts';
import { readSentence, type ReadSentence } from './sentence.ts';
import { termIn } from './term.ts';

/** Seconds of speech after which something else has to be seen. */
export const LONGEST_STILL = 7.5;
/** Share of a sentence before which a figure need not be waited for. */
const EARLY = 0.3;
/** Words of a gist of a stretch of a long sentence. */
const STRETCH_WORDS = 7;

const main = (phrase: Phrase, line: number): Piece => ({
  role: 'main',
  text: phrase.text,
  line,
  share: phrase.share
});

/** The gist of one line as pieces; of a long one, a gist of each stretch. None where no few words tell it. */
export function gistPieces(text: string, line: number, language: string): Piece[] {
  const sentence = readSentence(text, language);
  const whole = gistOf(sentence).map((phrase) => main(phrase, line));
  const seconds = spokenSeconds(text, language);
  const stillFor = (pieces: readonly Piece[]) =>
    longestStill(
      pieces.map((p) => ({ ...p, line: 0 })),
      [{ text, seconds }]
    );
  if (stillFor(whole) <= LONGEST_STILL) return whole;
  const least = Math.max(2, Math.ceil(seconds / LONGEST_STILL));
  let best: Piece[] = [];
  for (let count = least; count < least + TRIES; count++) {
    best = stretchesOf(sentence, count).flatMap(({ from, to }) => {
      const part = readSentence(text.slice(from, to), language);
      const phrases = gistOf(part, STRETCH_WORDS);
      // What no few words tell is shown as it is said.
      const shown = phrases.length > 0 ? phrases : [phraseOf(part, 0, part.words.length)];
      return shown.map((phrase, i) => ({
        ...main(phrase, line),
        share: (from + (i === 0 ? 0 : phrase.share) * (to - from)) / text.length
      }));
    });
    if (stillFor(best) <= LONGEST_STILL) break;
  }
  return best;
}
/** Numbers of stretches that are tried. */
const TRIES = 3;

/** What is shown last stays through the pause behind it. */
const PAUSE = 0.5;

/**
 * About the longest time that nothing new is shown of some lines, in seconds.
 * @param said of each line its text, and how long a voice takes for it; it stays until its caption can be read
 */
export function longestStill(
  pieces: readonly Piece[],
  said: readonly { text: string; seconds: number }[]
): number {
  const starts: number[] = [];
  let end = 0;
  for (const { text, seconds } of said) {
    starts.push(end);
    end += Math.max(seconds + PAUSE, text.length / READABLE);
  }
  const moments = pieces
    .slice(1)
    .map(({ line, share }) => (starts[line] ?? 0) + share * (said[line]?.seconds ?? 0));
  const all = [0, ...moments.sort((a, b) => a - b), end];
  return Math.max(...all.map((t, i) => t - (all[i - 1] ?? 0)));
}

/** A long sentence in so many stretches, cut at its commas where they are near. */
function stretchesOf({ text, words }: ReadSentence, count: number): { from: number; to: number }[] {
  const cuts = [0];
  for (let n = 1; n < count; n++) {
    const wanted = (text.length * n) / count;
    const [best] = words
      .slice(1)
      .map((word, i) => {
        const isAtMark = /[,;:–—]$/.test(words[i]!.text);
        return { from: word.from, off: Math.abs(word.from - wanted) - (isAtMark ? NEAR : 0) };
      })
      .sort((a, b) => a.off - b.off);
    if (best && best.from > cuts.at(-1)!) cuts.push(best.from);
  }
  return cuts.map((from, i) => ({ from, to: cuts[i + 1] ?? text.length }));
}
const NEAR = 25;

/**
 * What is shown of some lines in a kind of scene.
 * @param texts of the lines as they are written
 * @param language BCP 47
 * @returns null where the lines tell nothing of this kind
 */
export function piecesFor(
  kind: SceneKind,
  texts: readonly string[],
  language: string
): Piece[] | null {
  const [first = '', second = ''] = texts;
  switch (kind) {
    case 'figure': {
      const figure = texts.length === 1 ? figureIn(readSentence(first, language)) : null;
      if (!figure) return null;
      // A figure that comes early is seen from the start.
      const share = figure.share > EARLY ? figure.share : 0;
      return [
        { role: 'value', text: figure.value, line: 0, share },
        { role: 'unit', text: figure.unit, line: 0, share },
        { role: 'meaning', text: figure.meaning, line: 0, share: 0 }
      ];
    }
    case 'term': {
      const term = texts.length === 1 ? termIn(readSentence(first, language), language) : null;
      return (
        term && [
          { role: 'term', text: term.term, line: 0, share: 0 },
          { role: 'meaning', text: term.meaning, line: 0, share: term.share }
        ]
      );
    }
    case 'question': {
      if (texts.length !== 2 || !first.endsWith('?') || second.endsWith('?')) return null;
      const answer = gistOf(readSentence(second, language))
        .map((p) => p.text)
        .join(' · ');
      return [
        { role: 'question', text: first, line: 0, share: 0 },
        { role: 'answer', text: answer || second, line: 1, share: 0 }
      ];
    }
    case 'comparison': {
      const halves =
        texts.length === 1 ? halvesOf(readSentence(first, language)) : ([first, second] as const);
      if (!halves || texts.length > 2) return null;
      const [a, b] = halves.map((text) => readSentence(text, language));
      const share = texts.length === 1 ? first.indexOf(halves[1]) / first.length : 0;
      return (
        comparisonOf(a!, b!, language)?.flatMap(({ label, point }, side): Piece[] => {
          const at = texts.length === 1 ? { line: 0, share: side * share } : { line: side, share };
          return [
            { role: 'label', text: label, ...at },
            { role: 'point', text: point, ...at }
          ];
        }) ?? null
      );
    }
    case 'statement':
    case 'beside':
    case 'list':
    case 'steps': {
      const pieces = texts.map((text, line) => {
        const gist = gistPieces(text, line, language);
        // An item of a list is one line of it.
        return kind === 'list' || kind === 'steps' ? [joined(gist, text, line)] : gist;
      });
      return pieces.every((p) => p.length > 0) ? pieces.flat() : null;
    }
    default:
      return null;
  }
}

function joined(gist: readonly Piece[], text: string, line: number): Piece {
  const words = gist.map((p) => p.text).join(' · ');
  const isGist = words !== '' && words.split(' ').length <= MOST_WORDS + 2;
  return { role: 'main', text: isGist ? words : text.replace(/[.]$/, ''), line, share: 0 };
}
