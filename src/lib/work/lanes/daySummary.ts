import { DateTime } from 'luxon';
import { z } from 'zod';
import { summarise, summaryTexts } from '$lib/core/lanes/summary.ts';
import { writeMessage } from '$lib/core/mail/message.ts';
import { linesBetween } from '$lib/data/journal.ts';
import { countIn } from '$lib/data/outbox.ts';
import { readKey } from '$lib/data/keys.ts';
import { MAILBOX_ID, readMailbox } from '$lib/data/mailbox.ts';
import { ownSecret } from '$lib/data/secret.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { MailboxPlace } from '$lib/places/mailbox.ts';
import { planned } from '../calendar.ts';

const sentSchema = z.object({ isWanted: z.boolean(), last: z.string() });
export type SummarySetting = z.infer<typeof sentSchema>;
const SETTING = 'daySummary';

export const readSummarySetting = (): Promise<SummarySetting> =>
  readSetting(SETTING, sentSchema.catch({ isWanted: false, last: '' }));
export const saveSummarySetting = (setting: SummarySetting): Promise<unknown> =>
  saveSetting(SETTING, setting);

/** Sends the summary of yesterday once, where it is wanted and was not sent yet. */
export async function sendSummaryWhenDue(): Promise<void> {
  const setting = await readSummarySetting();
  const yesterday = DateTime.now().minus({ days: 1 });
  const day = yesterday.toISODate();
  // Another day than the last one: a clock that was set forward and back again mutes nothing.
  if (!setting.isWanted || setting.last === day) return;
  await sendSummary(yesterday);
  await saveSummarySetting({ ...setting, last: day });
}

/** Sends what happened in the day of a date. The same day once more takes the place of the first. */
export async function sendSummary(date: DateTime): Promise<string> {
  const mailbox = await readMailbox();
  if (!mailbox) return '';
  const from = date.startOf('day');
  const utc = (moment: DateTime) => moment.toJSDate().toISOString();
  const lines = await linesBetween(utc(from), utc(from.plus({ days: 1 })));
  const waits = await countIn('in-review');
  const next = (await planned()).slice(0, 10).map(({ title, place, at }) => ({
    title: `${title} → ${place}`,
    at: DateTime.fromMillis(at).setLocale('en').toFormat('d LLL yyyy, HH:mm')
  }));
  const day = date.toISODate() ?? '';
  const texts = summaryTexts(summarise(day, lines, { waits, planned: next }));
  const message = writeMessage({
    ...texts,
    from: mailbox,
    to: mailbox.address,
    date: new Date(),
    messageId: `summary.${day}.${(await ownSecret()).slice(0, 8)}@swift-twin.invalid`
  });
  return new MailboxPlace(mailbox, await readKey(MAILBOX_ID)).deliver(message);
}
