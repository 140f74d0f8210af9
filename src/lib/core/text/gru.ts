/** Weights of a gated recurrent layer (Cho and others 2014), gates in the order reset, update, new. */
export interface GruWeights {
  /** 3·hidden × input */
  input: Float64Array;
  /** 3·hidden × hidden */
  state: Float64Array;
  /** 3·hidden for the input side, then hidden for the state side of the new value. */
  bias: Float64Array;
}

/** What a run leaves behind for learning: one row a step. */
export interface GruTrace {
  /** steps × hidden */
  states: Float64Array;
  /** steps × 4·hidden: reset, update, new, and the state's side of the new value */
  gates: Float64Array;
}

/**
 * Adds a matrix times a vector to `sums`, from `at` on. Four rows at a time, because each addition
 * waits for the one before it; numbers of eight bytes, because no other kind is multiplied as it is.
 * @param matrix rows × size, rows a multiple of four
 */
export function addProduct(
  matrix: Float64Array,
  rows: number,
  size: number,
  vector: Float64Array,
  from: number,
  sums: Float64Array,
  at: number
): void {
  for (let row = 0; row < rows; row += 4) {
    let [a, b] = [row * size, (row + 1) * size];
    let [c, d] = [b + size, b + 2 * size];
    let p = 0;
    let q = 0;
    let r = 0;
    let s = 0;
    for (let k = from; k < from + size; k++) {
      const x = vector[k] as number;
      p += (matrix[a++] as number) * x;
      q += (matrix[b++] as number) * x;
      r += (matrix[c++] as number) * x;
      s += (matrix[d++] as number) * x;
    }
    const to = at + row;
    sums[to] = (sums[to] as number) + p;
    sums[to + 1] = (sums[to + 1] as number) + q;
    sums[to + 2] = (sums[to + 2] as number) + r;
    sums[to + 3] = (sums[to + 3] as number) + s;
  }
}

/**
 * Runs the layer over the sums of its input side, forwards or backwards; each step's state stands
 * in its row.
 * @param sums steps × 3·hidden: input weights times inputs, and their biases
 */
export function runGru(
  sums: Float64Array,
  hidden: number,
  { state, bias }: GruWeights,
  isBackward: boolean
): GruTrace {
  const steps = sums.length / (3 * hidden);
  const states = new Float64Array(steps * hidden);
  const gates = new Float64Array(steps * 4 * hidden);
  const fromState = new Float64Array(3 * hidden);
  const sigmoid = (x: number) => 1 / (1 + Math.exp(-x));
  let before = -1;
  for (let n = 0; n < steps; n++) {
    const t = isBackward ? steps - 1 - n : n;
    fromState.fill(0);
    if (before >= 0) addProduct(state, 3 * hidden, hidden, states, before, fromState, 0);
    const [now, sum, gate] = [t * hidden, t * 3 * hidden, t * 4 * hidden];
    for (let h = 0; h < hidden; h++) {
      const [u, v] = [hidden + h, 2 * hidden + h];
      const reset = sigmoid((sums[sum + h] as number) + (fromState[h] as number));
      const update = sigmoid((sums[sum + u] as number) + (fromState[u] as number));
      const side = (fromState[v] as number) + (bias[3 * hidden + h] as number);
      const fresh = Math.tanh((sums[sum + v] as number) + reset * side);
      const kept = before < 0 ? 0 : (states[before + h] as number);
      states[now + h] = (1 - update) * fresh + update * kept;
      gates[gate + h] = reset;
      gates[gate + u] = update;
      gates[gate + v] = fresh;
      gates[gate + 3 * hidden + h] = side;
    }
    before = now;
  }
  return { states, gates };
}
