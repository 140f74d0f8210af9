/** A pair that may be made, and what it is worth. */
export interface Edge {
  left: number;
  right: number;
  worth: number;
}

/**
 * The best whole: of the pairs given, those that together are worth most while nobody is in two of them.
 * By auction (Bertsekas 1988), which comes within `step` of the best for each pair that is made. Pairs that
 * are worth nothing are never made.
 * @returns places in `edges`
 */
export function assign(edges: readonly Edge[], step = 0.01): number[] {
  const ofLeft = new Map<number, number[]>();
  for (const [at, { left, worth }] of edges.entries()) {
    if (worth <= 0) continue;
    const known = ofLeft.get(left);
    if (known) known.push(at);
    else ofLeft.set(left, [at]);
  }
  const prices = new Map<number, number>();
  const holder = new Map<number, number>();
  const waiting = [...ofLeft.keys()];
  for (let left = waiting.pop(); left !== undefined; left = waiting.pop()) {
    // To have nothing is worth 0.
    let [best, first, second] = [-1, 0, 0];
    for (const at of ofLeft.get(left)!) {
      const { right, worth } = edges[at]!;
      const value = worth - (prices.get(right) ?? 0);
      if (value > first) {
        second = first;
        first = value;
        best = at;
      } else if (value > second) second = value;
    }
    if (best < 0) continue;
    const { right } = edges[best]!;
    const before = holder.get(right);
    prices.set(right, (prices.get(right) ?? 0) + first - second + step);
    holder.set(right, best);
    if (before !== undefined) waiting.push(edges[before]!.left);
  }
  return [...holder.values()];
}
