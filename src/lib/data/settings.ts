import type { z } from 'zod';
import { db } from './db.ts';

/** A setting, or what the schema takes for a missing one. */
export async function readSetting<T>(name: string, schema: z.ZodType<T>): Promise<T> {
  return schema.parse((await db.settings.get(name))?.value);
}

export const saveSetting = (name: string, value: unknown): Promise<unknown> =>
  db.settings.put({ name, value });
