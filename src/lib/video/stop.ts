/** What a worker throws when it was asked to stop. Its name survives the way between workers. */
export class Stopped extends Error {
  override name = 'Stopped';
}

/** Whether work was asked to stop. */
export class Stop {
  #isAsked = false;

  get isAsked(): boolean {
    return this.#isAsked;
  }
  reset(): void {
    this.#isAsked = false;
  }
  ask(): void {
    this.#isAsked = true;
  }
  /** @throws Stopped */
  check(): void {
    if (this.#isAsked) throw new Stopped('stopped');
  }
}
