import { z } from 'zod';
import { db } from '../db.ts';
import { readSetting, saveSetting } from '../settings.ts';

const [LAST, REMIND] = ['archive/last', 'archive/remind'];
const DAY = 86_400_000;

/** When an archive was last made here (ISO 8601), and its bytes. */
const lastArchiveSchema = z.object({ at: z.string(), bytes: z.number() });
export type LastArchive = z.infer<typeof lastArchiveSchema>;

export const lastArchive = (): Promise<LastArchive | null> =>
  readSetting(LAST, lastArchiveSchema.nullable().catch(null));
export const saveLastArchive = (last: LastArchive): Promise<unknown> => saveSetting(LAST, last);

/** Days after which the user is reminded of making an archive; 0 for never. */
export const reminderDays = (): Promise<number> => readSetting(REMIND, z.number().catch(30));
export const saveReminderDays = (days: number): Promise<unknown> => saveSetting(REMIND, days);

/**
 * Whether it is time to make an archive: the last one, or without any the first thing that was done here, is older
 * than the user wants.
 * @param now milliseconds since 1970
 */
export async function isArchiveDue(now: number): Promise<boolean> {
  const days = await reminderDays();
  if (days === 0) return false;
  const since = (await lastArchive())?.at ?? (await db.journal.orderBy('id').first())?.at;
  return since !== undefined && now - Date.parse(since) > days * DAY;
}
