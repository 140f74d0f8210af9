import { readFileSync } from 'node:fs';
import type { FullResult, Reporter, TestCase, TestResult } from '@playwright/test/reporter';

/** What tells most of a page on which a test failed, in lines of its accessibility tree. */
const TELLING = /^\s*- (?:alert|status|dialog|contentinfo|progressbar)\b|\[disabled\]/;
const MOST_LINES = 40;
const depthOf = (line: string): number => line.search(/\S/);

/** The telling lines of the page as it was when a test failed, with what is within them. */
function pageOf({ attachments }: TestResult): string[] {
  const path = attachments.find(({ name }) => name === 'error-context')?.path;
  const lines = path ? readFileSync(path, 'utf8').split('\n') : [];
  let within = Infinity;
  const telling = lines.filter((line) => {
    if (depthOf(line) <= within) within = TELLING.test(line) ? depthOf(line) : Infinity;
    return within < Infinity;
  });
  return telling.slice(0, MOST_LINES);
}

/** Ends the run with what the pages of failed tests told, and one plain line of counts. */
export default class Summary implements Reporter {
  readonly #outcomes = new Map<string, TestResult['status']>();
  readonly #pages: string[] = [];

  onTestEnd(test: TestCase, result: TestResult): void {
    this.#outcomes.set(test.id, result.status);
    if (result.status === 'passed' || result.status === 'skipped') return;
    this.#pages.push(`\nOn the page of “${test.title}”:`, ...pageOf(result));
  }

  onEnd(_result: FullResult): void {
    const all = [...this.#outcomes.values()];
    const passed = all.filter((s) => s === 'passed').length;
    const skipped = all.filter((s) => s === 'skipped').length;
    for (const line of this.#pages) console.log(line);
    console.log(
      `\nTests: ${passed} passed, ${all.length - passed - skipped} failed, ${skipped} skipped`
    );
  }
}
