import { PlaceError, type Problem } from '../model/place.ts';
import { itemSchema, type Item } from '../model/item.ts';
import { seeded, aPostPayload } from '../testing.ts';
import { advance, discover, run, syncRecords, type LaneStore, type LaneWorld } from './runner.ts';
import { MemoryStore } from './testing.ts';
import { newLane, type Lane } from './lane.ts';
import { mergeSaved, TIMES, type OutboxEntry } from '../delivery/outbox.ts';
import { deliver, type EntryStore, type Target } from '../delivery/deliver.ts';
import type { Candidate } from './filter.ts';

/** A random world of places, lanes and items, as it is given to `laneModel`. */
export interface ModelWorld {
  seed: number;
  /** Items that arrive in all. */
  items: number;
  /** Share of calls that something befalls, from 0 to 1. */
  faults: number;
}

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
const BEGIN = Date.parse('2026-03-20T06:00:00Z');
/** Days after which what is not placed is taken for lost. */
const PATIENCE = 4000;
/** The user is away for two days in the first week. */
const BUSY = [{ from: BEGIN + 3 * DAY, to: BEGIN + 5 * DAY }];

const never = new AbortController().signal;

class Crash extends Error {}

interface Standing {
  key: string;
  title: string;
  at: number;
}

/** Where the lanes of a model keep things: in memory, or as the application does. */
export interface ModelStores {
  lanes: LaneStore;
  entries: EntryStore;
  /** All entries of a place, and all lanes' entries. */
  entriesAt(placeId: string): Promise<OutboxEntry[]>;
  /** What a lane's own settings are by now, and a change of them by the user. */
  lane(id: string): Promise<Lane | null>;
  patchLane(id: string, patch: Partial<Lane>): Promise<void>;
}

/** Stores in memory. */
export function memoryStores(lanes: readonly Lane[] = []): ModelStores {
  const store = new MemoryStore();
  const kept = new Map(lanes.map((lane) => [lane.id, lane]));
  return {
    lanes: store,
    entries: {
      load: async (key) => structuredClone(store.outbox.get(key) ?? null),
      save: async (learned) => {
        store.outbox.set(learned.key, mergeSaved(store.outbox.get(learned.key) ?? null, learned));
      }
    },
    entriesAt: async (placeId) => store.outbox.of(placeId),
    lane: async (id) => kept.get(id) ?? null,
    patchLane: async (id, patch) => {
      const lane = kept.get(id);
      if (lane) kept.set(id, { ...lane, ...patch });
    }
  };
}

/**
 * Runs lanes in a random world, with faults, lost and late answers, tabs that are killed at any call,
 * and a clock that is moved on; then compares what stands at the places with what should.
 * @returns what is wrong, in words; empty where all of it holds
 */
export async function laneModel(
  { seed, items: count, faults }: ModelWorld,
  storesFor: (lanes: readonly Lane[]) => ModelStores | Promise<ModelStores> = memoryStores
): Promise<string[]> {
  const chance = seeded(seed);
  const between = (low: number, high: number) => low + Math.floor(chance() * (high - low + 1));
  let now = BEGIN;
  const wrong: string[] = [];
  /** Set when a tab is killed: nothing that it still does has any effect. */
  let isDead = false;
  const crash = (): never => {
    isDead = true;
    throw new Crash();
  };
  const items = new Map<string, Item>();
  const places = new Map<string, Map<string, Standing>>();
  /** When something first stood at a place, by key. */
  const effects = new Map<string, number>();
  const pauses = new Map<string, { until: number; tries: number }>();
  let late: { at: number; act: () => void }[] = [];
  let made = 0;
  /** What one of the places takes in a month. */
  const allowed: Readonly<Record<string, number>> = {
    'blog-2': Math.max(3, Math.ceil(count / 10))
  };

  const passTime = (ms: number) => {
    const end = now + Math.max(0, ms);
    for (;;) {
      const [due] = late.filter((l) => l.at <= end).sort((a, b) => a.at - b.at);
      if (!due) break;
      late = late.filter((l) => l !== due);
      now = Math.max(now, due.at);
      due.act();
    }
    now = end;
  };
  const isFault = () => chance() < faults;

  function call<T>(act: () => T, isWrite: boolean): T {
    if (isDead) throw new Crash();
    passTime(50);
    if (!isFault()) return act();
    switch (between(0, 6)) {
      case 0:
        return crash();
      case 1:
        throw new PlaceError({ kind: 'server-error' });
      case 2:
        throw new PlaceError({ kind: 'busy', retryAfter: between(1, 900) });
      case 3:
        if (isWrite)
          late.push({
            at: now + between(0, TIMES.callLimit - 60),
            act: () => {
              try {
                act();
              } catch {
                // A late call that finds nothing to change changes nothing.
              }
            }
          });
        throw new PlaceError({ kind: 'timed-out' });
      case 4:
        act();
        throw new PlaceError({ kind: 'no-answer' });
      case 5:
        act();
        return crash();
      default:
        act();
        throw new PlaceError({ kind: 'server-error' });
    }
  }

  function targetAt(placeId: string): Target {
    const standing = places.get(placeId) ?? new Map<string, Standing>();
    places.set(placeId, standing);
    return {
      findByKey: async (key) =>
        call(() => [...standing].find(([, s]) => s.key === key)?.[0] ?? null, false),
      publish: async (payload, key) =>
        call(() => {
          const url = `https://${placeId}.example/${++made}`;
          standing.set(url, { key, title: payload.title, at: now });
          if (effects.has(key)) wrong.push(`${key} was placed twice`);
          effects.set(key, now);
          return url;
        }, true),
      update: async (url, payload, key) =>
        call(() => {
          const before = standing.get(url);
          if (!before) throw new PlaceError({ kind: 'not-found' });
          standing.set(url, { ...before, key, title: payload.title });
          return url;
        }, true),
      remove: async () => {}
    };
  }

  const lanes = lanesOf(between, seed);
  const stores = await storesFor(lanes);
  /** A store that a killed tab cannot reach any more. */
  const whileAlive = <T extends object>(store: T): T =>
    new Proxy(store, {
      get(target, name) {
        const member = Reflect.get(target, name) as (...args: unknown[]) => unknown;
        return (...args: unknown[]) => {
          if (isDead) throw new Crash();
          return member.apply(target, args);
        };
      }
    });
  const laneStore = whileAlive(stores.lanes);
  const entryStore = whileAlive(stores.entries);
  const candidatesOf = (lane: Lane) =>
    [...items.values()]
      .filter((item) => lane.source.places.includes(item.placeId))
      .map((item): Candidate => ({
        item,
        words: 100,
        owner: 'Isolde',
        likeMade: null,
        isInPlaylist: false,
        twin: { other: null, isSetAside: false, isInHand: false }
      }));
  /** How often the user renamed each lane while it ran; the last name must stand at the end. */
  const renamed = new Map<string, string>();
  const world: LaneWorld = {
    now: () => now,
    store: laneStore,
    async refresh(lane) {
      passTime(between(100, 3000));
      if (!isFault()) return;
      const name = `${lane.id} renamed at ${now}`;
      renamed.set(lane.id, name);
      await stores.patchLane(lane.id, { name });
    },
    discover: (lane, runId) => discover(lane, candidatesOf(lane), laneStore, runId, now),
    async make(_lane, { item }, { placeId }) {
      passTime(between(100, 3000));
      if (isFault()) {
        if (chance() < 0.3) return crash();
        throw new PlaceError({ kind: 'no-answer' });
      }
      return {
        key: `${item.id} at ${placeId}`,
        payload: payloadOf(item.title),
        findings: [],
        transfer: null
      };
    },
    stopLane: ({ id }, made) => stores.patchLane(id, { isOn: false, stopped: { at: now, made } }),
    busy: async () => BUSY,
    allowances: async (lane) =>
      Promise.all(
        lane.targets.map(async ({ placeId }) => ({
          placeId,
          most: allowed[placeId] ?? 1e9,
          per: 'month' as const,
          left: allowed[placeId] ?? 1e9,
          asOf: BEGIN,
          used: (await stores.entriesAt(placeId))
            .filter((e) => e.attempts > 0 || e.publishedRevision > 0)
            .map((e) => effects.get(e.key) ?? e.updated)
        }))
      ),
    async deliver(key) {
      const entry = await entryStore.load(key);
      if (!entry) return;
      await deliver(key, {
        target: targetAt(entry.placeId),
        now: () => now,
        chance,
        store: {
          load: (k) => entryStore.load(k),
          async save(learned) {
            await entryStore.save(learned);
            // The tab may be closed when something was just written down.
            if (chance() < faults / 8) crash();
          }
        }
      });
    },
    pausedUntil: async (placeId) => pauses.get(placeId)?.until ?? 0,
    async pause(placeId: string, _problem: Problem) {
      const tries = (pauses.get(placeId)?.tries ?? 0) + 1;
      pauses.set(placeId, { tries, until: now + Math.min(6 * HOUR, 10 * MINUTE * 2 ** tries) });
    },
    resume: async (placeId) => void pauses.delete(placeId)
  };

  const step = async (work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (error) {
      // The tab is gone; another one takes over with what was written down.
      if (!isDead) throw error;
    } finally {
      isDead = false;
    }
  };
  const expected = (lane: Lane) =>
    [...items.values()].filter((i) => lane.source.places.includes(i.placeId));
  const stateOf = async (key: string) => (await stores.entries.load(key))?.state;
  const isDone = async (): Promise<boolean> => {
    if (arrived < count) return false;
    for (const lane of lanes)
      for (const item of expected(lane))
        for (const { placeId } of lane.targets)
          if ((await stateOf(`${item.id} at ${placeId}`)) !== 'published') return false;
    return true;
  };

  let arrived = 0;
  const arrive = () => {
    const id = `v${arrived++}`;
    items.set(id, itemOf(id, chance() < 0.5 ? 'channel-1' : 'channel-2', now));
  };
  for (let turn = 0; !(await isDone()) && now < BEGIN + PATIENCE * DAY; turn++) {
    if (arrived < count && chance() < 0.6)
      for (let i = between(1, 3); i > 0 && arrived < count; i--) arrive();
    // Retitled, dated anew: it is the same item.
    const some = [...items.values()][between(0, Math.max(0, items.size - 1))];
    if (some && chance() < 0.1) items.set(some.id, { ...some, title: `${some.title} again` });
    let wakes = now + DAY;
    // Once nothing new comes, lanes run more seldom than they let things out.
    const runs = arrived < count ? 0.5 : 0.15;
    for (const lane of lanes) {
      if (chance() < runs) await step(() => run(lane, world, `run ${turn} of ${lane.id}`, never));
      // The user drags something to another time; where its lane allows nothing then, it goes out later.
      if (chance() < 0.2) {
        const waiting = (await stores.lanes.entries(lane.id)).filter((e) => e.state === 'planned');
        const moved = waiting[between(0, Math.max(0, waiting.length - 1))];
        const pin = { at: now + between(0, 3 * DAY), insists: false };
        if (moved) await step(() => laneStore.patchEntry(moved, { pin }));
      }
      for (let moves = between(0, 4); moves > 0; moves--) {
        let at: number | null = now;
        await step(async () => {
          at = await advance(lane, world);
        });
        if (at === null || at > now) {
          if (at !== null) wakes = Math.min(wakes, at);
          break;
        }
      }
    }
    const isWaiting = arrived === count && chance() < 0.7;
    passTime(isWaiting ? Math.max(MINUTE, wakes - now) : between(1, 3 * HOUR));
    // Just before an hour ends, and with it perhaps the hours of a lane or its day.
    if (chance() < 0.3) passTime(HOUR - (now % HOUR) - between(1, 30_000));
  }
  passTime(TIMES.callLimit + 1);

  for (const lane of lanes) {
    await syncRecords(lane, world);
    const laneEntries = await stores.lanes.entries(lane.id);
    const own = new Set(laneEntries.map((e) => e.itemId));
    // What another lane made first is left out here, or was not looked at again yet.
    for (const { id, itemId, state } of await stores.lanes.records(lane.id))
      if (own.has(itemId) ? state !== 'published' : state !== 'dropped' && state !== 'found')
        wrong.push(`the record ${id} says ${state}`);
    for (const item of expected(lane))
      for (const { placeId } of lane.targets) {
        const key = `${item.id} at ${placeId}`;
        const here = [...(places.get(placeId)?.values() ?? [])].filter((s) => s.key === key);
        if (here.length !== 1) wrong.push(`${key} stands ${here.length} times`);
      }
    wrong.push(...paceBroken(lane, laneEntries, effects));
    const name = renamed.get(lane.id);
    const settings = await stores.lane(lane.id);
    if (name && settings?.name !== name) wrong.push(`lane ${lane.id} lost its name ${name}`);
  }
  for (const [placeId, most] of Object.entries(allowed)) {
    const months = new Map<string, number>();
    for (const [key, at] of effects)
      if (key.endsWith(` at ${placeId}`)) {
        const month = localDay(at, 'Europe/Berlin').slice(0, 7);
        months.set(month, (months.get(month) ?? 0) + 1);
      }
    for (const [month, n] of months)
      if (n > most) wrong.push(`${placeId} took ${n} in ${month}, ${most} are allowed`);
  }
  return wrong;
}

function lanesOf(between: (low: number, high: number) => number, seed: number): Lane[] {
  const lane = (id: string, sources: string[], targets: string[]): Lane => {
    const made = newLane(id, id, 'Europe/Berlin', BEGIN);
    const from = between(0, 22);
    return {
      ...made,
      isOn: true,
      since: BEGIN,
      source: { ...made.source, places: sources },
      filter: { ...made.filter, scope: 'oldest-first' },
      approval: { mode: 'always', upToDate: 'ask' },
      targets: targets.map((placeId) => ({
        placeId,
        status: 'public' as const,
        categories: [],
        tags: []
      })),
      pace: {
        ...made.pace,
        perRun: between(1, 9),
        perDay: seed % 3 === 0 ? null : between(2, 9),
        perWeek: null,
        gap: [0, 5, 30, 60][between(0, 3)]!,
        hours: { from, to: between(from + 1, 24) }
      }
    };
  };
  return [
    lane('a', ['channel-1'], ['blog-1', 'blog-2']),
    // Overlaps with the first: the same things for the same place.
    lane('b', ['channel-1', 'channel-2'], ['blog-1']),
    lane('c', ['channel-2'], ['blog-3'])
  ];
}

const itemOf = (id: string, placeId: string, at: number): Item =>
  itemSchema.parse({
    id,
    placeId,
    kind: 'video',
    nativeId: id,
    url: `https://${placeId}.example/${id}`,
    title: `Video ${id}`,
    published: new Date(at).toISOString(),
    updated: null,
    visibility: 'public',
    author: 'Isolde',
    language: 'en',
    licence: '',
    duration: 300,
    summary: '',
    pictures: [],
    embedUrl: '',
    contentUrl: '',
    captions: [],
    tags: [],
    embeds: [],
    links: [],
    origin: null
  });

const payloadOf = (title: string) => aPostPayload({ title });

const formats = new Map<string, Intl.DateTimeFormat>();
/** Year, month, day and hour as the platform tells them. */
function localDay(at: number, zone: string): string {
  const format =
    formats.get(zone) ??
    new Intl.DateTimeFormat('sv-SE', {
      ...({ timeZone: zone, dateStyle: 'short', timeStyle: 'short' } as const)
    });
  formats.set(zone, format);
  return format.format(at);
}

/** What of a pace was broken by what came to stand at the places. */
function paceBroken(
  { id, pace }: Lane,
  entries: readonly OutboxEntry[],
  effects: ReadonlyMap<string, number>
): string[] {
  const wrong: string[] = [];
  /** All places of an item go with its first. */
  const byItem = new Map<string, number[]>();
  for (const { key, laneId, itemId } of entries) {
    const at = effects.get(key);
    if (laneId === id && at !== undefined) byItem.set(itemId, [...(byItem.get(itemId) ?? []), at]);
  }
  const all = [...byItem.values()].flat();
  for (const at of all) {
    const hour = Number(localDay(at, pace.zone).slice(11, 13));
    if (hour < pace.hours.from || hour >= pace.hours.to)
      wrong.push(`lane ${id} placed at ${localDay(at, pace.zone)}`);
    if (BUSY.some(({ from, to }) => at >= from && at < to))
      wrong.push(`lane ${id} placed in a busy time, at ${localDay(at, pace.zone)}`);
  }
  const spans = [...byItem.values()]
    .map((times) => ({ first: Math.min(...times), last: Math.max(...times) }))
    .sort((a, b) => a.first - b.first);
  for (const [i, { first }] of spans.entries()) {
    const before = spans[i - 1];
    if (before && first - before.last < pace.gap * MINUTE && before.last <= first)
      wrong.push(`lane ${id} kept a gap of ${(first - before.last) / MINUTE} minutes`);
  }
  const days = new Map<string, number>();
  for (const { first } of spans) {
    const day = localDay(first, pace.zone).slice(0, 10);
    days.set(day, (days.get(day) ?? 0) + 1);
  }
  for (const [day, n] of days)
    if (pace.perDay !== null && n > pace.perDay) wrong.push(`lane ${id} placed ${n} on ${day}`);
  return wrong;
}
