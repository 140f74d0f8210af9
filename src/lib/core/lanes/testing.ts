import type { OutboxEntry } from '../delivery/outbox.ts';
import type { LaneRecord } from './record.ts';
import { discover, type LaneStore, type LaneWorld } from './runner.ts';
import type { Candidate } from './filter.ts';
import type { Lane } from './lane.ts';
import type { LaneRun } from './run.ts';

/** Things by their key, and by the groups they belong to, which never change. */
class Grouped<T> extends Map<string, T> {
  readonly #groups = new Map<string, Map<string, T>>();

  constructor(private readonly groupsOf: (value: T) => string[]) {
    super();
  }

  override set(key: string, value: T): this {
    for (const name of this.groupsOf(value)) {
      const group = this.#groups.get(name) ?? new Map<string, T>();
      this.#groups.set(name, group.set(key, value));
    }
    return super.set(key, value);
  }

  of(group: string): T[] {
    return [...(this.#groups.get(group)?.values() ?? [])];
  }
}

/** Records and entries of lanes in memory, for tests. */
export class MemoryStore implements LaneStore {
  readonly kept = new Grouped<LaneRecord>((r) => [r.laneId]);
  readonly outbox = new Grouped<OutboxEntry>((e) => [e.laneId, e.placeId]);
  readonly runs = new Map<string, LaneRun>();

  async saveRun(run: LaneRun): Promise<void> {
    this.runs.set(run.id, structuredClone(run));
  }
  async records(laneId: string): Promise<LaneRecord[]> {
    return this.kept.of(laneId);
  }
  async record(id: string): Promise<LaneRecord | null> {
    return this.kept.get(id) ?? null;
  }
  async saveRecords(records: readonly LaneRecord[]): Promise<void> {
    for (const record of records) this.kept.set(record.id, structuredClone(record));
  }
  async entries(laneId: string): Promise<OutboxEntry[]> {
    return this.outbox.of(laneId);
  }
  async entry(key: string): Promise<OutboxEntry | null> {
    return this.outbox.get(key) ?? null;
  }
  async saveMade(record: LaneRecord, entries: readonly OutboxEntry[]): Promise<void> {
    this.kept.set(record.id, structuredClone(record));
    for (const entry of entries) {
      const known = this.outbox.get(entry.key);
      if (!known || known.state === 'removed') this.outbox.set(entry.key, structuredClone(entry));
    }
  }
  async patchEntry({ key }: OutboxEntry, patch: Partial<OutboxEntry>): Promise<void> {
    const entry = this.outbox.get(key);
    if (entry) this.outbox.set(key, structuredClone({ ...entry, ...patch }));
  }
}

/** A world in which nothing is found, made or sent, but for what is given. */
export function laneWorldOf(
  given: Partial<LaneWorld> & {
    store: LaneStore;
    candidates?: (lane: Lane) => Candidate[];
  }
): LaneWorld {
  const { candidates = () => [], ...ports } = given;
  const now = given.now ?? (() => 0);
  return {
    now,
    refresh: async () => {},
    discover: (lane, runId) => discover(lane, candidates(lane), given.store, runId, now()),
    make: async () => {
      throw new Error('Nothing is made here.');
    },
    stopLane: async (lane) => {
      lane.isOn = false;
    },
    allowances: async () => [],
    busy: async () => [],
    deliver: async () => {},
    pausedUntil: async () => 0,
    pause: async () => {},
    resume: async () => {},
    ...ports
  };
}
