import type { FullResult, Reporter, TestCase, TestResult } from '@playwright/test/reporter';

/** Ends the run with one plain line of counts. */
export default class Summary implements Reporter {
  readonly #outcomes = new Map<string, TestResult['status']>();

  onTestEnd(test: TestCase, result: TestResult): void {
    this.#outcomes.set(test.id, result.status);
  }

  onEnd(_result: FullResult): void {
    const all = [...this.#outcomes.values()];
    const passed = all.filter((s) => s === 'passed').length;
    const skipped = all.filter((s) => s === 'skipped').length;
    console.log(
      `\nTests: ${passed} passed, ${all.length - passed - skipped} failed, ${skipped} skipped`
    );
  }
}
