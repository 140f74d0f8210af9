import { dotRows, runGru, type GruTrace, type GruWeights } from './gru.ts';
import { tagWords } from './tag.ts';
import { addVector, rankOf } from './vectors.ts';

/** What may stand after each word. */
export interface JointOdds {
  /** Log-odds that a sentence ends after the word. */
  end: Float32Array;
  /** Log-odds that a comma stands there, when no sentence ends. */
  comma: Float32Array;
}

export const SHAPE = {
  /** Components of a word's vector that are looked at. */
  vector: 32,
  /** The commonest words, each with weights of its own. */
  common: 600,
  /** Numbers that a word becomes. */
  input: 40,
  /** Numbers in the state of each direction. */
  hidden: 40,
  /** Units between the states and the two answers. */
  joint: 40,
  /** Log2 of the number of weights for pairs and triples of words and tags. */
  bits: 16,
  pairs: 11
};
const TAGS =
  'ADJ ADP ADV AUX CCONJ DET INTJ NOUN NUM PART PRON PROPN PUNCT SCONJ SYM VERB X SPACE'.split(' ');
export const TAG_COUNT = TAGS.length;

/**
 * Words become numbers by their vectors, parts of speech and, where common, of their own; two
 * recurrent layers read them from both sides; a joint is judged by the state that comes to it from
 * the left and that from the right, beside a linear model of pairs and triples.
 */
export interface SentenceWeights {
  /** input × vector */
  vectors: Float32Array;
  /** tags × input */
  tags: Float32Array;
  /** common × input */
  common: Float32Array;
  forward: GruWeights;
  backward: GruWeights;
  /** joint × 2·hidden, then joint biases */
  joint: Float32Array;
  /** 2 × joint, then two biases: end, comma */
  out: Float32Array;
  /** 2 × 2^bits */
  pairs: Float32Array;
}

/** A text as the model sees it. */
export interface Encoded {
  /** words × vector */
  vectors: Float32Array;
  tags: Uint8Array;
  /** Index among the common words, or -1. */
  common: Int16Array;
  /** words × pairs: hashed pairs and triples around the joint after each word */
  pairs: Uint32Array;
}

export function encode(words: readonly string[]): Encoded {
  const tags = tagWords(words);
  const encoded: Encoded = {
    vectors: new Float32Array(words.length * SHAPE.vector),
    tags: Uint8Array.from(tags, (t) => Math.max(0, TAGS.indexOf(t))),
    common: new Int16Array(words.length),
    pairs: pairsOf(words, tags)
  };
  for (const [i, word] of words.entries()) {
    const row = encoded.vectors.subarray(i * SHAPE.vector, (i + 1) * SHAPE.vector);
    addVector(word, row, 3, 0, SHAPE.vector);
    const rank = rankOf(word);
    encoded.common[i] = rank !== null && rank < SHAPE.common ? rank : -1;
  }
  return encoded;
}

function pairsOf(words: readonly string[], tags: readonly string[]): Uint32Array {
  const mask = (1 << SHAPE.bits) - 1;
  const hashes = new Uint32Array(words.length * SHAPE.pairs);
  const word = (i: number) => words[i] ?? '#';
  const tag = (i: number) => tags[i] ?? '#';
  for (let i = 0; i < words.length; i++) {
    const [a, b, c, d] = [word(i - 1), word(i), word(i + 1), word(i + 2)];
    const [p, q, r, s, t] = [tag(i - 1), tag(i), tag(i + 1), tag(i + 2), tag(i + 3)];
    const parts = [
      `${b} ${c}`,
      `${a} ${b}`,
      `${c} ${d}`,
      `${q} ${r} ${s}`,
      `${p} ${q} ${r}`,
      `${p} ${q} ${r} ${s}`,
      `${q} ${r} ${s} ${t}`,
      `${q} ${c}`,
      `${b} ${r}`,
      `${q} ${c} ${s}`,
      `${b.slice(-3)} ${c}`
    ];
    for (let k = 0; k < SHAPE.pairs; k++) {
      hashes[i * SHAPE.pairs + k] = hash(`${k} ${parts[k]}`) & mask;
    }
  }
  return hashes;
}

/** FNV-1a, 32 bits, over UTF-16 units, with a last mixing. */
function hash(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  h ^= h >>> 15;
  return (Math.imul(h, 0x2c1b3c6d) ^ (h >>> 12)) >>> 0;
}

/** A stretch of a text on its way through the model. */
export interface Pass {
  inputs: Float32Array;
  forward: GruTrace;
  backward: GruTrace;
}

/** Reads words `from` up to, not including, `to` from both sides. */
export function readBothWays(text: Encoded, from: number, to: number, w: SentenceWeights): Pass {
  const { input, vector, hidden } = SHAPE;
  const inputs = new Float32Array((to - from) * input);
  for (let i = from; i < to; i++) {
    const row = inputs.subarray((i - from) * input, (i - from + 1) * input);
    const tag = (text.tags[i] as number) * input;
    const common = (text.common[i] as number) * input;
    for (let k = 0; k < input; k++) {
      let sum = w.tags[tag + k] as number;
      if (common >= 0) sum += w.common[common + k] as number;
      sum += dotRows(w.vectors, k * vector, text.vectors, i * vector, vector);
      row[k] = sum;
    }
  }
  return {
    inputs,
    forward: runGru(inputs, input, hidden, w.forward, false),
    backward: runGru(inputs, input, hidden, w.backward, true)
  };
}

/** Fills the units of the joint after word `i` of a pass; what is below zero is cut (ReLU). */
export function jointUnits(pass: Pass, i: number, w: SentenceWeights, units: Float32Array): void {
  const { hidden, joint } = SHAPE;
  const isLast = (i + 1) * hidden >= pass.backward.states.length;
  for (let j = 0; j < joint; j++) {
    const row = j * 2 * hidden;
    let sum = w.joint[joint * 2 * hidden + j] as number;
    sum += dotRows(w.joint, row, pass.forward.states, i * hidden, hidden);
    if (!isLast)
      sum += dotRows(w.joint, row + hidden, pass.backward.states, (i + 1) * hidden, hidden);
    units[j] = sum > 0 ? sum : 0;
  }
}

/** Log-odds of end (0) or comma (1) after word `i` of a text, given the units of its joint. */
export function logOdds(
  text: Encoded,
  i: number,
  w: SentenceWeights,
  units: Float32Array,
  which: 0 | 1
): number {
  const { joint, bits, pairs } = SHAPE;
  let sum = w.out[2 * joint + which] as number;
  for (let j = 0; j < joint; j++)
    sum += (units[j] as number) * (w.out[which * joint + j] as number);
  const side = which << bits;
  for (let k = i * pairs; k < (i + 1) * pairs; k++)
    sum += w.pairs[side + (text.pairs[k] as number)] as number;
  return sum;
}

/** Scores every joint of English words given in lower case without punctuation. */
export function scoreJoints(words: readonly string[], weights: SentenceWeights): JointOdds {
  const text = encode(words);
  const odds = { end: new Float32Array(words.length), comma: new Float32Array(words.length) };
  const units = new Float32Array(SHAPE.joint);
  const pass = readBothWays(text, 0, words.length, weights);
  for (let i = 0; i < words.length; i++) {
    jointUnits(pass, i, weights, units);
    odds.end[i] = logOdds(text, i, weights, units, 0);
    odds.comma[i] = logOdds(text, i, weights, units, 1);
  }
  return odds;
}
