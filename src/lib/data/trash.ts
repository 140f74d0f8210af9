import { db } from './db.ts';
import type { Trashed } from '$lib/core/model/rows.ts';

/** Days after which what was thrown away is forgotten. */
const KEPT = 30;

type Rows = Trashed['rows'];
type Key = readonly [table: 'drafts' | 'work' | 'narrations' | 'renders' | 'layouts', key: string];

/** Within a transaction that writes to `trash`: keeps rows that are about to go. */
export async function keepTrashed(id: string, rows: Rows, now: Date): Promise<void> {
  await db.trash.put({ id, at: now.toISOString(), rows });
  const old = new Date(now.getTime() - KEPT * 86_400_000).toISOString();
  await db.trash.where('at').below(old).delete();
}

/** Takes some rows out, all at once, and keeps them for an undo. */
export function throwAway(id: string, keys: readonly Key[], now: Date): Promise<void> {
  const tables = [...new Set(keys.map(([table]) => db.table(table)))];
  return db.transaction('rw', [db.trash, ...tables], async () => {
    const rows: Rows = [];
    for (const [table, key] of keys) {
      const row = (await db.table(table).get(key)) as object | undefined;
      if (row) rows.push({ table, row });
      await db.table(table).delete(key);
    }
    await keepTrashed(id, rows, now);
  });
}

/**
 * Brings back what was thrown away; what was made anew under the same key since then stays.
 * @returns whether there was anything
 */
export function bringBack(id: string): Promise<boolean> {
  return db.transaction('rw', db.tables, async () => {
    const trashed = await db.trash.get(id);
    if (!trashed) return false;
    for (const { table, row } of trashed.rows) {
      const { name } = db.table(table).schema.primKey;
      const key = (row as Record<string, string>)[name] ?? '';
      const known = (await db.table(table).get(key)) as object | undefined;
      // What was sent in the meantime belongs to its lane again.
      if (!known) await db.table(table).put(row);
      else if (table === 'outbox')
        await db.outbox.update(key, { laneId: (row as { laneId: string }).laneId });
    }
    await db.trash.delete(id);
    return true;
  });
}
