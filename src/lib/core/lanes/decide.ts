import type { OutboxEntry } from '../delivery/outbox.ts';
import type { LaneRecord } from './record.ts';

/** What the user may decide about what a lane made of an item. */
export type Decision = 'approve' | 'send-back' | 'skip';

/** What becomes of a record and its entries by a decision. */
export interface Decided {
  record: LaneRecord;
  /** Entries as they are to be stored. */
  kept: OutboxEntry[];
  /** Keys of entries that are dropped, with the files that wait to follow them. */
  dropped: string[];
}

/** Whether a finding keeps an entry from being approved. */
export const isBlocked = ({ findings }: Pick<OutboxEntry, 'findings'>): boolean =>
  (findings ?? []).some((f) => f.level === 'blocking');

/** Whether an entry still waits for the user or for its turn, so that it can be decided on. */
export const isUndecided = ({ state }: Pick<OutboxEntry, 'state'>): boolean =>
  state === 'in-review' || state === 'planned';

/**
 * Applies a decision to what a lane made of an item. What was sent already is left alone.
 * @param entries those of the record
 * @param now milliseconds since 1970
 * @returns null where a blocking finding keeps it from being approved
 */
export function decide(
  record: LaneRecord,
  entries: readonly OutboxEntry[],
  decision: Decision,
  now: number
): Decided | null {
  const undecided = entries.filter(isUndecided);
  if (decision === 'approve') {
    if (undecided.some(isBlocked)) return null;
    return {
      record: { ...record, state: 'planned', changed: now },
      kept: undecided.map((entry) => ({ ...entry, state: 'planned', updated: now })),
      dropped: []
    };
  }
  const state = decision === 'skip' ? 'skipped' : 'found';
  return {
    record: { ...record, keys: [], state, changed: now },
    kept: [],
    dropped: undecided.map((e) => e.key)
  };
}
