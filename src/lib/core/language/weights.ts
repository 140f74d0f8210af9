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

let unpacked: SentenceWeights | null = null;

/** The weights that ship with the application. */
export function sentenceWeights(): SentenceWeights {
  if (unpacked) return unpacked;
  const names = Object.keys(PARTS) as Part[];
  const entries = names.map((name) => {
    const { data, scale } = packed[name];
    return [name, Float64Array.from(shortsOf(data), (x) => x * scale)];
  });
  unpacked = assemble(Object.fromEntries(entries) as Record<Part, Float64Array>);
  return unpacked;
}
