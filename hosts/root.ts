import { existsSync } from 'node:fs';

/** The folder of the project, wherever in it this code was compiled to. */
function findRoot(): URL {
  for (let at = new URL('./', import.meta.url); ; at = new URL('../', at)) {
    if (existsSync(new URL('package.json', at))) return at;
    if (at.pathname === '/') throw new Error('There is no package.json above the rehearsal hosts.');
  }
}
export const ROOT = findRoot();
