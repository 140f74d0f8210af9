import { decide, isUndecided, type Decision } from '$lib/core/lanes/decide.ts';
import type { LaneStore } from '$lib/core/lanes/runner.ts';
import { laneSchema, type Lane } from '$lib/core/lanes/lane.ts';
import {
  changeRequest,
  outboxEntrySchema,
  type OutboxEntry,
  type OutboxState
} from '$lib/core/delivery/outbox.ts';
import { transferSchema } from '$lib/core/delivery/transfer.ts';
import { laneRecordSchema, type LaneRecord } from '$lib/core/lanes/record.ts';
import type { LaneRun } from '$lib/core/lanes/run.ts';
import { db } from './db.ts';
import { keepTrashed } from './trash.ts';
import { patchRow } from './patchRow.ts';

export const allLanes = async (): Promise<Lane[]> =>
  (await db.lanes.toArray()).sort((a, b) => a.created - b.created);
export const getLane = (id: string): Promise<Lane | undefined> => db.lanes.get(id);
export const countLanes = (): Promise<number> => db.lanes.count();

export const addLane = async (lane: Lane): Promise<unknown> => db.lanes.put(laneSchema.parse(lane));

/** Changes some fields of a lane and leaves all others as they are by now. */
export const patchLane = (id: string, patch: Partial<Lane>): Promise<void> =>
  patchRow(db.lanes, laneSchema, id, patch);

/** Keeps what `merge` makes of what is kept, in one transaction; a lane that was taken out stays away. */
export const updateLane = (id: string, merge: (stored: Lane) => Lane): Promise<unknown> =>
  db.transaction('rw', db.lanes, async () => {
    const stored = await db.lanes.get(id);
    if (stored) await db.lanes.put(laneSchema.parse(merge(stored)));
  });

/**
 * Takes a lane out with its records; what it published stays in the outbox and can be undone.
 * @param trash name under which it is kept for an undo
 */
export async function removeLane(id: string, trash: string, now: Date): Promise<void> {
  const tables = [db.lanes, db.records, db.runs, db.outbox, db.transfers, db.trash];
  await db.transaction('rw', tables, async () => {
    const ofLane = async (table: 'lanes' | 'records' | 'runs' | 'outbox') => {
      const rows: object[] = await db
        .table(table)
        .where(table === 'lanes' ? { id } : { laneId: id })
        .toArray();
      return rows.map((row) => ({ table, row }));
    };
    const names = ['lanes', 'records', 'runs', 'outbox'] as const;
    await keepTrashed(trash, (await Promise.all(names.map(ofLane))).flat(), now);
    await db.records.where({ laneId: id }).delete();
    await db.runs.where({ laneId: id }).delete();
    // What was not sent yet goes with its lane.
    const unsent = await db.outbox.where({ laneId: id }).filter(isUndecided).primaryKeys();
    await db.outbox.bulkDelete(unsent);
    await db.transfers.bulkDelete(unsent);
    // What is being sent is left to the outbox.
    await db.outbox.where({ laneId: id }).modify({ laneId: '' });
    await db.lanes.delete(id);
  });
}

/** Ends the runs of a lane that a closed page left open; to be called while no other goes on. */
export const endCutRuns = (laneId: string, now: number): Promise<unknown> =>
  db.runs
    .where({ laneId })
    .filter((run) => run.ended === null)
    .modify({ ended: now });

const OPEN: readonly OutboxState[] = ['planned', 'waiting', 'sending', 'failed'];

/**
 * What of a lane may still have to go out, by key and state; nothing is read but the index. The same
 * words mean that nothing was approved, begun or ended.
 */
export async function openWork(laneId: string): Promise<string[]> {
  const open = OPEN.map(async (state) => {
    const keys = await db.outbox.where({ laneId, state }).primaryKeys();
    return keys.map((key) => `${state} ${key}`);
  });
  return (await Promise.all(open)).flat();
}

/** The latest runs of a lane, newest first. */
export const latestRuns = async (laneId: string, most: number): Promise<LaneRun[]> =>
  (await db.runs.where({ laneId }).sortBy('at')).reverse().slice(0, most);

export const recordsOf = (laneId: string): Promise<LaneRecord[]> =>
  db.records.where({ laneId }).toArray();
export const recordsOfRun = (runId: string): Promise<LaneRecord[]> =>
  db.records.where({ runId }).toArray();

/** What waits for review, oldest first, each with its entries. */
export async function recordsInReview(): Promise<{ record: LaneRecord; entries: OutboxEntry[] }[]> {
  const records = await db.records.where({ state: 'in-review' }).sortBy('changed');
  return Promise.all(
    records.map(async (record) => ({
      record,
      entries: (await db.outbox.bulkGet(record.keys)).filter((e) => e !== undefined)
    }))
  );
}

/** Lets an item be made once more by its lane, though it was undone, removed or skipped. */
export async function makeAgain(recordId: string, now: number): Promise<void> {
  await db.records.update(recordId, {
    state: 'found',
    again: true,
    keys: [],
    problem: null,
    reason: null,
    attempts: 0,
    nextTry: 0,
    changed: now
  });
}

export const laneStore: LaneStore = {
  async saveRun(run) {
    await db.runs.put(run);
  },
  records: recordsOf,
  record: async (id) => (await db.records.get(id)) ?? null,
  async saveRecords(records) {
    await db.records.bulkPut(records.map((r) => laneRecordSchema.parse(r)));
  },
  entries: (laneId) => db.outbox.where({ laneId }).toArray(),
  entry: async (key) => (await db.outbox.get(key)) ?? null,
  async saveMade(record, entries, transfers) {
    await db.transaction('rw', db.records, db.outbox, db.transfers, async () => {
      for (const entry of entries) {
        const known = await db.outbox.get(entry.key);
        if (known && known.state !== 'removed') continue;
        await db.outbox.put(outboxEntrySchema.parse(entry));
        const transfer = transfers.find((t) => t.key === entry.key);
        if (transfer) await db.transfers.put(transferSchema.parse(transfer));
      }
      await db.records.put(laneRecordSchema.parse(record));
    });
  },
  async patchEntry({ key, revision, state }, patch) {
    await db.transaction('rw', db.outbox, async () => {
      const entry = await db.outbox.get(key);
      if (!entry || entry.revision !== revision || entry.state !== state) return;
      await db.outbox.put(outboxEntrySchema.parse({ ...entry, ...patch }));
    });
  }
};

/**
 * Applies a decision to things that wait for review.
 * @param now milliseconds since 1970
 * @param pin of what is approved: the time that the user gave it
 * @returns how many were decided on; what a blocking finding holds is not approved
 */
export function decideAll(
  records: readonly LaneRecord[],
  decision: Decision,
  now: number,
  pin?: OutboxEntry['pin']
): Promise<number> {
  return db.transaction('rw', db.records, db.outbox, db.transfers, async () => {
    let count = 0;
    for (const { id } of records) {
      const record = await db.records.get(id);
      if (!record) continue;
      const entries = (await db.outbox.bulkGet(record.keys)).filter((e) => e !== undefined);
      const decided = decide(record, entries, decision, now);
      if (!decided) continue;
      count++;
      await db.records.put(decided.record);
      await db.outbox.bulkPut(pin ? decided.kept.map((e) => ({ ...e, pin })) : decided.kept);
      await db.outbox.bulkDelete(decided.dropped);
      await db.transfers.bulkDelete(decided.dropped);
    }
    return count;
  });
}

/** Puts what was approved, and has not begun to go out, back to wait for review. */
export function backToReview(recordId: string, now: number): Promise<void> {
  return db.transaction('rw', db.records, db.outbox, async () => {
    const record = await db.records.get(recordId);
    if (record?.state !== 'planned') return;
    await db.outbox
      .where('key')
      .anyOf(record.keys)
      .filter(({ state }) => state === 'planned')
      .modify((entry) => {
        entry.state = 'in-review';
        entry.pin = null;
      });
    await db.records.update(recordId, { state: 'in-review', changed: now });
  });
}

/**
 * Begins to undo what was made of an item, all at once: what waits is dropped, of what was sent the
 * removal is requested, and the record still names its entries until they are gone. A tab that is
 * closed in between leaves it to be finished.
 * @returns the keys whose removal was requested
 */
export function beginUndo(recordId: string, now: number): Promise<string[]> {
  return db.transaction('rw', db.records, db.outbox, db.transfers, async () => {
    const record = await db.records.get(recordId);
    if (!record) return [];
    const requested: string[] = [];
    for (const entry of await db.outbox.bulkGet(record.keys)) {
      if (!entry) continue;
      if (isUndecided(entry) && entry.publishedRevision === 0 && entry.attempts === 0) {
        await db.outbox.delete(entry.key);
        await db.transfers.delete(entry.key);
      } else if (entry.state !== 'removed') {
        if (entry.wanted !== 'removed')
          await db.outbox.put(changeRequest(entry, { wanted: 'removed' }, now));
        requested.push(entry.key);
      }
    }
    return requested;
  });
}

/** Writes down what came of undoing a record. @returns whether all of it is gone */
export function endUndo(recordId: string, now: number): Promise<boolean> {
  return db.transaction('rw', db.records, db.outbox, async () => {
    const record = await db.records.get(recordId);
    if (!record) return true;
    const entries = await db.outbox.bulkGet(record.keys);
    const isGone = entries.every((e) => !e || e.state === 'removed');
    await db.records.put({ ...record, state: isGone ? 'undone' : 'failed', changed: now });
    return isGone;
  });
}
