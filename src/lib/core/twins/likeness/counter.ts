/** Counts numbers from 0 on, again and again in the same memory: millions of words are counted. */
export class Counter {
  #times = new Int32Array(1 << 16);
  /** Those that were counted, each once; the list is longer than they are many. */
  #counted = new Int32Array(1 << 10);
  #many = 0;

  add(number: number): void {
    if (number >= this.#times.length) this.#times = longer(this.#times, number + 1);
    if (this.#times[number]!++ > 0) return;
    if (this.#many === this.#counted.length) this.#counted = longer(this.#counted, this.#many + 1);
    this.#counted[this.#many++] = number;
  }

  /**
   * What was counted since it was last asked, in ascending order, and how often each. As plain lists: there are many
   * thousands of them, and a typed array of a few numbers takes hundreds of bytes.
   * @param without numbers that are left out
   */
  take(without: readonly number[] = []): { numbers: number[]; times: number[] } {
    for (const number of without) if (number < this.#times.length) this.#times[number] = 0;
    const counted = this.#counted.subarray(0, this.#many);
    if (this.#many > 1) counted.sort();
    const numbers: number[] = [];
    const times: number[] = [];
    for (let i = 0; i < this.#many; i++) {
      const number = counted[i]!;
      if (this.#times[number] === 0) continue;
      numbers.push(number);
      times.push(this.#times[number]!);
      this.#times[number] = 0;
    }
    this.#many = 0;
    return { numbers, times };
  }
}

function longer(list: Int32Array, length: number): Int32Array<ArrayBuffer> {
  const more = new Int32Array(2 ** Math.ceil(Math.log2(length)));
  more.set(list);
  return more;
}
