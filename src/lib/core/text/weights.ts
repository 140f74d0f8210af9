import { shortsOf } from './bytes.ts';
import { SHAPE, TAG_COUNT, type SentenceWeights } from './sentenceModel.ts';
import packed from './sentences.weights.json' with { type: 'json' };

const { input, hidden, joint } = SHAPE;
/** How many numbers each part of the model has. */
export const PARTS = {
  vectors: input * SHAPE.vector,
  tags: TAG_COUNT * input,
  common: SHAPE.common * input,
  forwardInput: 3 * hidden * input,
  forwardState: 3 * hidden * hidden,
  forwardBias: 4 * hidden,
  backwardInput: 3 * hidden * input,
  backwardState: 3 * hidden * hidden,
  backwardBias: 4 * hidden,
  joint: joint * (2 * hidden + 1),
  out: 2 * joint + 2,
  pairs: 2 << SHAPE.bits
};
export type Part = keyof typeof PARTS;

/** The parts of the model as it is run; nothing is copied. */
export const assemble = (parts: Record<Part, Float64Array>): SentenceWeights => ({
  vectors: parts.vectors,
  tags: parts.tags,
  common: parts.common,
  forward: { input: parts.forwardInput, state: parts.forwardState, bias: parts.forwardBias },
  backward: { input: parts.backwardInput, state: parts.backwardState, bias: parts.backwardBias },
  joint: parts.joint,
  out: parts.out,
  pairs: parts.pairs
});

/** Numbers in two bytes each (base64), to be multiplied by a scale. */
export interface Packed {
  data: string;
  scale: number;
}
export const unpack = ({ data, scale }: Packed): Float64Array =>
  Float64Array.from(shortsOf(data), (x) => x * scale);

/** A model from its file. */
export function readWeights(file: Record<Part, Packed>): SentenceWeights {
  const names = Object.keys(PARTS) as Part[];
  return assemble(
    Object.fromEntries(names.map((name) => [name, unpack(file[name])])) as Record<
      Part,
      Float64Array
    >
  );
}

let unpacked: SentenceWeights | null = null;

/** The weights that ship with the application. */
export function sentenceWeights(): SentenceWeights {
  return (unpacked ??= readWeights(packed));
}
