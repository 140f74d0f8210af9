import { contentStems, wordsOf } from '../text/terms.ts';
import type { Language } from '../text/language.ts';
import { addVector, rankOf, usualRate, VECTOR_SIZE } from '../text/vectors.ts';

/** What is known of the meaning that a link is for. */
export interface Meaning {
  /** Text in which the word has this meaning: what it means, a post about it, sentences that were linked. */
  here: string;
  /** Text in which it has another. */
  elsewhere: string;
}

export interface Sense {
  /** Whether the word means here what the link is for, as far as its neighbours tell. */
  isClear: boolean;
  /** Neighbours that stand in both texts, the rarest first. */
  shared: string[];
}

/** The first components tell grammar and rarity, not topics. */
const FROM = 3;
/** Likeness of two texts in topic from which on one speaks for the other; set on the tuning half of the bench. */
const ALIKE = 0.35;
/** Words up to this rank mean many things. */
const EVERYDAY = 6000;

/** Tells meanings apart; texts that are asked for again are read once. */
export class Senses {
  readonly #read = new Map<string, Read>();

  constructor(private readonly language: Language) {}

  /**
   * Tells by its neighbours whether a word means here what a link is for: by words that both texts have, and by
   * how alike their words are in topic (English alone).
   * @param word as it is written
   * @param neighbours the text around it
   */
  of(word: string, neighbours: string, { here, elsewhere }: Meaning): Sense {
    const [around, known, other] = [neighbours, here, elsewhere].map((text) =>
      without(this.#reading(text), word, this.language)
    ) as [Read, Read, Read];
    const shared = sharedBy(around, known);
    if (known.stems.size === 0 && other.stems.size === 0)
      return { isClear: !isEveryday(word), shared };
    const alike = likeness(around, known);
    const speaksFor = weightOf(shared) + alike;
    const speaksAgainst = weightOf(sharedBy(around, other)) + likeness(around, other);
    const isClear =
      (shared.length > 0 || alike >= ALIKE || known.stems.size === 0) && speaksFor >= speaksAgainst;
    return { isClear, shared };
  }

  #reading(text: string): Read {
    const known = this.#read.get(text) ?? read(text, this.language);
    this.#read.set(text, known);
    return known;
  }
}

/** Whether a word is in so common use that it may well mean something else; several words seldom do. */
function isEveryday(word: string): boolean {
  const words = wordsOf(word);
  const rank = words.length === 1 ? rankOf(words[0] ?? '') : null;
  return rank !== null && rank < EVERYDAY;
}

interface Read {
  /** A word by its stem. */
  stems: Map<string, string>;
  topic: Float64Array;
}

function read(text: string, language: Language): Read {
  const topic = new Float64Array(VECTOR_SIZE - FROM);
  const stems = new Map<string, string>();
  for (const word of wordsOf(text)) {
    const [stem] = contentStems([word], language);
    if (stem === undefined || stems.has(stem)) continue;
    stems.set(stem, word);
    addTopic(word, topic, 1, language);
  }
  return { stems, topic };
}

/** The same text without a word: it speaks for nothing itself. */
function without({ stems, topic }: Read, words: string, language: Language): Read {
  const left = { stems: new Map(stems), topic: topic.slice() };
  for (const stem of contentStems(wordsOf(words), language)) {
    const word = stems.get(stem);
    if (word === undefined || !left.stems.delete(stem)) continue;
    addTopic(word, left.topic, -1, language);
  }
  return left;
}

function addTopic(word: string, topic: Float64Array, sign: 1 | -1, language: Language): void {
  if (language.code === 'en') addVector(word, topic, sign * rarity(word), FROM, VECTOR_SIZE);
}

/** From 0 for words that stand in any text to 1 for rare ones. */
const rarity = (word: string): number =>
  Math.min(1, Math.max(0, Math.log10(0.5 / usualRate(word)) / 2));

/** Words that stand in any text speak for nothing. */
const TELLING = 0.15;

const sharedBy = (a: Read, b: Read): string[] =>
  [...a.stems]
    .filter(([stem, word]) => b.stems.has(stem) && rarity(word) >= TELLING)
    .map(([, word]) => word)
    .sort((x, y) => rarity(y) - rarity(x));

const weightOf = (words: readonly string[]): number =>
  words.reduce((sum, word) => sum + rarity(word), 0);

/** Cosine of the topics of two texts. */
function likeness(a: Read, b: Read): number {
  let [dot, aa, bb] = [0, 0, 0];
  for (let k = 0; k < a.topic.length; k++) {
    const [x, y] = [a.topic[k] ?? 0, b.topic[k] ?? 0];
    dot += x * y;
    aa += x * x;
    bb += y * y;
  }
  return aa > 0 && bb > 0 ? dot / Math.sqrt(aa * bb) : 0;
}
