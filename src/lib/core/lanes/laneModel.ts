import { PlaceError, type Problem } from '../model/place.ts';
import { itemSchema, type Item } from '../model/item.ts';
import { seeded } from '../testing.ts';
import { moveOn, run, syncRecords, type LaneWorld } from './drive.ts';
import { newLane, type Lane } from './lane.ts';
import { mergeSaved, TIMES, type OutboxEntry, type PostPayload } from './outbox.ts';
import type { LaneRecord } from './record.ts';
import { settle, type Target } from './settle.ts';
import type { Candidate } from './sift.ts';

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

class Crash extends Error {}

interface Standing {
  key: string;
  title: string;
  at: number;
}

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

/**
 * Runs lanes in a random world, with faults, lost and late answers, tabs that are killed at any call,
 * and a clock that is moved on; then compares what stands at the places with what should.
 * @returns what is wrong, in words; empty where all of it holds
 */
export async function laneModel({ seed, items: count, faults }: ModelWorld): Promise<string[]> {
  const chance = seeded(seed);
  const between = (low: number, high: number) => low + Math.floor(chance() * (high - low + 1));
  let now = BEGIN;
  const wrong: string[] = [];
  const records = new Grouped<LaneRecord>((r) => [r.laneId]);
  const entries = new Grouped<OutboxEntry>((e) => [e.laneId, e.placeId]);
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

  const advance = (ms: number) => {
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
    advance(50);
    if (!isFault()) return act();
    switch (between(0, 6)) {
      case 0:
        throw new Crash();
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
        throw new Crash();
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
      place: async (payload, key) =>
        call(() => {
          const url = `https://${placeId}.example/${++made}`;
          standing.set(url, { key, title: payload.title, at: now });
          if (effects.has(key)) wrong.push(`${key} was placed twice`);
          effects.set(key, now);
          return url;
        }, true),
      replace: async (url, payload, key) =>
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
  const world: LaneWorld = {
    now: () => now,
    shelf: {
      records: async (laneId) => records.of(laneId),
      record: async (id) => records.get(id) ?? null,
      saveRecords: async (some) => some.forEach((r) => records.set(r.id, structuredClone(r))),
      entries: async (laneId) => entries.of(laneId),
      entry: async (key) => entries.get(key) ?? null,
      async shelve(record, some) {
        records.set(record.id, structuredClone(record));
        for (const entry of some)
          if (!entries.has(entry.key)) entries.set(entry.key, structuredClone(entry));
      },
      saveEntry: async (entry) => void entries.set(entry.key, structuredClone(entry))
    },
    candidates: async (lane) =>
      [...items.values()]
        .filter((item) => lane.source.places.includes(item.placeId))
        .map((item): Candidate => ({
          ...{ item, words: 100, owner: 'Isolde', likeMade: null, isInPlaylist: false },
          twin: { other: null, isSetAside: false, isInHand: false }
        })),
    async make(_lane, { item }, { placeId }) {
      advance(between(100, 3000));
      if (isFault()) {
        if (chance() < 0.3) throw new Crash();
        throw new PlaceError({ kind: 'no-answer' });
      }
      return { key: `${item.id} at ${placeId}`, payload: payloadOf(item.title), complaints: 0 };
    },
    allowances: async (lane) =>
      lane.targets.map(({ placeId }) => ({
        ...{ most: allowed[placeId] ?? 1e9, per: 'month' as const },
        ...{ left: allowed[placeId] ?? 1e9, asOf: BEGIN },
        used: entries
          .of(placeId)
          .filter((e) => e.attempts > 0 || e.placedRevision > 0)
          .map((e) => effects.get(e.key) ?? e.updated)
      })),
    async settle(key) {
      const entry = entries.get(key);
      if (!entry) return;
      await settle(key, {
        target: targetAt(entry.placeId),
        ...{ now: () => now, chance },
        shelf: {
          load: async (k) => structuredClone(entries.get(k) ?? null),
          async save(learned) {
            entries.set(learned.key, mergeSaved(entries.get(learned.key) ?? null, learned));
            // The tab may be closed when something was just written down.
            if (chance() < faults / 8) throw new Crash();
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
      if (!(error instanceof Crash)) throw error;
    }
  };
  const expected = (lane: Lane) =>
    [...items.values()].filter((i) => lane.source.places.includes(i.placeId));
  const isDone = () =>
    arrived === count &&
    lanes.every((lane) =>
      expected(lane).every((item) =>
        lane.targets.every((t) => entries.get(`${item.id} at ${t.placeId}`)?.state === 'placed')
      )
    );

  let arrived = 0;
  const arrive = () => {
    const id = `v${arrived++}`;
    items.set(id, itemOf(id, chance() < 0.5 ? 'channel-1' : 'channel-2', now));
  };
  for (let turn = 0; !isDone() && now < BEGIN + PATIENCE * DAY; turn++) {
    if (arrived < count && chance() < 0.6)
      for (let i = between(1, 3); i > 0 && arrived < count; i--) arrive();
    // Retitled, dated anew: it is the same item.
    const some = [...items.values()][between(0, Math.max(0, items.size - 1))];
    if (some && chance() < 0.1) items.set(some.id, { ...some, title: `${some.title} again` });
    let wakes = now + DAY;
    // Once nothing new comes, lanes run more seldom than they let things out.
    const runs = arrived < count ? 0.5 : 0.15;
    for (const lane of lanes) {
      if (chance() < runs) await step(() => run(lane, world, `run ${turn}`));
      for (let moves = between(0, 4); moves > 0; moves--) {
        let at: number | null = now;
        await step(async () => {
          at = await moveOn(lane, world);
        });
        if (at === null || at > now) {
          if (at !== null) wakes = Math.min(wakes, at);
          break;
        }
      }
    }
    const isWaiting = arrived === count && chance() < 0.7;
    advance(isWaiting ? Math.max(MINUTE, wakes - now) : between(1, 3 * HOUR));
    // Just before an hour ends, and with it perhaps the hours of a lane or its day.
    if (chance() < 0.3) advance(HOUR - (now % HOUR) - between(1, 30_000));
  }
  advance(TIMES.callLimit + 1);

  for (const lane of lanes) {
    await syncRecords(lane, world);
    const own = new Set(entries.of(lane.id).map((e) => e.itemId));
    // What another lane made first is left out here, or was not looked at again yet.
    for (const { id, itemId, state } of records.of(lane.id))
      if (own.has(itemId) ? state !== 'placed' : state !== 'dropped' && state !== 'found')
        wrong.push(`the record ${id} says ${state}`);
    for (const item of expected(lane))
      for (const { placeId } of lane.targets) {
        const key = `${item.id} at ${placeId}`;
        const here = [...(places.get(placeId)?.values() ?? [])].filter((s) => s.key === key);
        if (here.length !== 1) wrong.push(`${key} stands ${here.length} times`);
      }
    wrong.push(...paceBroken(lane, entries, effects));
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
      ...{ isOn: true, since: BEGIN },
      source: { ...made.source, places: sources },
      sift: { ...made.sift, scope: 'oldest-first' },
      gate: { opens: 'always' },
      targets: targets.map((placeId) => ({
        ...{ placeId, status: 'public' as const, categories: [], tags: [] }
      })),
      pace: {
        ...made.pace,
        ...{ perRun: between(1, 9), perDay: seed % 3 === 0 ? null : between(2, 9), perWeek: null },
        ...{ gap: [0, 5, 30, 60][between(0, 3)]!, hours: { from, to: between(from + 1, 24) } }
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
    ...{ id, placeId, kind: 'video', nativeId: id, url: `https://${placeId}.example/${id}` },
    ...{ title: `Video ${id}`, published: new Date(at).toISOString(), updated: null },
    ...{ visibility: 'public', author: 'Isolde', language: 'en', licence: '', duration: 300 },
    ...{ summary: '', pictures: [], embedUrl: '', contentUrl: '', captions: [], tags: [] },
    ...{ embeds: [], links: [], origin: null }
  });

const payloadOf = (title: string): PostPayload => ({
  ...{ title, html: '', slug: '', excerpt: '', author: '', categories: [], tags: [] },
  ...{ comments: 'open', picture: null, status: 'public', date: null }
});

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
  entries: ReadonlyMap<string, OutboxEntry>,
  effects: ReadonlyMap<string, number>
): string[] {
  const wrong: string[] = [];
  /** All places of an item go with its first. */
  const byItem = new Map<string, number[]>();
  for (const { key, laneId, itemId } of entries.values()) {
    const at = effects.get(key);
    if (laneId === id && at !== undefined) byItem.set(itemId, [...(byItem.get(itemId) ?? []), at]);
  }
  const all = [...byItem.values()].flat();
  for (const at of all) {
    const hour = Number(localDay(at, pace.zone).slice(11, 13));
    if (hour < pace.hours.from || hour >= pace.hours.to)
      wrong.push(`lane ${id} placed at ${localDay(at, pace.zone)}`);
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
