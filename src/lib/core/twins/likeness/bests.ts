/** Of each owner of pairs: the best of these, where it is, and the second best. */
export class Bests {
  readonly #owners: Int32Array;
  readonly #best: Float64Array;
  readonly #second: Float64Array;
  readonly #at: Int32Array;

  constructor(worths: Float64Array, owners: Int32Array, count: number) {
    const best = new Float64Array(count).fill(-Infinity);
    const second = new Float64Array(count).fill(-Infinity);
    const at = new Int32Array(count).fill(-1);
    for (let i = 0; i < worths.length; i++) {
      const [owner, worth] = [owners[i]!, worths[i]!];
      if (worth > best[owner]!) {
        second[owner] = best[owner]!;
        best[owner] = worth;
        at[owner] = i;
      } else if (worth > second[owner]!) second[owner] = worth;
    }
    this.#owners = owners;
    this.#best = best;
    this.#second = second;
    this.#at = at;
  }

  /** The best of the other pairs of the same owner, or -Infinity. */
  beside(pair: number): number {
    const owner = this.#owners[pair]!;
    return this.#at[owner] === pair ? this.#second[owner]! : this.#best[owner]!;
  }
}
