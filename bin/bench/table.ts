import { readFile, writeFile } from 'node:fs/promises';
import { cpus } from 'node:os';
import { ms, type Row } from './report.ts';

const FILE = 'docs/benchmarks.md';
const HEADING = /^## (.+)$/gm;

const INTRODUCTION = `# Benchmarks

Written by \`npm run bench\`, part by part: \`npm run bench -- pairs archive\` measures some of them anew and leaves the others as they are. Inputs are made by code; each figure is the median of five runs where a run can be repeated. Figures of a reporting half are not blind: the weights were searched on the tuning half, but a few values (the cap on the length of parts, the rounding of the chapter weights, the biases of sentence ends and commas) were settled with figures of both halves in sight.
`;

/** What one part came to. */
export interface Measured {
  rows: readonly Row[];
  /** Milliseconds of the same loop before and after: how fast the machine was meanwhile. */
  loop: readonly [before: number, after: number];
}

/** Writes what a part came to in place of what it came to before. @param order of the parts */
export async function writePart(part: string, measured: Measured, order: readonly string[]) {
  const sections = sectionsOf(await readFile(FILE, 'utf8').catch(() => ''));
  sections.set(part, sectionOf(measured));
  const written = order.flatMap((name) => {
    const section = sections.get(name);
    return section === undefined ? [] : [`## ${name}\n\n${section.trim()}\n`];
  });
  await writeFile(FILE, [INTRODUCTION, ...written].join('\n'));
}

function sectionsOf(text: string): Map<string, string> {
  const [, ...parts] = text.split(HEADING);
  return new Map(
    parts.flatMap((name, i) => (i % 2 === 0 ? [[name, parts[i + 1] ?? ''] as const] : []))
  );
}

function sectionOf({ rows, loop: [before, after] }: Measured): string {
  const day = new Date().toISOString().slice(0, 10);
  const machine = `Node ${process.versions.node}, ${cpus().length} cores (${cpus()[0]?.model.trim() ?? 'unknown'})`;
  const table = rows.map(
    (r) => `| ${r.what} | ${r.bar} | ${r.measured} | ${r.holds ? 'yes' : '**no**'} |`
  );
  return `Measured on ${day}, with ${machine}. A loop of 300 million additions took ${ms(before)} before and ${ms(after)} after.

| what | bar | measured | holds |
|---|---|---|---|
${table.join('\n')}
`;
}
