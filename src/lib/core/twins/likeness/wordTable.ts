/**
 * What is known of words, found by where they stand in a text: millions are looked up, and a string of each would take
 * longer than all else. Open addressing, half of it empty at least.
 */
export class WordTable<T> {
  #slots = new Int32Array(1 << 12).fill(-1);
  readonly #words: string[] = [];
  readonly #values: T[] = [];

  /** @param make what is to be known of a word that is looked up for the first time */
  constructor(private readonly make: (word: string) => T) {}

  /** @param from where the word begins, and `end` where it has ended, in UTF-16 units */
  at(text: string, from: number, end: number): T {
    const last = this.#slots.length - 1;
    for (let slot = hashOf(text, from, end) & last; ; slot = (slot + 1) & last) {
      const found = this.#slots[slot]!;
      if (found < 0) return this.#add(text.slice(from, end), slot);
      if (standsAt(this.#words[found]!, text, from, end)) return this.#values[found]!;
    }
  }

  #add(word: string, slot: number): T {
    const value = this.make(word);
    const found = this.#words.push(word) - 1;
    this.#values.push(value);
    this.#slots[slot] = found;
    if (this.#words.length * 2 > this.#slots.length) this.#grow();
    return value;
  }

  #grow(): void {
    const slots = new Int32Array(this.#slots.length * 4).fill(-1);
    const last = slots.length - 1;
    for (const [found, word] of this.#words.entries()) {
      let slot = hashOf(word, 0, word.length) & last;
      while (slots[slot]! >= 0) slot = (slot + 1) & last;
      slots[slot] = found;
    }
    this.#slots = slots;
  }
}

/** FNV-1a over UTF-16 units, with its upper bits mixed into the lower ones. */
function hashOf(text: string, from: number, end: number): number {
  let hash = 0x811c9dc5;
  for (let at = from; at < end; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return hash ^ (hash >>> 15);
}

function standsAt(word: string, text: string, from: number, end: number): boolean {
  if (word.length !== end - from) return false;
  for (let i = 0; i < word.length; i++)
    if (word.charCodeAt(i) !== text.charCodeAt(from + i)) return false;
  return true;
}
