import type { IndexableType } from 'dexie';
import { db, Database } from './db.ts';
import { saveSetting } from './settings.ts';
import { TAKE } from './speech.ts';
import { dropAllUnsaved } from './unsaved.ts';

/** Name under which all that this browser kept lies after a start anew. */
export const EVERYTHING = 'everything';

/** What was there before everything was cleared, for an undo. */
const before = new Database('swift-twin-before');
/** Speech can be made again, but for what the user read; it would be most of what is copied. */
const MADE_AGAIN = ['speech', 'samples'];

/** Milliseconds for which it is kept: there are keys in it. */
const KEPT = 86_400_000;
const CLEARED = 'cleared';

/** Rows that are copied at a time. */
const BATCH = 500;

/** Makes one database what another is, table by table. */
async function copyAll(from: Database, to: Database): Promise<void> {
  for (const table of to.tables) {
    await table.clear();
    const rows = from.table(table.name);
    const isKept = (key: IndexableType) =>
      !MADE_AGAIN.includes(table.name) || String(key).startsWith(TAKE);
    const keys = (await rows.toCollection().primaryKeys()).filter(isKept);
    for (let at = 0; at < keys.length; at += BATCH) {
      const copied = await rows.bulkGet(keys.slice(at, at + BATCH));
      await table.bulkPut(copied.filter((row) => row !== undefined));
    }
  }
}

/** Keeps all that is here aside, for an undo under the name `EVERYTHING`. */
export async function keepEverythingAside(): Promise<void> {
  await copyAll(db, before);
  await before.settings.put({ name: CLEARED, value: Date.now() });
}

/** Forgets all that this browser keeps, and how it began, in one go. It is kept aside for an undo. */
export async function clearEverything(started?: 'demo' | 'empty'): Promise<void> {
  await keepEverythingAside();
  await db.transaction('rw', db.tables, async () => {
    await Promise.all(db.tables.map((table) => table.clear()));
    if (started) await saveSetting('started', started);
  });
  dropAllUnsaved();
}

/** Forgets what was cleared a day ago or longer. @param now milliseconds since 1970 */
export async function forgetCleared(now: number): Promise<void> {
  const at = Number((await before.settings.get(CLEARED))?.value ?? now);
  if (now - at >= KEPT) await Promise.all(before.tables.map((table) => table.clear()));
}

/** Brings back what was there before it was cleared. @returns whether there was anything */
export async function restoreEverything(): Promise<boolean> {
  if ((await before.settings.count()) === 0) return false;
  await copyAll(before, db);
  await Promise.all(before.tables.map((table) => table.clear()));
  return true;
}
