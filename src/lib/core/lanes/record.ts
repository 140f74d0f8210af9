import { z } from 'zod';
import { problemSchema } from '../model/place.ts';
import type { OutboxEntry } from '../delivery/outbox.ts';
import { dropReasonSchema } from './filter.ts';

export const recordStateSchema = z.enum([
  'found',
  'dropped',
  'in-review',
  'planned',
  'publishing',
  'published',
  'failed',
  'undone',
  /** By the user, for good. */
  'skipped'
]);
export type RecordState = z.infer<typeof recordStateSchema>;

/** What became of one item in one lane. Times are milliseconds since 1970. */
export const laneRecordSchema = z.object({
  /** The lane and the item, joined by a space. */
  id: z.string(),
  laneId: z.string(),
  itemId: z.string(),
  /** Of the item, as it was last seen. */
  title: z.string(),
  url: z.string(),
  state: recordStateSchema,
  /** Why it was dropped. */
  reason: dropReasonSchema.nullable(),
  /** Why nothing could be made of it. */
  problem: problemSchema.nullable(),
  attempts: z.number().int(),
  nextTry: z.number(),
  /** Of the outbox, one for each place. */
  keys: z.array(z.string()),
  /** The run that looked at it last. */
  runId: z.string(),
  found: z.number(),
  changed: z.number(),
  /** The user asked for it to be made once more, though it was undone or removed before. */
  again: z.boolean().default(false)
});
export type LaneRecord = z.infer<typeof laneRecordSchema>;

export const recordId = (laneId: string, itemId: string): string => `${laneId} ${itemId}`;

/**
 * Whether the filter is asked again, because the item or the lane may have changed.
 * @param laneChanged when the lane was set otherwise; milliseconds since 1970
 */
export function isOpen({ state, reason, changed }: LaneRecord, laneChanged: number): boolean {
  if (state === 'found') return true;
  if (state !== 'dropped' || reason?.kind === 'made-already') return false;
  return reason?.kind !== 'nothing-to-make' || changed < laneChanged;
}

/** What was made and counts among what the lane made in all. */
export const isMade = ({ state }: LaneRecord): boolean =>
  !['found', 'dropped', 'undone', 'skipped'].includes(state);

/**
 * How a record stands by what became of its entries; as it is where it has none. Entries that it
 * does not name belong to something that was made before and is to be made again.
 */
export function standingOf(record: LaneRecord, entries: readonly OutboxEntry[]): RecordState {
  const own = entries.filter((e) => record.keys.includes(e.key));
  if (own.length === 0 || record.state === 'skipped') return record.state;
  const has = (state: OutboxEntry['state']) => own.some((e) => e.state === state);
  if (has('in-review')) return 'in-review';
  if (has('planned')) return 'planned';
  if (has('waiting') || has('sending')) return 'publishing';
  if (has('failed')) return 'failed';
  return has('published') ? 'published' : 'undone';
}
