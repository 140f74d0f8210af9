import { db } from './db.ts';
import { saveSetting } from './settings.ts';

/** Forgets all that this browser keeps, and how it began, in one go. */
export async function clearEverything(started?: 'demo' | 'empty'): Promise<void> {
  await db.transaction('rw', db.tables, async () => {
    await Promise.all(db.tables.map((table) => table.clear()));
    if (started) await saveSetting('started', started);
  });
}
