import { spokenSeconds } from '../duration.ts';
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
  const seconds = spokenSeconds(text, language);
  const whole = gistOf(sentence);
  if (seconds <= LONGEST_STILL || isSpread(whole, seconds))
    return whole.map((phrase) => main(phrase, line));
  const stretches = stretchesOf(sentence, Math.ceil(seconds / LONGEST_STILL));
  return stretches.flatMap(({ from, to }) => {
    const part = readSentence(text.slice(from, to), language);
    const phrases = gistOf(part, STRETCH_WORDS);
    // What no few words tell is shown as it is said.
    const shown = phrases.length > 0 ? phrases : [phraseOf(part, 0, part.words.length)];
    return shown.map((phrase, i) => ({
      ...main(phrase, line),
      share: (from + (i === 0 ? 0 : phrase.share) * (to - from)) / text.length
    }));
  });
}

/** Whether its phrases leave no stretch of the sentence without one. */
function isSpread(phrases: readonly Phrase[], seconds: number): boolean {
  const shares = [0, ...phrases.slice(1).map((p) => p.share), 1];
  return shares.every((share, i) => (share - (shares[i - 1] ?? 0)) * seconds <= LONGEST_STILL);
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
