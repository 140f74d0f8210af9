import { journalLineSchema, type NewJournalLine } from '$lib/core/model/journal.ts';
import { db } from './db.ts';

export async function note(line: Omit<NewJournalLine, 'at'>): Promise<void> {
  await db.journal.add(journalLineSchema.parse({ ...line, at: new Date().toISOString() }));
}

/** The number of the newest line; it changes whenever something is noted. */
export const newestLine = async (): Promise<number> =>
  (await db.journal.orderBy('id').last())?.id ?? 0;

/** Takes out lines and steps that are older than a moment, ISO 8601. */
export async function forgetBefore(moment: string): Promise<void> {
  await db.journal.where('at').below(moment).delete();
  await db.steps.filter((step) => step.at < moment).delete();
}
