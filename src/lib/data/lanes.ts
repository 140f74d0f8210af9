import type { LaneShelf } from '$lib/core/lanes/drive.ts';
import { laneSchema, type Lane } from '$lib/core/lanes/lane.ts';
import { outboxEntrySchema, type OutboxState } from '$lib/core/lanes/outbox.ts';
import { laneRecordSchema, type LaneRecord } from '$lib/core/lanes/record.ts';
import { db } from './db.ts';

export const saveLane = (lane: Lane): Promise<unknown> => db.lanes.put(laneSchema.parse(lane));

/** Takes a lane out with its records; what it placed stays in the outbox and can be undone. */
export async function removeLane(id: string): Promise<void> {
  const tables = [db.lanes, db.records, db.runs, db.outbox, db.transfers];
  await db.transaction('rw', tables, async () => {
    await db.records.where({ laneId: id }).delete();
    await db.runs.where({ laneId: id }).delete();
    // What was not sent yet goes with its lane.
    const unsent = await db.outbox
      .where({ laneId: id })
      .filter((e) => e.state === 'in-review' || e.state === 'planned')
      .primaryKeys();
    await db.outbox.bulkDelete(unsent);
    await db.transfers.bulkDelete(unsent);
    // What is being sent is left to the outbox.
    await db.outbox.where({ laneId: id }).modify({ laneId: '' });
    await db.lanes.delete(id);
  });
}

const OPEN: readonly OutboxState[] = ['planned', 'waiting', 'sending', 'failed'];

/**
 * What of a lane may still have to go out, by key and state; nothing is read but the index. The same
 * words mean that nothing was let out, begun or ended.
 */
export async function openWork(laneId: string): Promise<string[]> {
  const open = OPEN.map(async (state) => {
    const keys = await db.outbox.where({ laneId, state }).primaryKeys();
    return keys.map((key) => `${state} ${key}`);
  });
  return (await Promise.all(open)).flat();
}

export const laneShelf: LaneShelf = {
  records: (laneId) => db.records.where({ laneId }).toArray(),
  record: async (id) => (await db.records.get(id)) ?? null,
  async saveRecords(records) {
    await db.records.bulkPut(records.map((r) => laneRecordSchema.parse(r)));
  },
  entries: (laneId) => db.outbox.where({ laneId }).toArray(),
  entry: async (key) => (await db.outbox.get(key)) ?? null,
  async shelve(record, entries) {
    await db.transaction('rw', db.records, db.outbox, async () => {
      for (const entry of entries)
        if (!(await db.outbox.get(entry.key))) await db.outbox.put(outboxEntrySchema.parse(entry));
      await db.records.put(laneRecordSchema.parse(record));
    });
  },
  async saveEntry(entry) {
    await db.outbox.put(outboxEntrySchema.parse(entry));
  }
};

/** What the user decides about things that wait for review. Times are milliseconds since 1970. */
export function decide(
  records: readonly LaneRecord[],
  decision: 'let-out' | 'send-back' | 'skip',
  now: number
): Promise<void> {
  return db.transaction('rw', db.records, db.outbox, db.transfers, async () => {
    for (const { id } of records) {
      const record = await db.records.get(id);
      if (!record) continue;
      const entries = (await db.outbox.bulkGet(record.keys)).filter(
        (e) => e?.state === 'in-review' || e?.state === 'planned'
      );
      for (const entry of entries) {
        if (!entry) continue;
        if (decision === 'let-out')
          await db.outbox.put({ ...entry, state: 'planned', updated: now });
        else {
          await db.outbox.delete(entry.key);
          // The file that waited to follow it does not follow any more.
          await db.transfers.delete(entry.key);
        }
      }
      if (decision === 'let-out')
        await db.records.put({ ...record, state: 'planned', changed: now });
      else
        await db.records.put({
          ...{ ...record, keys: [], changed: now },
          state: decision === 'skip' ? 'skipped' : 'found'
        });
    }
  });
}
