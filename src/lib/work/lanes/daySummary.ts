import { z } from 'zod';
import { summarise, summaryTexts } from '$lib/core/lanes/summary.ts';
import { writeMessage } from '$lib/core/messages/message.ts';
import { db } from '$lib/data/db.ts';
import { readKey } from '$lib/data/keys.ts';
import { MAILBOX_ID, readMailbox } from '$lib/data/mailbox.ts';
import { ownSecret } from '$lib/data/secret.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { MailboxPlace } from '$lib/places/mailbox.ts';
import { planned } from './takeCalendar.ts';

const sentSchema = z.object({ isWanted: z.boolean(), last: z.string() });
export type SummarySetting = z.infer<typeof sentSchema>;
const SETTING = 'daySummary';

export const readSummarySetting = (): Promise<SummarySetting> =>
  readSetting(SETTING, sentSchema.catch({ isWanted: false, last: '' }));
export const saveSummarySetting = (setting: SummarySetting): Promise<unknown> =>
  saveSetting(SETTING, setting);

/** The local day of a moment, as ISO 8601 has it. */
const dayOf = (date: Date): string =>
  new Date(date.getTime() - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 10);

/** Sends the summary of yesterday once, where it is wanted and was not sent yet. */
export async function sendSummaryWhenDue(): Promise<void> {
  const setting = await readSummarySetting();
  const yesterday = new Date();
  yesterday.setDate(yesterday.getDate() - 1);
  const day = dayOf(yesterday);
  if (!setting.isWanted || setting.last >= day) return;
  await sendSummary(yesterday);
  await saveSummarySetting({ ...setting, last: day });
}

/** Sends what happened in the day of a date. The same day once more takes the place of the first. */
export async function sendSummary(date: Date): Promise<string> {
  const mailbox = await readMailbox();
  if (!mailbox) return '';
  const from = new Date(date.getFullYear(), date.getMonth(), date.getDate());
  const to = new Date(date.getFullYear(), date.getMonth(), date.getDate() + 1);
  const lines = await db.journal
    .where('at')
    .between(from.toISOString(), to.toISOString(), true, false)
    .toArray();
  const waits = await db.outbox.where({ state: 'in-review' }).count();
  const next = (await planned()).slice(0, 10).map(({ title, place, at }) => ({
    title: `${title} → ${place}`,
    at: new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
  }));
  const day = dayOf(date);
  const texts = summaryTexts(summarise(day, lines, { waits, planned: next }));
  const message = writeMessage({
    ...texts,
    ...{ from: mailbox, to: mailbox.address, date: new Date() },
    messageId: `summary.${day}.${(await ownSecret()).slice(0, 8)}@swift-twin.invalid`
  });
  return new MailboxPlace(mailbox, await readKey(MAILBOX_ID)).deliver(message);
}
