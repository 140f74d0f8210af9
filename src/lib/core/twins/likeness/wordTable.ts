/**
 * What is known of words, found by where they stand in a text: millions are looked up, and a string of each would take
 * longer than all else. Open addressing, half of it empty at least.
 */
export class WordTable<T> {
  #slots = new Int32Array(1 << 12).fill(-1);
  /** The units of all words, one after the other, and where each begins; the last one ends where the next would begin. */
  #units = new Uint16Array(1 << 14);
  readonly #starts = [0];
  readonly #hashes: number[] = [];
  readonly #values: T[] = [];

  /** @param make what is to be known of a word that is looked up for the first time */
  constructor(private readonly make: (word: string) => T) {}

  /**
   * @param units of a text, UTF-16
   * @param from where the word begins, and `end` where it has ended
   */
  at(units: Uint16Array, from: number, end: number): T {
    const hash = hashOf(units, from, end);
    const last = this.#slots.length - 1;
    for (let slot = hash & last; ; slot = (slot + 1) & last) {
      const found = this.#slots[slot]!;
      if (found < 0) return this.#add(units.subarray(from, end), hash, slot);
      if (this.#hashes[found] === hash && this.#standsAt(found, units, from, end))
        return this.#values[found]!;
    }
  }

  #standsAt(found: number, units: Uint16Array, from: number, end: number): boolean {
    const start = this.#starts[found]!;
    if (this.#starts[found + 1]! - start !== end - from) return false;
    for (let i = 0; from + i < end; i++)
      if (this.#units[start + i] !== units[from + i]) return false;
    return true;
  }

  #add(word: Uint16Array, hash: number, slot: number): T {
    const value = this.make(String.fromCharCode(...word));
    const found = this.#values.push(value) - 1;
    const start = this.#starts[found]!;
    if (start + word.length > this.#units.length) {
      const more = new Uint16Array(2 * (start + word.length));
      more.set(this.#units);
      this.#units = more;
    }
    this.#units.set(word, start);
    this.#starts.push(start + word.length);
    this.#hashes.push(hash);
    this.#slots[slot] = found;
    if (this.#values.length * 2 > this.#slots.length) this.#grow();
    return value;
  }

  #grow(): void {
    const slots = new Int32Array(this.#slots.length * 4).fill(-1);
    const last = slots.length - 1;
    for (const [found, hash] of this.#hashes.entries()) {
      let slot = hash & last;
      while (slots[slot]! >= 0) slot = (slot + 1) & last;
      slots[slot] = found;
    }
    this.#slots = slots;
  }
}

/** FNV-1a over UTF-16 units, with its upper bits mixed into the lower ones. */
function hashOf(units: Uint16Array, from: number, end: number): number {
  let hash = 0x811c9dc5;
  for (let at = from; at < end; at++) hash = Math.imul(hash ^ units[at]!, 0x01000193);
  return hash ^ (hash >>> 15);
}
