import type { Scorer } from '../../text/scorer.ts';
import type { Trees } from '../../text/trees.ts';
import weights from './pairs.weights.json' with { type: 'json' };

/** What was learned on pairs: of each by itself, beside its rivals, and of what nobody was given. */
export interface PairModel {
  alone: Scorer;
  beside: Trees;
  leftOver: Scorer;
}
export const PAIR_MODEL: PairModel = weights;
