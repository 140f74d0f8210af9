/** Weights of a gated recurrent layer (Cho and others 2014), gates in the order reset, update, new. */
export interface GruWeights {
  /** 3·hidden × input */
  input: Float32Array;
  /** 3·hidden × hidden */
  state: Float32Array;
  /** 3·hidden for the input side, then hidden for the state side of the new value. */
  bias: Float32Array;
}

/**
 * Product of two rows of `n` numbers, `n` a multiple of four. Four sums at a time, because each
 * addition waits for the one before it.
 */
export function dotRows(
  a: Float32Array,
  at: number,
  b: Float32Array,
  from: number,
  n: number
): number {
  let [p, q, r, s] = [0, 0, 0, 0];
  for (let k = 0; k < n; k += 4) {
    p += (a[at + k] as number) * (b[from + k] as number);
    q += (a[at + k + 1] as number) * (b[from + k + 1] as number);
    r += (a[at + k + 2] as number) * (b[from + k + 2] as number);
    s += (a[at + k + 3] as number) * (b[from + k + 3] as number);
  }
  return p + q + r + s;
}

/** What a run leaves behind for learning: one row a step. */
export interface GruTrace {
  /** steps × hidden */
  states: Float32Array;
  /** steps × 4·hidden: reset, update, new, and the state's side of the new value */
  gates: Float32Array;
}

/**
 * Runs the layer over rows of inputs, forwards or backwards; each step's state stands in its row.
 * @param inputs steps × size
 */
export function runGru(
  inputs: Float32Array,
  size: number,
  hidden: number,
  weights: GruWeights,
  isBackward: boolean
): GruTrace {
  const steps = inputs.length / size;
  const states = new Float32Array(steps * hidden);
  const gates = new Float32Array(steps * 4 * hidden);
  const { input, state, bias } = weights;
  const sums = new Float32Array(3 * hidden);
  const fromState = new Float32Array(3 * hidden);
  let before = 0;
  for (let n = 0; n < steps; n++) {
    const t = isBackward ? steps - 1 - n : n;
    const x = t * size;
    for (let g = 0; g < 3 * hidden; g++) {
      sums[g] = (bias[g] as number) + dotRows(input, g * size, inputs, x, size);
      fromState[g] = n === 0 ? 0 : dotRows(state, g * hidden, states, before, hidden);
    }
    const now = t * hidden;
    const gate = t * 4 * hidden;
    for (let h = 0; h < hidden; h++) {
      const reset = 1 / (1 + Math.exp(-((sums[h] as number) + (fromState[h] as number))));
      const update =
        1 / (1 + Math.exp(-((sums[hidden + h] as number) + (fromState[hidden + h] as number))));
      const side = (fromState[2 * hidden + h] as number) + (bias[3 * hidden + h] as number);
      const fresh = Math.tanh((sums[2 * hidden + h] as number) + reset * side);
      const kept = n === 0 ? 0 : (states[before + h] as number);
      states[now + h] = (1 - update) * fresh + update * kept;
      gates[gate + h] = reset;
      gates[gate + hidden + h] = update;
      gates[gate + 2 * hidden + h] = fresh;
      gates[gate + 3 * hidden + h] = side;
    }
    before = now;
  }
  return { states, gates };
}
