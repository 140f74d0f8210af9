import { z } from 'zod';
import { v4 } from 'uuid';
import { db } from './db.ts';
import { readSetting, saveSetting } from './settings.ts';

/** A random word of this browser's own, made when first needed. It is sent to nobody. */
export async function ownSecret(): Promise<string> {
  return db.transaction('rw', db.settings, async () => {
    const known = await readSetting('secret', z.string().catch(''));
    if (known) return known;
    const made = v4();
    await saveSetting('secret', made);
    return made;
  });
}
