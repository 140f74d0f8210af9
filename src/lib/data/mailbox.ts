import { mailboxSchema, type Mailbox } from '$lib/core/model/mailbox.ts';
import { db } from './db.ts';
import { forgetKey, saveKey, sealKey } from './keys.ts';
import { readSetting, saveSetting } from './settings.ts';

/** Under which its key is kept. */
export const MAILBOX_ID = 'mailbox';

export const readMailbox = (): Promise<Mailbox | null> =>
  readSetting(MAILBOX_ID, mailboxSchema.nullable().catch(null));

export async function saveMailbox(mailbox: Mailbox, key: string): Promise<void> {
  const sealed = await sealKey(key);
  await db.transaction('rw', [db.settings, db.keys], async () => {
    await saveSetting(MAILBOX_ID, mailboxSchema.parse(mailbox));
    await saveKey(MAILBOX_ID, sealed);
  });
}

export const removeMailbox = (): Promise<void> =>
  db.transaction('rw', [db.settings, db.keys], async () => {
    await forgetKey(MAILBOX_ID);
    await db.settings.delete(MAILBOX_ID);
  });
