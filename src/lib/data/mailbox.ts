import { mailboxSchema, type Mailbox } from '$lib/core/model/mailbox.ts';
import { db } from './db.ts';
import { forgetKey } from './keys.ts';
import { readSetting, saveSetting } from './settings.ts';

/** Under which its key is kept. */
export const MAILBOX_ID = 'mailbox';

export const readMailbox = (): Promise<Mailbox | null> =>
  readSetting(MAILBOX_ID, mailboxSchema.nullable().catch(null));

export const saveMailbox = (mailbox: Mailbox): Promise<unknown> =>
  saveSetting(MAILBOX_ID, mailboxSchema.parse(mailbox));

export async function removeMailbox(): Promise<void> {
  await forgetKey(MAILBOX_ID);
  await db.settings.delete(MAILBOX_ID);
}
