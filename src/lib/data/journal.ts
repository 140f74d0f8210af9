import {
  journalLineSchema,
  type JournalLine,
  type NewJournalLine
} from '$lib/core/model/journal.ts';
import { db } from './db.ts';

export async function note(line: Omit<NewJournalLine, 'at'>): Promise<void> {
  await db.journal.add(journalLineSchema.parse({ ...line, at: new Date().toISOString() }));
}

/** The newest lines first. */
export const recentLines = (most = 500): Promise<JournalLine[]> =>
  db.journal.orderBy('id').reverse().limit(most).toArray();
