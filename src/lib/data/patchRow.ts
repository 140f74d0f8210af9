import type { EntityTable } from 'dexie';
import type { z } from 'zod';
import { db } from './db.ts';

/**
 * Changes some fields of a row and leaves all others as they are by now; a row that was taken out
 * meanwhile stays away.
 * @param schema of the whole row, which must still keep to it afterwards
 */
export function patchRow<T extends object, K extends keyof T>(
  table: EntityTable<T, K>,
  schema: z.ZodType<T>,
  key: string,
  patch: Partial<T>
): Promise<void> {
  return db.transaction('rw', table, async () => {
    const row = await table.get(key as never);
    if (row) await table.put(schema.parse({ ...row, ...patch }));
  });
}
