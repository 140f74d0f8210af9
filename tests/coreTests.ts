import { readdirSync } from 'node:fs';

const CORE = new URL('../src/lib/core/', import.meta.url);

/**
 * Every second test file of the core, in this process: the core keeps nothing of its own, and starting
 * a process for each file takes longer than most of them do.
 */
export async function coreTests(part: 0 | 1): Promise<void> {
  const files = readdirSync(CORE, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.test.ts'))
    .sort()
    .filter((_, i) => i % 2 === part);
  for (const file of files) await import(new URL(file, CORE).href);
}
