/** Rows of numbers, eight bytes each: an object of each row would take several times as much. */
export class NumberRows {
  private numbers = new Float64Array(1_024);
  private used = 0;

  /** @param width numbers of a row */
  constructor(private readonly width: number) {}

  get count(): number {
    return this.used / this.width;
  }

  /** @returns which row it became */
  add(row: readonly number[]): number {
    if (this.used + this.width > this.numbers.length) {
      const larger = new Float64Array(2 * this.numbers.length);
      larger.set(this.numbers);
      this.numbers = larger;
    }
    this.numbers.set(row, this.used);
    this.used += this.width;
    return this.count - 1;
  }

  at(row: number): Float64Array {
    return this.numbers.subarray(row * this.width, (row + 1) * this.width);
  }
}
