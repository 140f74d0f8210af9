/** Counts numbers from 0 on, again and again in the same memory: millions of words are counted. */
export class Counter {
  #times = new Int32Array(1 << 16);
  #counted: number[] = [];

  add(number: number): void {
    if (number >= this.#times.length) this.#grow(number);
    if (this.#times[number]!++ === 0) this.#counted.push(number);
  }

  /**
   * What was counted since it was last asked, in ascending order, and how often each.
   * @param without numbers that are left out
   */
  take(without: ReadonlySet<number>): { numbers: Int32Array; times: Int32Array } {
    const numbers = new Int32Array(this.#counted.filter((n) => !without.has(n))).sort();
    const times = numbers.map((n) => this.#times[n]!);
    for (const n of this.#counted) this.#times[n] = 0;
    this.#counted = [];
    return { numbers, times };
  }

  #grow(number: number): void {
    const more = new Int32Array(2 ** Math.ceil(Math.log2(number + 1)));
    more.set(this.#times);
    this.#times = more;
  }
}
