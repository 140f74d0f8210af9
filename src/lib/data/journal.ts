import {
  journalLineSchema,
  type JournalLine,
  type NewJournalLine
} from '$lib/core/model/journal.ts';
import { db } from './db.ts';

export async function note(line: Omit<NewJournalLine, 'at'>): Promise<void> {
  await noteAll([line]);
}

/** Several lines of one moment, all at once. */
export async function noteAll(lines: readonly Omit<NewJournalLine, 'at'>[]): Promise<void> {
  const at = new Date().toISOString();
  await db.journal.bulkAdd(lines.map((line) => journalLineSchema.parse({ ...line, at })));
}

/** Lines of a stretch of time, ISO 8601; the end is not part of it. */
export const linesBetween = (from: string, to: string): Promise<JournalLine[]> =>
  db.journal.where('at').between(from, to, true, false).toArray();

/** Lines after one, oldest first. */
export const linesAfter = (id: number): Promise<JournalLine[]> =>
  db.journal.where('id').above(id).sortBy('id');

/** How many lines there are, and the numbers of the first and the last: what tells whether any went. */
export async function journalExtent(): Promise<{ count: number; first: number; last: number }> {
  const [count, first, last] = await Promise.all([
    db.journal.count(),
    db.journal.orderBy('id').first(),
    db.journal.orderBy('id').last()
  ]);
  return { count, first: first?.id ?? 0, last: last?.id ?? 0 };
}

/** The number of the newest line; it changes whenever something is noted. */
export const newestLine = async (): Promise<number> =>
  (await db.journal.orderBy('id').last())?.id ?? 0;

/** Takes out lines and steps that are older than a moment, ISO 8601. */
export async function forgetBefore(moment: string): Promise<void> {
  await db.journal.where('at').below(moment).delete();
  await db.steps.filter((step) => step.at < moment).delete();
}

/** What happened to items, oldest first. */
export const linesOfItems = (ids: readonly string[]): Promise<JournalLine[]> =>
  db.journal.filter(({ itemId }) => ids.includes(itemId)).toArray();
