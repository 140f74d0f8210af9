import { newEntry, changeRequest, TIMES } from '../delivery/outbox.ts';
import type { MakeFinding, OutboxEntry } from '../delivery/outbox.ts';
import type { Payload } from '../delivery/payload.ts';
import { isPassing, toProblem, waitAfter, type Backoff } from '../delivery/retry.ts';
import type { Transfer } from '../delivery/transfer.ts';
import { PlaceError, type Problem } from '../model/place.ts';
import { nextAllowed, type Allowance, type PaceHistory } from './pace.ts';
import { rateOf } from './rate.ts';
import {
  dropReason,
  inOrder,
  nothingWhySchema,
  type Candidate,
  type DropReason
} from './filter.ts';
import type { Lane, LaneTarget } from './lane.ts';
import { isMade, isOpen, recordId, standingOf, type LaneRecord } from './record.ts';
import type { LaneRun } from './run.ts';

/** What was made of an item for one place, before anything is sent. */
export interface Made {
  /** The same for the same item, kind and place, whichever lane makes it. */
  key: string;
  payload: Payload;
  findings: MakeFinding[];
  /** The file that follows it to its place, or null. */
  transfer: Transfer | null;
}

/** Where records and entries are kept. Each call is done whole or not at all. */
export interface LaneStore {
  saveRun(run: LaneRun): Promise<void>;
  records(laneId: string): Promise<LaneRecord[]>;
  record(id: string): Promise<LaneRecord | null>;
  saveRecords(records: readonly LaneRecord[]): Promise<void>;
  /** The entries that a lane made. */
  entries(laneId: string): Promise<OutboxEntry[]>;
  entry(key: string): Promise<OutboxEntry | null>;
  /**
   * Keeps a record with its new entries and their files. An entry whose key is known already is
   * not touched, unless it was removed.
   */
  saveMade(
    record: LaneRecord,
    entries: readonly OutboxEntry[],
    transfers: readonly Transfer[]
  ): Promise<void>;
  /** Changes some fields of an entry, as long as nobody else has changed it since it was read. */
  patchEntry(entry: OutboxEntry, patch: Partial<OutboxEntry>): Promise<void>;
}

/** What a lane found in its sources. */
export interface Discovered {
  seen: number;
  dropped: number;
  /** What is to be made, in order. */
  found: { record: LaneRecord; candidate: Candidate }[];
  /** How many it took lately, where the rate guard stopped it; else null. */
  rateGuard: number | null;
}

/** What a lane needs of the world. Times are milliseconds since 1970. */
export interface LaneWorld {
  store: LaneStore;
  now(): number;
  /** Reads the sources of a lane anew, and asks its places what they still take. */
  refresh(lane: Lane, signal: AbortSignal, report: (step: string) => void): Promise<void>;
  /** Calls `discover` with all that the sources have, wherever that is quickest. */
  discover(lane: Lane, runId: string): Promise<Discovered>;
  /** @throws PlaceError where it cannot be made now or at all */
  make(lane: Lane, candidate: Candidate, target: LaneTarget, signal: AbortSignal): Promise<Made>;
  /** Switches a lane off, because its rate guard stopped it. */
  stopLane(lane: Lane, made: number): Promise<void>;
  allowances(lane: Lane): Promise<(Allowance & { placeId: string })[]>;
  /** Times at which the user wants nothing published. */
  busy(): Promise<{ from: number; to: number }[]>;
  /** Works on an entry of the outbox until it is delivered or has to wait. */
  deliver(key: string): Promise<void>;
  /** Until when nothing is sent to a place, because it kept failing. */
  pausedUntil(placeId: string): Promise<number>;
  pause(placeId: string, problem: Problem): Promise<void>;
  /** A place that was paused took something. */
  resume(placeId: string): Promise<void>;
}

/** Milliseconds that are kept free for the calls of one delivery: a search, then the publishing. */
export const RESERVE = 2 * TIMES.callLimit;
/** Waits before something is made again that could not be made. */
const BACKOFF: Backoff = { first: 60_000, max: 6 * 3_600_000 };
const WEEK = 7 * 86_400_000;
/** Times the usual that a lane may take in a week, and what it may take in any case. */
const [RATE_FACTOR, MIN_RATE_LIMIT] = [4, 20];
/** Problems of one thing that is published; all others are the place's. */
const OF_THE_ITEM = new Set([
  'refused',
  'too-large',
  'changed-there',
  'stopped',
  'storage',
  'internal'
]);

/**
 * One run of a lane: reads its sources, filters, and makes what the most of one run allows. Sends
 * nothing: what is made goes out later, by `advance`.
 * @returns what it did, with the problem that ended it early, or null
 */
export async function run(
  lane: Lane,
  world: LaneWorld,
  runId: string,
  signal: AbortSignal,
  report: (step: string, done?: number) => void = () => {}
): Promise<LaneRun> {
  const going: LaneRun = {
    id: runId,
    laneId: lane.id,
    at: world.now(),
    ended: null,
    seen: 0,
    dropped: 0,
    made: 0,
    failed: 0,
    problem: null
  };
  await world.store.saveRun(going);
  try {
    await world.refresh(lane, signal, report);
    signal.throwIfAborted();
    await syncRecords(lane, world);
    report('Filtering');
    const discovered = await world.discover(lane, runId);
    going.seen = discovered.seen;
    going.dropped = discovered.dropped;
    if (discovered.rateGuard !== null) await world.stopLane(lane, discovered.rateGuard);
    const count = Math.min(discovered.found.length, lane.pace.perRun ?? Infinity);
    for (const [i, { record, candidate }] of discovered.found.entries()) {
      report(`Making ${Math.min(i + 1, count)} of ${count}`, Math.min(1, i / count));
      if (going.made >= (lane.pace.perRun ?? Infinity)) break;
      signal.throwIfAborted();
      if (record.nextTry > world.now()) continue;
      const tried = await makeOne(lane, world, record, candidate, signal);
      if (isMade(tried) && tried.problem === null) going.made++;
      if (tried.problem !== null) going.failed++;
      // What a page that is closed in the middle has made can still be undone as its run.
      await world.store.saveRun(going);
    }
  } catch (error) {
    going.problem = signal.aborted
      ? toProblem(new PlaceError({ kind: 'stopped' }))
      : toProblem(error);
  }
  going.ended = world.now();
  await world.store.saveRun(going);
  return going;
}

/**
 * Looks at all that the sources have and writes down what is taken and why the rest is not. What was
 * made before, or skipped, is not looked at again.
 * @param candidates all that the sources of the lane have, whatever the filter says
 */
export async function discover(
  lane: Lane,
  candidates: readonly Candidate[],
  store: Pick<LaneStore, 'records' | 'saveRecords'>,
  runId: string,
  now: number
): Promise<Discovered> {
  const known = new Map((await store.records(lane.id)).map((r) => [r.itemId, r]));
  let taken = [...known.values()].filter(isMade).length;
  const seen: LaneRecord[] = [];
  const found: Discovered['found'] = [];
  const limit = rateGuardLimit(lane, candidates, now);
  let lately = [...known.values()].filter((r) => isMade(r) && r.found > now - WEEK).length;
  let rateGuard: number | null = null;
  for (const candidate of inOrder(candidates, lane.filter)) {
    const { item } = candidate;
    const before = known.get(item.id);
    if (before && !isOpen(before, lane.changed)) continue;
    let reason: DropReason | null = before?.again ? null : dropReason(candidate, lane, now);
    const { mostInAll } = lane.filter;
    if (!reason && mostInAll !== null && taken >= mostInAll)
      reason = { kind: 'enough-in-all', most: mostInAll };
    if (!reason && lately >= limit) {
      reason = { kind: 'rate-guard', made: lately };
      rateGuard = lately;
    }
    const record: LaneRecord = {
      ...(before ?? {
        id: recordId(lane.id, item.id),
        laneId: lane.id,
        itemId: item.id,
        found: now,
        problem: null,
        attempts: 0,
        nextTry: 0,
        keys: [],
        again: false
      }),
      title: item.title,
      url: item.url,
      runId,
      reason,
      changed: now,
      state: reason ? 'dropped' : 'found'
    };
    seen.push(record);
    if (reason) continue;
    taken++;
    lately++;
    found.push({ record, candidate });
  }
  await store.saveRecords(seen);
  return { seen: seen.length, dropped: seen.length - found.length, found, rateGuard };
}

/**
 * How many a lane may take in a week before it is held: several times what its source usually
 * gives. A catalogue that is worked through ends by itself and needs no limit.
 */
function rateGuardLimit(lane: Lane, candidates: readonly Candidate[], now: number): number {
  if (lane.filter.scope !== 'new') return Infinity;
  const times = candidates.map((c) => Date.parse(c.item.published ?? '')).filter(Number.isFinite);
  const { everyDays } = rateOf(
    times.filter((t) => t < now - WEEK),
    now
  );
  return Math.max(MIN_RATE_LIMIT, everyDays === null ? 0 : RATE_FACTOR * (7 / everyDays));
}

/** Whether findings make something wait for a person: no approval mode lets a blocking one through. */
export function needsReview(
  mode: Lane['approval']['mode'],
  findings: readonly MakeFinding[]
): boolean {
  if (findings.some((f) => f.level === 'blocking')) return true;
  if (mode === 'always') return false;
  return mode === 'after-review' || findings.length > 0;
}

/** What a lane makes of one item, for one of its places. */
export interface MadeForTarget {
  target: LaneTarget;
  made: Made;
  /** Made already, by hand or by a lane: it is at the place once, whoever made it. */
  isKnown: boolean;
  entry: OutboxEntry;
}

/**
 * Makes an item for all places of a lane. Keeps nothing: a run keeps what comes back, a rehearsal
 * shows it.
 * @param again whether what was undone or removed before may be made once more
 * @throws PlaceError where it cannot be made now or at all
 */
export async function makeForTargets(
  lane: Lane,
  world: Pick<LaneWorld, 'make' | 'now'> & { store: Pick<LaneStore, 'entry'> },
  candidate: Candidate,
  signal: AbortSignal,
  again = false
): Promise<MadeForTarget[]> {
  const all: MadeForTarget[] = [];
  for (const target of lane.targets) {
    const made = await world.make(lane, candidate, target, signal);
    const { key, payload, findings } = made;
    const known = await world.store.entry(key);
    const isFree = known === null || (again && known.state === 'removed');
    const state = needsReview(lane.approval.mode, findings) ? 'in-review' : 'planned';
    const fresh = {
      key,
      itemId: candidate.item.id,
      placeId: target.placeId,
      laneId: lane.id,
      payload,
      findings,
      state
    } as const;
    const now = world.now();
    const entry = known
      ? { ...changeRequest(known, { wanted: 'published', payload }, now), ...fresh, created: now }
      : newEntry(fresh, now);
    all.push({ target, made, isKnown: !isFree, entry });
  }
  return all;
}

async function makeOne(
  lane: Lane,
  world: LaneWorld,
  record: LaneRecord,
  candidate: Candidate,
  signal: AbortSignal
): Promise<LaneRecord> {
  let made: MadeForTarget[];
  try {
    made = await makeForTargets(lane, world, candidate, signal, record.again);
  } catch (error) {
    if (!(error instanceof PlaceError)) throw error;
    const after = afterFailure(record, error, world.now());
    await world.store.saveRecords([after]);
    return after;
  }
  const fresh = made.filter((m) => !m.isKnown);
  const now = world.now();
  if (fresh.length === 0) {
    const reason = { kind: 'made-already' as const };
    const dropped: LaneRecord = { ...record, state: 'dropped', reason, changed: now };
    await world.store.saveRecords([dropped]);
    return dropped;
  }
  const entries = fresh.map((m) => m.entry);
  const kept = recordOfMade(record, entries, now);
  await world.store.saveMade(
    kept,
    entries,
    fresh.flatMap((m) => m.made.transfer ?? [])
  );
  return kept;
}

/** A record of something that was made. */
export const recordOfMade = (
  record: LaneRecord,
  entries: readonly OutboxEntry[],
  now: number
): LaneRecord => {
  const keys = entries.map((e) => e.key);
  return {
    ...record,
    reason: null,
    problem: null,
    again: false,
    changed: now,
    keys,
    state: standingOf({ ...record, keys }, entries)
  };
};

function afterFailure(record: LaneRecord, error: PlaceError, now: number): LaneRecord {
  const { kind, detail } = error.problem;
  if (kind !== 'nothing-to-make') return afterTry(record, error.problem, now);
  const why = nothingWhySchema.safeParse(detail).data ?? 'nothing-stated';
  return { ...record, state: 'dropped', changed: now, reason: { kind, why } };
}

function afterTry(record: LaneRecord, problem: Problem, now: number): LaneRecord {
  const attempts = record.attempts + 1;
  return {
    ...record,
    problem,
    attempts,
    changed: now,
    nextTry: now + waitAfter(attempts, BACKOFF, problem),
    // What may pass is tried for as long as the lane runs; the rest is left to the user.
    state: isPassing(problem.kind) ? 'found' : 'failed'
  };
}

/**
 * What the pace of a lane has to keep to. One item counts once, whatever its places; what may have
 * reached a place, though nobody knows, counts as well, and so does what the user planned for a time.
 * @param except an item that is not counted, because it is the one that is to go out
 */
export async function historyOf(
  lane: Lane,
  world: Pick<LaneWorld, 'allowances' | 'busy' | 'now'>,
  entries: readonly OutboxEntry[],
  except = ''
): Promise<PaceHistory> {
  const published = new Map<string, number>();
  const now = world.now();
  const pinned = new Map<string, number[]>();
  for (const entry of entries) {
    const { itemId, placeId, pin } = entry;
    if (itemId === except || !pin || pin.at <= now || entry.state !== 'planned') continue;
    if (!published.has(itemId)) published.set(itemId, pin.at);
    pinned.set(placeId, [...(pinned.get(placeId) ?? []), pin.at]);
  }
  for (const entry of entries) {
    const { itemId, updated, unsettledUntil } = entry;
    if (itemId === except || !mayStand(entry)) continue;
    const at = appearsAt(entry) ?? Math.max(updated, unsettledUntil);
    published.set(itemId, Math.max(published.get(itemId) ?? 0, at));
  }
  return {
    placed: [...published.values()],
    since: lane.since ?? lane.created,
    busy: await world.busy(),
    allowances: (await world.allowances(lane)).map((allowance) => ({
      ...allowance,
      used: [...allowance.used, ...(pinned.get(allowance.placeId) ?? [])]
    }))
  };
}

const mayStand = ({ state, publishedRevision, attempts, unsettledUntil }: OutboxEntry): boolean =>
  state === 'published' || publishedRevision > 0 || attempts > 0 || unsettledUntil > 0;

/**
 * Takes one step with what a lane has in the outbox: goes on with what was begun, else sends the
 * next if the pace allows it. What is begun is finished before the next is begun.
 * @returns when to come back, or null where nothing is planned
 */
export async function advance(lane: Lane, world: LaneWorld): Promise<number | null> {
  const now = world.now();
  const entries = (await world.store.entries(lane.id)).filter((e) => e.wanted === 'published');
  const { next, wakes } = await nextOf(entries, world, now);
  if (!next) return wakes;
  const history = await historyOf(lane, world, entries, next.itemId);
  const isBegun = next.state === 'waiting' || next.state === 'sending';
  const from = isBegun ? Math.max(now, next.nextTry) : now;
  const wish = Math.max(from, next.pin?.at ?? from);
  const slot = next.pin?.insists
    ? { at: wish, waitsFor: null }
    : nextAllowed(lane.pace, history, wish, RESERVE);
  if (!slot) return wakes;
  const isDated = isDatedPost(next);
  // What appears on a date is published before it; only a retry has to wait.
  const opens = isDated ? from : slot.at;
  if (opens > now) return Math.min(opens, wakes ?? opens);
  if (!isBegun)
    await world.store.patchEntry(next, {
      state: 'waiting',
      attempts: 0,
      problem: null,
      ...(isDated && { payload: dated(next, slot.at) }),
      nextTry: now,
      updated: Math.max(next.updated, now)
    });
  await world.deliver(next.key);
  const after = await world.store.entry(next.key);
  if (after && isHalted(after) && after.problem) await world.pause(after.placeId, after.problem);
  else if (after?.state === 'published') await world.resume(after.placeId);
  if (after) await syncRecord(lane, world, entries, after);
  return world.now();
}

const isDatedPost = ({ payload }: OutboxEntry): boolean =>
  'status' in payload && payload.status === 'dated';

/** When a dated post is to appear; null for all else, and while no date was given. */
function appearsAt({ payload }: OutboxEntry): number | null {
  const date = 'status' in payload && payload.status === 'dated' ? payload.date : null;
  return date === null ? null : Date.parse(date);
}

/** The payload with its date; one that it has already and that lies ahead stays. */
function dated(entry: OutboxEntry, at: number): Payload {
  const { payload } = entry;
  if (!('status' in payload)) return payload;
  const known = entry.attempts > 0 || entry.publishedRevision > 0 ? appearsAt(entry) : null;
  return { ...payload, date: new Date(known ?? at).toISOString() };
}

/** Whether a place, and not the thing itself, kept an entry from being published. */
const isHalted = ({ state, problem }: OutboxEntry): boolean =>
  state === 'failed' && (problem === null || !OF_THE_ITEM.has(problem.kind));

/**
 * What is to be worked on next: what was begun, what a place had refused for a while, what is planned.
 * @returns and when the lane has to be looked at again at the latest
 */
async function nextOf(
  entries: readonly OutboxEntry[],
  world: LaneWorld,
  now: number
): Promise<{ next: OutboxEntry | null; wakes: number | null }> {
  const begun = entries.find((e) => e.state === 'waiting' || e.state === 'sending');
  if (begun) return { next: begun, wakes: null };
  let wakes: number | null = null;
  const wakeBy = (at: number) => (wakes = Math.min(wakes ?? at, at));
  const early = (e: OutboxEntry) => isPinnedAfter(e, now) && !isDatedPost(e);
  for (const entry of entries) if (early(entry)) wakeBy(entry.pin!.at);
  for (const entry of [...entries.filter(isHalted), ...inTurn(entries)]) {
    if (early(entry)) continue;
    const until = await world.pausedUntil(entry.placeId);
    if (until <= now) return { next: entry, wakes };
    wakeBy(until);
  }
  return { next: null, wakes };
}

/** Whether something is planned for a time that lies ahead. */
export const isPinnedAfter = ({ state, pin }: OutboxEntry, now: number): boolean =>
  state === 'planned' && pin !== null && pin.at > now;

/**
 * What may go out, in the order in which it does: the places of an item follow each other, what has its time comes
 * before the rest, then what was made first.
 */
export function inTurn(entries: readonly OutboxEntry[]): OutboxEntry[] {
  const out = new Set(entries.filter((e) => e.state === 'published').map((e) => e.itemId));
  const isHalfOut = (e: OutboxEntry) => Number(out.has(e.itemId));
  const time = (e: OutboxEntry) => e.pin?.at ?? Infinity;
  return entries
    .filter((e) => e.state === 'planned')
    .sort(
      (a, b) =>
        isHalfOut(b) - isHalfOut(a) ||
        Number(time(a) > time(b)) - Number(time(a) < time(b)) ||
        a.created - b.created
    );
}

/** Brings the record of one item up to what became of one of its entries. */
async function syncRecord(
  lane: Lane,
  { store, now }: Pick<LaneWorld, 'store' | 'now'>,
  entries: readonly OutboxEntry[],
  delivered: OutboxEntry
): Promise<void> {
  const { itemId, key } = delivered;
  const record = await store.record(recordId(lane.id, itemId));
  if (!record) return;
  const others = entries.filter((e) => e.itemId === itemId && e.key !== key);
  const state = standingOf(record, [...others, delivered]);
  if (state !== record.state) await store.saveRecords([{ ...record, state, changed: now() }]);
}

/** Brings the records of a lane up to what became of their entries. */
export async function syncRecords(
  lane: Lane,
  { store, now }: Pick<LaneWorld, 'store' | 'now'>
): Promise<void> {
  const byItem = new Map<string, OutboxEntry[]>();
  for (const entry of await store.entries(lane.id))
    byItem.set(entry.itemId, [...(byItem.get(entry.itemId) ?? []), entry]);
  const changed: LaneRecord[] = [];
  for (const record of await store.records(lane.id)) {
    const state = standingOf(record, byItem.get(record.itemId) ?? []);
    if (state !== record.state) changed.push({ ...record, state, changed: now() });
  }
  if (changed.length > 0) await store.saveRecords(changed);
}
