import { PlaceError, type Problem } from '../model/place.ts';
import { nextAllowed, type Allowance, type PaceHistory } from './pace.ts';
import { rateOf } from './rate.ts';
import { dropReason, inOrder, nothingWhySchema, type Candidate, type DropReason } from './sift.ts';
import type { Lane, LaneTarget } from './lane.ts';
import { newEntry, TIMES, toProblem, type OutboxEntry, type Payload } from './outbox.ts';
import { isMade, isOpen, recordId, standingOf, type LaneRecord } from './record.ts';

/** What was made of an item for one place, before anything is sent. */
export interface Made {
  /** The same for the same item, kind and place, whichever lane makes it. */
  key: string;
  payload: Payload;
  /** Checks that complain about it. */
  complaints: number;
}

/** Where records and entries are kept. Each call is done whole or not at all. */
export interface LaneShelf {
  records(laneId: string): Promise<LaneRecord[]>;
  record(id: string): Promise<LaneRecord | null>;
  saveRecords(records: readonly LaneRecord[]): Promise<void>;
  /** The entries that a lane made. */
  entries(laneId: string): Promise<OutboxEntry[]>;
  entry(key: string): Promise<OutboxEntry | null>;
  /** Keeps a record with its new entries. An entry whose key is known already is not touched. */
  shelve(record: LaneRecord, entries: readonly OutboxEntry[]): Promise<void>;
  saveEntry(entry: OutboxEntry): Promise<void>;
}

/** What a lane needs of the world. Times are milliseconds since 1970. */
export interface LaneWorld {
  shelf: LaneShelf;
  now(): number;
  /** All that the sources of a lane have, whatever the sift says. */
  candidates(lane: Lane): Promise<Candidate[]>;
  /** @throws PlaceError where it cannot be made now or at all */
  make(lane: Lane, candidate: Candidate, target: LaneTarget): Promise<Made>;
  allowances(lane: Lane): Promise<Allowance[]>;
  /** Works on an entry of the outbox until it is settled or has to wait. */
  settle(key: string): Promise<void>;
  /** Until when nothing is sent to a place, because it kept failing. */
  pausedUntil(placeId: string): Promise<number>;
  pause(placeId: string, problem: Problem): Promise<void>;
  /** A place that was paused took something. */
  resume(placeId: string): Promise<void>;
}

/** Milliseconds that are kept free for the calls of one placing: it is looked for, then placed. */
const RESERVE = 2 * TIMES.callLimit;
/** Milliseconds before something is made the second time, and at most before any other. */
const [FIRST_WAIT, LONGEST_WAIT] = [60_000, 6 * 3_600_000];
const WEEK = 7 * 86_400_000;
/** Times the usual that a lane may take in a week, and what it may take in any case. */
const [BRAKE, LEAST_BRAKE] = [4, 20];
/** Problems of making that may be gone later. */
const PASSING = new Set(['no-answer', 'timed-out', 'server-error', 'busy', 'stopped']);
/** Problems of one thing that is placed; all others are the place's. */
const OF_THE_ITEM = new Set(['refused', 'too-large', 'stopped']);

/**
 * Looks at all that the sources have and writes down what is taken and why the rest is not. What was
 * made before, or skipped, is not looked at again.
 */
export async function look(
  lane: Lane,
  world: Pick<LaneWorld, 'candidates' | 'now'> & {
    shelf: Pick<LaneShelf, 'records' | 'saveRecords'>;
  },
  runId: string
): Promise<LaneRecord[]> {
  const now = world.now();
  const known = new Map((await world.shelf.records(lane.id)).map((r) => [r.itemId, r]));
  let taken = [...known.values()].filter(isMade).length;
  const seen: LaneRecord[] = [];
  const candidates = await world.candidates(lane);
  const brake = brakeOf(lane, candidates, now);
  let lately = [...known.values()].filter((r) => isMade(r) && r.found > now - WEEK).length;
  for (const candidate of inOrder(candidates, lane.sift)) {
    const { item } = candidate;
    const before = known.get(item.id);
    if (before && !isOpen(before, lane.changed)) continue;
    let reason: DropReason | null = dropReason(candidate, lane, now);
    const { mostInAll } = lane.sift;
    if (!reason && mostInAll !== null && taken >= mostInAll)
      reason = { kind: 'enough-in-all', most: mostInAll };
    if (!reason && lately >= brake) reason = { kind: 'brake', made: lately };
    if (!reason) {
      taken++;
      lately++;
    }
    seen.push({
      ...(before ?? {
        ...{ id: recordId(lane.id, item.id), laneId: lane.id, itemId: item.id, found: now },
        ...{ problem: null, attempts: 0, nextTry: 0, keys: [] }
      }),
      ...{ title: item.title, url: item.url, runId, reason, changed: now },
      state: reason ? 'dropped' : 'found'
    });
  }
  await world.shelf.saveRecords(seen);
  return seen;
}

/**
 * How many a lane may take in a week before it is held: several times what its source usually
 * gives. A catalogue that is worked through ends by itself and needs none.
 */
function brakeOf(lane: Lane, candidates: readonly Candidate[], now: number): number {
  if (lane.sift.scope !== 'new') return Infinity;
  const times = candidates.map((c) => Date.parse(c.item.published ?? '')).filter(Number.isFinite);
  const { everyDays } = rateOf(
    times.filter((t) => t < now - WEEK),
    now
  );
  return Math.max(LEAST_BRAKE, everyDays === null ? 0 : BRAKE * (7 / everyDays));
}

/**
 * Makes what was found, up to the most of one run, and keeps it in the outbox: nothing is sent.
 * @returns the records that something was made of or tried
 */
export async function make(
  lane: Lane,
  world: LaneWorld,
  found: readonly LaneRecord[],
  candidates: ReadonlyMap<string, Candidate>,
  signal?: AbortSignal
): Promise<LaneRecord[]> {
  const tried: LaneRecord[] = [];
  for (const record of found) {
    if (tried.filter(isMade).length >= (lane.pace.perRun ?? Infinity)) break;
    signal?.throwIfAborted();
    const candidate = candidates.get(record.itemId);
    if (!candidate || record.nextTry > world.now()) continue;
    tried.push(await makeOne(lane, world, record, candidate));
  }
  return tried;
}

async function makeOne(
  lane: Lane,
  world: LaneWorld,
  record: LaneRecord,
  candidate: Candidate
): Promise<LaneRecord> {
  const entries: OutboxEntry[] = [];
  try {
    for (const target of lane.targets) {
      const { key, payload, complaints } = await world.make(lane, candidate, target);
      // Made by hand or by another lane: it is at the place once, whoever made it.
      if (await world.shelf.entry(key)) continue;
      const isThrough =
        lane.gate.opens === 'always' ||
        (lane.gate.opens === 'if-no-check-complains' && complaints === 0);
      const fields = { key, itemId: record.itemId, placeId: target.placeId, laneId: lane.id };
      const state = isThrough ? ('planned' as const) : ('in-review' as const);
      entries.push(newEntry({ ...fields, payload, state }, world.now()));
    }
  } catch (error) {
    if (!(error instanceof PlaceError)) throw error;
    const { kind, detail } = error.problem;
    const after: LaneRecord =
      kind === 'nothing-to-make'
        ? {
            ...{ ...record, state: 'dropped', changed: world.now() },
            reason: { kind, why: nothingWhySchema.catch('nothing-told').parse(detail) }
          }
        : afterTry(record, toProblem(error), world.now());
    await world.shelf.saveRecords([after]);
    return after;
  }
  const now = world.now();
  if (entries.length === 0) {
    const reason = { kind: 'made-already' as const };
    const dropped: LaneRecord = { ...record, state: 'dropped', reason, changed: now };
    await world.shelf.saveRecords([dropped]);
    return dropped;
  }
  const made: LaneRecord = {
    ...{ ...record, reason: null, problem: null, changed: now },
    ...{ keys: entries.map((e) => e.key), state: standingOf(record, entries) }
  };
  await world.shelf.shelve(made, entries);
  return made;
}

function afterTry(record: LaneRecord, problem: Problem, now: number): LaneRecord {
  const attempts = record.attempts + 1;
  const growing = Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** (attempts - 1));
  const wait = Math.max(growing, (problem.retryAfter ?? 0) * 1000);
  return {
    ...{ ...record, problem, attempts, changed: now, nextTry: now + wait },
    // What may pass is tried for as long as the lane runs; the rest is left to the user.
    state: PASSING.has(problem.kind) ? 'found' : 'failed'
  };
}

/**
 * What the pace of a lane has to keep to. One item counts once, whatever its places; what may have
 * reached a place, though nobody knows, counts as well.
 * @param except an item that is not counted, because it is the one that is to go out
 */
export async function historyOf(
  lane: Lane,
  world: Pick<LaneWorld, 'allowances'>,
  entries: readonly OutboxEntry[],
  except = ''
): Promise<PaceHistory> {
  const placed = new Map<string, number>();
  for (const entry of entries) {
    const { itemId, updated, unsettledUntil } = entry;
    if (itemId === except || !mayStand(entry)) continue;
    const at = appearsAt(entry) ?? Math.max(updated, unsettledUntil);
    placed.set(itemId, Math.max(placed.get(itemId) ?? 0, at));
  }
  return {
    placed: [...placed.values()],
    since: lane.since ?? lane.created,
    allowances: await world.allowances(lane)
  };
}

const mayStand = ({ state, placedRevision, attempts, unsettledUntil }: OutboxEntry): boolean =>
  state === 'placed' || placedRevision > 0 || attempts > 0 || unsettledUntil > 0;

/**
 * Takes one step with what a lane has in the outbox: goes on with what was begun, else lets the next
 * go out if the pace allows it. What is begun is finished before the next is begun.
 * @returns when to come back, or null where nothing is planned
 */
export async function moveOn(lane: Lane, world: LaneWorld): Promise<number | null> {
  const now = world.now();
  const entries = (await world.shelf.entries(lane.id)).filter((e) => e.wanted === 'placed');
  const { next, wakes } = await nextOf(entries, world, now);
  if (!next) return wakes;
  const history = await historyOf(lane, world, entries, next.itemId);
  const isBegun = next.state === 'waiting' || next.state === 'sending';
  const from = isBegun ? Math.max(now, next.nextTry) : now;
  const slot = nextAllowed(lane.pace, history, from, RESERVE);
  if (!slot) return null;
  const isDated = isDatedPost(next);
  // What appears on a date is placed before it; only a retry has to wait.
  const opens = isDated ? from : slot.at;
  if (opens > now) return opens;
  if (!isBegun)
    await world.shelf.saveEntry({
      ...{ ...next, state: 'waiting', attempts: 0, problem: null },
      ...(isDated && { payload: dated(next, slot.at) }),
      ...{ nextTry: now, updated: Math.max(next.updated, now) }
    });
  await world.settle(next.key);
  const after = await world.shelf.entry(next.key);
  if (after && isHalted(after) && after.problem) await world.pause(after.placeId, after.problem);
  else if (after?.state === 'placed') await world.resume(after.placeId);
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
  const known = entry.attempts > 0 || entry.placedRevision > 0 ? appearsAt(entry) : null;
  return { ...payload, date: new Date(known ?? at).toISOString() };
}

/** Whether a place, and not the thing itself, kept an entry from being placed. */
const isHalted = ({ state, problem }: OutboxEntry): boolean =>
  state === 'failed' && (problem === null || !OF_THE_ITEM.has(problem.kind));

/** What is to be worked on next: what was begun, what a place had refused for a while, what is planned. */
async function nextOf(
  entries: readonly OutboxEntry[],
  world: LaneWorld,
  now: number
): Promise<{ next: OutboxEntry | null; wakes: number | null }> {
  const begun = entries.find((e) => e.state === 'waiting' || e.state === 'sending');
  if (begun) return { next: begun, wakes: null };
  let wakes: number | null = null;
  for (const entry of [...entries.filter(isHalted), ...planned(entries)]) {
    const until = await world.pausedUntil(entry.placeId);
    if (until <= now) return { next: entry, wakes: null };
    wakes = Math.min(wakes ?? until, until);
  }
  return { next: null, wakes };
}

/** What may go out, oldest first; the places of an item follow each other. */
function planned(entries: readonly OutboxEntry[]): OutboxEntry[] {
  const out = new Set(entries.filter((e) => e.state === 'placed').map((e) => e.itemId));
  const isHalfOut = (e: OutboxEntry) => Number(out.has(e.itemId));
  return entries
    .filter((e) => e.state === 'planned')
    .sort((a, b) => isHalfOut(b) - isHalfOut(a) || a.created - b.created);
}

/** Brings the record of one item up to what became of one of its entries. */
async function syncRecord(
  lane: Lane,
  { shelf, now }: LaneWorld,
  entries: readonly OutboxEntry[],
  settled: OutboxEntry
): Promise<void> {
  const { itemId, key } = settled;
  const record = await shelf.record(recordId(lane.id, itemId));
  if (!record) return;
  const others = entries.filter((e) => e.itemId === itemId && e.key !== key);
  const state = standingOf(record, [...others, settled]);
  if (state !== record.state) await shelf.saveRecords([{ ...record, state, changed: now() }]);
}

/** Brings the records of a lane up to what became of their entries. */
export async function syncRecords(lane: Lane, world: LaneWorld): Promise<void> {
  const byItem = new Map<string, OutboxEntry[]>();
  for (const entry of await world.shelf.entries(lane.id))
    byItem.set(entry.itemId, [...(byItem.get(entry.itemId) ?? []), entry]);
  const changed: LaneRecord[] = [];
  for (const record of await world.shelf.records(lane.id)) {
    const state = standingOf(record, byItem.get(record.itemId) ?? []);
    if (state !== record.state) changed.push({ ...record, state, changed: world.now() });
  }
  if (changed.length > 0) await world.shelf.saveRecords(changed);
}

/** One run of a lane: looks, and makes what the most of one run allows. Sends nothing. */
export async function run(
  lane: Lane,
  world: LaneWorld,
  runId: string,
  signal?: AbortSignal
): Promise<{ seen: LaneRecord[]; tried: LaneRecord[] }> {
  await syncRecords(lane, world);
  const candidates = new Map((await world.candidates(lane)).map((c) => [c.item.id, c]));
  const seen = await look(lane, world, runId);
  const found = seen.filter((r) => r.state === 'found');
  return { seen, tried: await make(lane, world, found, candidates, signal) };
}
