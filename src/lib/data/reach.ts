import { gainsByDay, gainsOfReading, withGains, withReading } from '$lib/core/reach/curve.ts';
import { dayOf, type Day } from '$lib/core/reach/day.ts';
import type { FiguresRow } from '$lib/core/reach/csvFigures.ts';
import type { Counter, Figures } from '$lib/core/reach/figures.ts';
import type { LogFindings } from '$lib/core/reach/log/readLog.ts';
import {
  addVisits,
  DaySums,
  emptyRow,
  totalsOf,
  visitsByDay,
  type KeptTotals,
  type ReachDay,
  type ReachKind,
  type ReachRow,
  type VisitHours
} from '$lib/core/reach/reachRow.ts';
import { localZone } from '$lib/localZone.ts';
import { addSpan, readSpans, restoreSpans } from './logSpans.ts';
import { db } from './db.ts';

/** What a place tells of one of its items now. */
export interface ToldFigures {
  id: string;
  placeId: string;
  kind: ReachKind;
  /** ISO 8601, or null. */
  published: string | null;
  figures: Figures;
  /** From 0 to 1, where it is rated. */
  stars?: number;
}

/** Items of one transaction: others wait for it. */
const BATCH = 500;
const tables = () => [db.reach, db.reachTotals, db.reachDays, db.items];

export const getReach = (ids: readonly string[]): Promise<(ReachRow | undefined)[]> =>
  db.reach.bulkGet([...ids]);
export const reachDaysSince = (day: Day): Promise<ReachDay[]> =>
  db.reachDays.where('day').aboveOrEqual(day).toArray();
export const visitHoursSince = (day: Day): Promise<VisitHours[]> =>
  db.visitHours.where('day').aboveOrEqual(day).toArray();
/** The first day of which anything is known, or null. */
export const firstReachDay = async (): Promise<Day | null> =>
  (await db.reachDays.orderBy('day').first())?.day ?? null;
/** Whether any figure was ever kept. */
export const hasReach = async (): Promise<boolean> => (await db.reachTotals.count()) > 0;

/**
 * Keeps what places tell of their items at a moment. What did not change is only noted to have been read.
 * @param zone IANA name of the time zone that days are of
 */
export async function recordFigures(
  told: readonly ToldFigures[],
  at: number,
  zone: string
): Promise<void> {
  const today = dayOf(at, zone);
  const counted = told.filter(({ figures }) => Object.keys(figures).length > 0);
  for (let from = 0; from < counted.length; from += BATCH) {
    const batch = counted.slice(from, from + BATCH);
    await db.transaction('rw', tables(), () => recordBatch(batch, today, at, zone));
  }
}

async function recordBatch(
  told: readonly ToldFigures[],
  today: Day,
  at: number,
  zone: string
): Promise<void> {
  const known = await db.reachTotals.bulkGet(told.map(({ id }) => id));
  // An average changes with the number of ratings, which is a counter.
  const isChanged = told.map(({ figures }, i) => {
    const before = known[i];
    return (
      !before?.read ||
      (Object.keys(figures) as Counter[]).some((one) => figures[one] !== before.totals[one])
    );
  });
  const changed = told.filter((_, i) => isChanged[i]);
  const rows = await db.reach.bulkGet(changed.map(({ id }) => id));
  const sums = new DaySums();
  const reads = new Map(told.map(({ id }, i) => [id, known[i]?.read ?? null]));
  const written = changed.map((one, i) => {
    const row = rows[i] ?? emptyRow(one.id, one.placeId, one.kind);
    const published = one.published ? dayOf(Date.parse(one.published), zone) : null;
    for (const [counter, total] of Object.entries(one.figures) as [Counter, number][]) {
      const kept = row.counters[counter];
      // While nothing changed, only that it was read was noted.
      const until = Math.max(kept?.until ?? 0, reads.get(one.id) ?? 0);
      const curve = kept && { ...kept, until: Math.min(until, Math.max(today, kept.until)) };
      sums.add(row, counter, gainsOfReading(curve, today, total, published));
      row.counters[counter] = withReading(curve, today, total);
    }
    return { ...row, stars: one.stars ?? row.stars, changed: new Date(at).toISOString() };
  });
  await db.reach.bulkPut(written);
  const totals = new Map(written.map((row) => [row.id, totalsOf(row)]));
  await db.reachTotals.bulkPut(
    told.map(({ id, placeId, kind }, i) => ({
      id,
      placeId,
      kind,
      totals: totals.get(id) ?? known[i]?.totals ?? {},
      read: today
    }))
  );
  await addDays(sums.rows);
}

async function addDays(more: readonly ReachDay[]): Promise<void> {
  const known = await db.reachDays.bulkGet(more.map(({ id }) => id));
  await db.reachDays.bulkPut(
    more.map((day, i) => {
      const gained = { ...known[i]?.gained };
      for (const [counter, n] of Object.entries(day.gained) as [Counter, number][])
        gained[counter] = (gained[counter] ?? 0) + n;
      return { ...day, gained };
    })
  );
}

/** What a log of a blog told: pages by the ids of its posts. */
export interface FoundVisits {
  placeId: string;
  /** Ids of posts, in the order in which their pages were asked for. */
  posts: readonly string[];
  findings: LogFindings;
}

/**
 * Adds the visits of a log.
 * @returns what takes them out again
 */
export async function addLogVisits({
  placeId,
  posts,
  findings
}: FoundVisits): Promise<() => Promise<void>> {
  const { visits, hours, span } = findings;
  const ids = [...new Set(visits.map(({ page }) => posts[page] ?? ''))].filter(Boolean);
  const hourIds = hours.map(({ day }) => `${placeId} ${day}`);
  return db.transaction('rw', [...tables(), db.visitHours, db.settings], async () => {
    const before = await db.reach.bulkGet(ids);
    const hoursBefore = await db.visitHours.bulkGet(hourIds);
    const spansBefore = await readSpans(placeId);
    const rows = new Map(
      ids.map((id, i) => [id, structuredClone(before[i]) ?? emptyRow(id, placeId, 'post')])
    );
    const sums = new DaySums();
    for (const { page, source, day, count } of visits) {
      const row = rows.get(posts[page] ?? '');
      if (!row) continue;
      addVisits(row.visits, source, day, count);
      sums.add(row, 'visits', [[day, count]]);
    }
    await putRows([...rows.values()]);
    await addDays(sums.rows);
    await db.visitHours.bulkPut(
      hours.map(({ day, hours: more }, i) => ({
        id: hourIds[i]!,
        placeId,
        day,
        hours: more.map((n, h) => n + (hoursBefore[i]?.hours[h] ?? 0))
      }))
    );
    if (span) await addSpan(placeId, span);
    return async () => {
      await db.transaction('rw', [...tables(), db.visitHours, db.settings], async () => {
        await putBack(ids, before);
        await db.visitHours.bulkDelete(hourIds);
        await db.visitHours.bulkPut(hoursBefore.filter((row) => row !== undefined));
        await restoreSpans(placeId, spansBefore);
        await recountDays([placeId]);
      });
    };
  });
}

/**
 * Adds what a table of a service tells.
 * @param placeOf where an item stands, and what it is
 * @returns how many numbers were known already, and what takes the others out again
 */
export async function addTableFigures(
  rows: readonly FiguresRow[],
  isPerDay: boolean,
  placeOf: (id: string) => { placeId: string; kind: ReachKind } | undefined
): Promise<{ known: number; undo: () => Promise<void> }> {
  const byItem = new Map<string, FiguresRow[]>();
  for (const row of rows) byItem.set(row.item, [...(byItem.get(row.item) ?? []), row]);
  const ids = [...byItem.keys()];
  const places = [...new Set(ids.flatMap((id) => placeOf(id)?.placeId ?? []))];
  let known = 0;
  return db.transaction('rw', tables(), async () => {
    const before = await db.reach.bulkGet(ids);
    const changed: ReachRow[] = [];
    for (const [i, id] of ids.entries()) {
      const place = placeOf(id);
      if (!place) continue;
      const row = structuredClone(before[i]) ?? emptyRow(id, place.placeId, place.kind);
      known += addToRow(row, byItem.get(id) ?? [], isPerDay);
      changed.push(row);
    }
    await putRows(changed);
    await recountDays(places);
    const undo = () =>
      db.transaction('rw', tables(), async () => {
        await putBack(ids, before);
        await recountDays(places);
      });
    return { known, undo };
  });
}

/** @returns how many numbers were known already */
function addToRow(row: ReachRow, told: readonly FiguresRow[], isPerDay: boolean): number {
  let known = 0;
  const sorted = [...told].sort((a, b) => a.day - b.day);
  const counters = new Set(sorted.flatMap(({ counts }) => Object.keys(counts) as Counter[]));
  for (const counter of counters) {
    const values = sorted.flatMap(({ day, counts }) => {
      const count = counts[counter];
      return count === undefined ? [] : [{ day, gained: count }];
    });
    const before = row.counters[counter];
    if (isPerDay) {
      const led = withGains(before, values);
      row.counters[counter] = led.curve;
      known += led.known;
      continue;
    }
    for (const { day, gained } of values) {
      const curve = row.counters[counter];
      if (curve && day < curve.until) known++;
      else row.counters[counter] = withReading(curve, day, gained);
    }
  }
  return known;
}

async function putRows(rows: readonly ReachRow[]): Promise<void> {
  const changed = new Date().toISOString();
  await db.reach.bulkPut(rows.map((row) => ({ ...row, changed })));
  const known = await db.reachTotals.bulkGet(rows.map(({ id }) => id));
  await db.reachTotals.bulkPut(rows.map((row, i) => totalsRow(row, known[i]?.read ?? null)));
}

const totalsRow = (row: ReachRow, read: Day | null): KeptTotals => {
  const { id, placeId, kind } = row;
  return { id, placeId, kind, totals: totalsOf(row), read };
};

async function putBack(
  ids: readonly string[],
  before: readonly (ReachRow | undefined)[]
): Promise<void> {
  const rows = before.filter((row) => row !== undefined);
  const gone = ids.filter((_, i) => !before[i]);
  await db.reach.bulkDelete(gone);
  await db.reachTotals.bulkDelete(gone);
  await putRows(rows);
}

/** Reckons anew what the items of places gained day by day, and their totals. */
export async function recountDays(places?: readonly string[]): Promise<void> {
  await db.transaction('rw', tables(), async () => {
    const isMeant = ({ placeId }: { placeId: string }) => !places || places.includes(placeId);
    const zone = localZone();
    const published = new Map<string, Day | null>();
    await db.items.each(({ id, published: on }) => {
      published.set(id, on ? dayOf(Date.parse(on), zone) : null);
    });
    const sums = new DaySums();
    const totals: KeptTotals[] = [];
    await db.reach.filter(isMeant).each((row) => {
      for (const [counter, curve] of Object.entries(row.counters) as [
        Counter,
        ReachRow['counters']['views']
      ][])
        if (curve) sums.add(row, counter, gainsByDay(curve, published.get(row.id) ?? null));
      sums.add(row, 'visits', visitsByDay(row.visits));
      const untils = Object.values(row.counters).map((curve) => curve?.until ?? 0);
      totals.push(totalsRow(row, untils.length > 0 ? Math.max(...untils) : null));
    });
    await db.reachDays.filter(isMeant).delete();
    await db.reachTotals.filter(isMeant).delete();
    await db.reachDays.bulkPut(sums.rows);
    await db.reachTotals.bulkPut(totals);
  });
}

/** Looks through the visits of all posts, one after the other: together they may be many. */
export const eachPostVisits = (look: (visits: ReachRow['visits']) => void): Promise<void> =>
  db.reach.each(({ kind, visits }) => {
    if (kind === 'post') look(visits);
  });

/** Everything that has figures. */
export const reachIds = (): Promise<string[]> => db.reach.toCollection().primaryKeys();
