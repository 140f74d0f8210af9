/** Words of a run that is compared. */
const RUN = 4;
/** Share of the shorter text's runs that must stand in the other. */
const ALIKE = 0.5;
/** Runs below which a text says too little to be told from others. */
const MIN_RUNS = 6;

/**
 * What a text can be known by, whatever was done to its markup: its runs of four words.
 * Time and size grow in proportion to the text.
 */
export function imprintOf(text: string): ReadonlySet<string> {
  const words =
    text
      .normalize('NFKC')
      .toLowerCase()
      .match(/[\p{L}\p{N}]+/gu) ?? [];
  const runs = new Set<string>();
  for (let i = 0; i + RUN <= words.length; i++) runs.add(words.slice(i, i + RUN).join(' '));
  return runs;
}

/** Whether two texts are so much the same that one was made from the other. */
export function isAlike(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  const [short, long] = a.size <= b.size ? [a, b] : [b, a];
  if (short.size < MIN_RUNS) return false;
  let shared = 0;
  for (const run of short) if (long.has(run)) shared++;
  return shared / short.size >= ALIKE;
}

/** Finds among many texts the one that another was made from, without comparing each with each. */
export class Likenesses {
  readonly #texts: { name: string; runs: ReadonlySet<string> }[] = [];
  readonly #byRun = new Map<string, number[]>();

  add(name: string, text: string): void {
    const runs = imprintOf(text);
    const at = this.#texts.push({ name, runs }) - 1;
    for (const run of runs) this.#byRun.set(run, [...(this.#byRun.get(run) ?? []), at]);
  }

  get isEmpty(): boolean {
    return this.#texts.length === 0;
  }

  /** @returns the name of the text that is alike, or null */
  find(text: string): string | null {
    const runs = imprintOf(text);
    const shared = new Map<number, number>();
    for (const run of runs)
      for (const at of this.#byRun.get(run) ?? []) shared.set(at, (shared.get(at) ?? 0) + 1);
    const [best] = [...shared].sort((a, b) => b[1] - a[1]);
    const found = best && this.#texts[best[0]];
    return found && isAlike(runs, found.runs) ? found.name : null;
  }
}
