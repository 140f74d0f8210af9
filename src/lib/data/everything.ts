import { db, Database } from './db.ts';
import { saveSetting } from './settings.ts';
import { dropAllUnsaved } from './unsaved.ts';

/** Name under which all that this browser kept lies after a start anew. */
export const EVERYTHING = 'everything';

/** What was there before everything was cleared, for an undo. */
const before = new Database('swift-twin-before');
/** Speech can be made again; it would be most of what is copied. */
const MADE_AGAIN = ['speech', 'samples'];

/** Makes one database what another is, table by table. */
async function copyAll(from: Database, to: Database): Promise<void> {
  for (const table of to.tables) {
    await table.clear();
    if (MADE_AGAIN.includes(table.name)) continue;
    await table.bulkPut(await from.table(table.name).toArray());
  }
}

/** Forgets all that this browser keeps, and how it began, in one go. It is kept aside for an undo. */
export async function clearEverything(started?: 'demo' | 'empty'): Promise<void> {
  await copyAll(db, before);
  await db.transaction('rw', db.tables, async () => {
    await Promise.all(db.tables.map((table) => table.clear()));
    if (started) await saveSetting('started', started);
  });
  dropAllUnsaved();
}

/** Brings back what was there before it was cleared. @returns whether there was anything */
export async function restoreEverything(): Promise<boolean> {
  if ((await before.settings.count()) === 0) return false;
  await copyAll(before, db);
  await Promise.all(before.tables.map((table) => table.clear()));
  return true;
}
