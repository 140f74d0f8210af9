import { DateTime } from 'luxon';
import { z } from 'zod';
import { writeMessage } from '$lib/core/mail/message.ts';
import { reportHtml, reportText, type MonthReport } from '$lib/core/reach/report.ts';
import { readKey } from '$lib/data/keys.ts';
import { MAILBOX_ID, readMailbox } from '$lib/data/mailbox.ts';
import { ownSecret } from '$lib/data/secret.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { MailboxPlace } from '$lib/places/mailbox.ts';

const settingSchema = z.object({ isWanted: z.boolean(), last: z.string() });
export type ReportSetting = z.infer<typeof settingSchema>;
const SETTING = 'reach/report';

/** Whether a report of each month is wanted by mail, and of which month the last one was. */
export const readReportSetting = (): Promise<ReportSetting> =>
  readSetting(SETTING, settingSchema.catch({ isWanted: false, last: '' }));
export const saveReportSetting = (setting: ReportSetting): Promise<unknown> =>
  saveSetting(SETTING, setting);

/**
 * Sends a report to the mailbox. The same month once more takes the place of the first.
 * @param month as `2026-11`
 * @returns its address, or empty where no mailbox is connected
 */
export async function sendReport(month: string, report: MonthReport): Promise<string> {
  const mailbox = await readMailbox();
  if (!mailbox) return '';
  const message = writeMessage({
    from: mailbox,
    to: mailbox.address,
    date: new Date(),
    subject: `Reach in ${report.month}`,
    messageId: `reach.${month}.${(await ownSecret()).slice(0, 8)}@swift-twin.invalid`,
    text: reportText(report),
    html: reportHtml(report)
  });
  return new MailboxPlace(mailbox, await readKey(MAILBOX_ID)).deliver(message);
}

/** Sends the report of last month once, where it is wanted and was not sent yet. */
export async function sendReportWhenDue(
  build: (month: string) => Promise<MonthReport>
): Promise<void> {
  const setting = await readReportSetting();
  const month = DateTime.now().minus({ months: 1 }).toFormat('yyyy-MM');
  if (!setting.isWanted || setting.last === month) return;
  await sendReport(month, await build(month));
  await saveReportSetting({ ...setting, last: month });
}
