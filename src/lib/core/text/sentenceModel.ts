import { addProduct, runGru, type GruTrace, type GruWeights } from './gru.ts';
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
  input: 28,
  /** Numbers in the state of each direction. */
  hidden: 28,
  /** Units between the states and the two answers. */
  joint: 28,
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
  vectors: Float64Array;
  /** tags × input */
  tags: Float64Array;
  /** common × input */
  common: Float64Array;
  forward: GruWeights;
  backward: GruWeights;
  /** joint × hidden for the state from the left, the same for that from the right, then biases */
  joint: Float64Array;
  /** 2 × joint, then two biases: end, comma */
  out: Float64Array;
  /** 2 × 2^bits */
  pairs: Float64Array;
}

/** A text as the model sees it. */
export interface Encoded {
  /** words × vector */
  vectors: Float64Array;
  tags: Uint8Array;
  /** Index among the common words, or -1. */
  common: Int16Array;
  /** Index of the first word that looks the same: what was computed for it serves again. */
  first: Int32Array;
  /** words × pairs: hashed pairs and triples around the joint after each word */
  pairs: Uint32Array;
}

export function encode(words: readonly string[]): Encoded {
  const tags = tagWords(words);
  const encoded: Encoded = {
    vectors: new Float64Array(words.length * SHAPE.vector),
    tags: Uint8Array.from(tags, (t) => Math.max(0, TAGS.indexOf(t))),
    common: new Int16Array(words.length),
    first: new Int32Array(words.length),
    pairs: pairsOf(words, tags)
  };
  const seen = new Map<string, number>();
  for (const [i, word] of words.entries()) {
    const look = `${word} ${tags[i]}`;
    const first = seen.get(look) ?? i;
    seen.set(look, first);
    encoded.first[i] = first;
    if (first < i) {
      encoded.common[i] = encoded.common[first] as number;
      continue;
    }
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

/** A text on its way through the model. */
export interface Pass {
  /** words × input */
  inputs: Float64Array;
  forward: GruTrace;
  backward: GruTrace;
}

/** Reads a text from both sides. */
export function readBothWays(text: Encoded, w: SentenceWeights): Pass {
  const { input, vector, hidden } = SHAPE;
  const count = text.tags.length;
  const inputs = new Float64Array(count * input);
  const gates = 3 * hidden;
  const sums = [new Float64Array(count * gates), new Float64Array(count * gates)] as const;
  for (let i = 0; i < count; i++) {
    const first = text.first[i] as number;
    if (first < i) {
      inputs.copyWithin(i * input, first * input, (first + 1) * input);
      for (const side of sums) side.copyWithin(i * gates, first * gates, (first + 1) * gates);
      continue;
    }
    const tag = (text.tags[i] as number) * input;
    const common = (text.common[i] as number) * input;
    for (let k = 0; k < input; k++) {
      const own = common >= 0 ? (w.common[common + k] as number) : 0;
      inputs[i * input + k] = (w.tags[tag + k] as number) + own;
    }
    addProduct(w.vectors, input, vector, text.vectors, i * vector, inputs, i * input);
    for (const [side, layer] of [w.forward, w.backward].entries()) {
      const sum = sums[side as 0 | 1];
      sum.set(layer.bias.subarray(0, gates), i * gates);
      addProduct(layer.input, gates, input, inputs, i * input, sum, i * gates);
    }
  }
  return {
    inputs,
    forward: runGru(sums[0], hidden, w.forward, false),
    backward: runGru(sums[1], hidden, w.backward, true)
  };
}

/** Fills the units of the joint after word `i` of a pass; what is below zero is cut (ReLU). */
export function jointUnits(pass: Pass, i: number, w: SentenceWeights, units: Float64Array): void {
  const { hidden, joint } = SHAPE;
  const size = joint * hidden;
  units.set(w.joint.subarray(2 * size));
  addProduct(w.joint, joint, hidden, pass.forward.states, i * hidden, units, 0);
  if ((i + 1) * hidden < pass.backward.states.length) {
    const right = w.joint.subarray(size, 2 * size);
    addProduct(right, joint, hidden, pass.backward.states, (i + 1) * hidden, units, 0);
  }
  for (let j = 0; j < joint; j++) if ((units[j] as number) < 0) units[j] = 0;
}

/** Log-odds of end (0) or comma (1) after word `i` of a text, given the units of its joint. */
export function logOdds(
  text: Encoded,
  i: number,
  w: SentenceWeights,
  units: Float64Array,
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
  const units = new Float64Array(SHAPE.joint);
  const pass = readBothWays(text, weights);
  for (let i = 0; i < words.length; i++) {
    jointUnits(pass, i, weights, units);
    odds.end[i] = logOdds(text, i, weights, units, 0);
    odds.comma[i] = logOdds(text, i, weights, units, 1);
  }
  return odds;
}
