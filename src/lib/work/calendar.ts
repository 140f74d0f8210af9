import { localZone } from '$lib/localZone.ts';
import { calendarFile, type Planned } from '$lib/core/calendar/calendarFile.ts';
import { calendarEntries, type CalendarEntry } from '$lib/core/calendar/calendarEntry.ts';
import { isSamePeriod, shiftDays } from '$lib/core/calendar/grid.ts';
import { anyTime, checkMove, type InTheWay } from '$lib/core/calendar/move.ts';
import type { OutboxEntry } from '$lib/core/delivery/outbox.ts';
import type { LaneRecord } from '$lib/core/lanes/record.ts';
import type { Pace, PaceHistory } from '$lib/core/lanes/pace.ts';
import { historyOf, RESERVE } from '$lib/core/lanes/runner.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { allowancesOf, type PlaceAllowance } from '$lib/data/allowances.ts';
import { addBusy } from '$lib/data/busy.ts';
import { getItem, itemsPublished } from '$lib/data/items.ts';
import { note } from '$lib/data/journal.ts';
import { allLanes, backToReview, decideAll, getLane, laneStore } from '$lib/data/lanes.ts';
import { allNetworks } from '$lib/data/networks.ts';
import { allEntries, getEntry, pinItem, redate, requestPublish, sendAt } from '$lib/data/outbox.ts';
import { allPlaces, getPlace, placeTitles } from '$lib/data/places.ts';
import { deliverEntry } from '$lib/delivery/deliverEntry.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { downloadBlob } from './download.ts';
import { plannedItems } from './lanes/planned.ts';
import { laneWorld } from './lanes/world.ts';
import { attempt } from './tasks.svelte.ts';

const timeZone = localZone();

/** All that went out and will between two moments, in milliseconds since 1970. */
export async function readCalendar(from: number, to: number): Promise<CalendarEntry[]> {
  const now = Date.now();
  const items = await itemsPublished(new Date(from), new Date(to));
  const changeable = new Set(
    (await allPlaces()).filter((p) => p.hasKey && p.rights.includes('update')).map(({ id }) => id)
  );
  const all = calendarEntries(await allEntries(), await plannedItems(now), items, now, (id) =>
    changeable.has(id)
  );
  return all.filter(({ at }) => at >= from && at < to);
}

/** What a place still takes, and how much of it is planned already. */
export interface Remaining extends PlaceAllowance {
  /** Entries that go out before its period ends. */
  planned: number;
}

/** What is left at each place that says so. */
export async function readRemaining(): Promise<Remaining[]> {
  const now = Date.now();
  const ids = [...(await allPlaces()), ...(await allNetworks())].map(({ id }) => id);
  const coming = calendarEntries(await allEntries(), await plannedItems(now), [], now).filter(
    ({ state }) => state === 'planned' || state === 'scheduled'
  );
  return (await allowancesOf(ids)).map((allowance) => ({
    ...allowance,
    planned: coming.filter(
      (e) =>
        e.placeId === allowance.placeId &&
        e.moves !== 'dated' &&
        isSamePeriod(e.at, now, allowance.per, timeZone)
    ).length
  }));
}

/** What else counts where something is moved to, and by which pace. */
async function limitsOf(entry: CalendarEntry): Promise<{ pace: Pace; history: PaceHistory }> {
  const lane = entry.laneId ? await getLane(entry.laneId) : undefined;
  if (lane) {
    const entries = (await laneStore.entries(lane.id)).filter((e) => e.wanted === 'published');
    return { pace: lane.pace, history: await historyOf(lane, laneWorld, entries, entry.itemId) };
  }
  // What its place has already counts there, whenever it appears.
  const allowances = entry.moves?.startsWith('dated') ? [] : await allowancesOf([entry.placeId]);
  return { pace: anyTime(timeZone), history: { placed: [], since: 0, allowances } };
}

/** What is in the way of moving something to a time, or null. */
export async function whatIsInTheWay(entry: CalendarEntry, at: number): Promise<InTheWay | null> {
  const { pace, history } = await limitsOf(entry);
  return checkMove(pace, history, at, Date.now(), RESERVE);
}

/**
 * Moves something to a time.
 * @param insists against what its lane or its place allows
 * @returns what moves it back; null where it has gone out meanwhile
 */
export async function moveEntry(
  entry: CalendarEntry,
  at: number,
  insists = false
): Promise<(() => Promise<void>) | null> {
  const { id: key, laneId, itemId, placeId, title } = entry;
  const pin = (await getEntry(key))?.pin ?? null;
  if (!(await giveTime(entry, at, { at, insists }))) return null;
  await note({
    what: insists ? 'rescheduled-anyway' : 'rescheduled',
    ...{ key, itemId, placeId, laneId, title },
    to: new Date(at).toISOString()
  });
  return async () => {
    await giveTime(entry, entry.at, pin);
  };
}

/** @returns whether it was still to go out */
async function giveTime(
  entry: CalendarEntry,
  at: number,
  pin: OutboxEntry['pin']
): Promise<boolean> {
  const { id: key, moves, laneId, itemId } = entry;
  if (moves === 'dated-there') return giveDateThere(entry, at);
  if (moves === 'planned') return (await pinItem(laneId, itemId, pin)) > 0;
  const isGiven =
    moves === 'sent' ? (await sendAt(key, at)) > 0 : Boolean(await redate(key, at, Date.now()));
  // Whoever waits for its old time learns of the new one; what it is sent for may take its time.
  if (isGiven) void attempt(() => deliverEntry(key));
  return isGiven;
}

/** Asks a place, through the outbox, to show on another date what somebody dated there. */
async function giveDateThere(entry: CalendarEntry, at: number): Promise<boolean> {
  const item = await getItem(entry.itemId);
  const place = await getPlace(entry.placeId);
  if (!item?.published || !place || Date.parse(item.published) <= Date.now()) return false;
  const key = placementKey(item.url, 'date', place.url);
  const { id: itemId, url, title, published: from } = item;
  const change = { what: 'date' as const, from, to: new Date(at).toISOString() };
  const payload = { kind: 'change' as const, title, change };
  await requestPublish({ key, itemId, placeId: place.id, url, payload }, Date.now());
  await deliverEntry(key);
  const sent = await getEntry(key);
  if (sent?.problem && sent.state === 'failed') throw new PlaceError(sent.problem);
  return true;
}

/**
 * Lets the lane choose the time again.
 * @returns what brings the user's time back; null where it has gone out meanwhile
 */
export async function letLaneChoose(entry: CalendarEntry): Promise<(() => Promise<void>) | null> {
  const pin = (await getEntry(entry.id))?.pin ?? null;
  if (!(await giveTime(entry, entry.at, null))) return null;
  return async () => {
    await giveTime(entry, entry.at, pin);
  };
}

/**
 * Approves what waits for review and gives it a time: the wish, or the nearest at which nothing is in the way.
 * @returns the time and what puts it back to review; null where a check blocks it, or its lane has no time for it
 */
export async function approveFor(
  record: LaneRecord,
  wish: number
): Promise<{ at: number; undo: () => Promise<void> } | null> {
  const { id, laneId, itemId, title } = record;
  const lane = await getLane(laneId);
  if (!lane) return null;
  const entries = (await laneStore.entries(laneId)).filter((e) => e.wanted === 'published');
  const history = await historyOf(lane, laneWorld, entries, itemId);
  const inTheWay = checkMove(lane.pace, history, wish, Date.now(), RESERVE);
  const at = inTheWay ? inTheWay.nearest : wish;
  if (at === null) return null;
  // At once with its time: its lane may look for what goes out next at any moment.
  const pin = { at, insists: false };
  if ((await decideAll([record], 'approve', Date.now(), pin)) === 0) return null;
  await note({ what: 'rescheduled', itemId, laneId, title, to: new Date(at).toISOString() });
  return { at, undo: () => backToReview(id, Date.now()) };
}

/** What came of moving several. */
export interface MovedMany {
  moved: CalendarEntry[];
  /** Left where they were, with what is in the way. */
  left: { entry: CalendarEntry; inTheWay: InTheWay }[];
  undo: () => Promise<void>;
}

/** Moves several by so many days, each to the same time of day; what would break a limit stays. */
export async function moveAll(entries: readonly CalendarEntry[], days: number): Promise<MovedMany> {
  // From the far end on, so that none is in the way of the next.
  const ordered = [...entries].sort((a, b) => (days > 0 ? b.at - a.at : a.at - b.at));
  const moved: CalendarEntry[] = [];
  const left: MovedMany['left'] = [];
  const undos: (() => Promise<void>)[] = [];
  for (const entry of ordered) {
    const at = shiftDays(entry.at, days, timeZone);
    const inTheWay = await whatIsInTheWay(entry, at);
    if (inTheWay) {
      left.push({ entry, inTheWay });
      continue;
    }
    const undo = await moveEntry(entry, at);
    if (!undo) continue;
    undos.push(undo);
    moved.push(entry);
  }
  const undo = async () => {
    for (const back of undos.toReversed()) await back();
  };
  return { moved, left, undo };
}

/** All that is planned and scheduled, with the names of its place and its lane. */
export async function planned(): Promise<Planned[]> {
  const now = Date.now();
  const places = await placeTitles();
  const lanes = new Map((await allLanes()).map((lane) => [lane.id, lane.name]));
  return calendarEntries(await allEntries(), await plannedItems(now), [], now)
    .filter(({ state }) => state === 'planned' || state === 'scheduled')
    .map(({ id, title, placeId, laneId, at }) => ({
      ...{ id, title, at },
      place: places.get(placeId) ?? '',
      lane: lanes.get(laneId) ?? 'By hand'
    }));
}

/** A calendar file is read up to this size, in bytes. */
const MOST_BYTES = 10_000_000;

/** What came of reading busy times from a file. */
export type ImportedBusy =
  { is: 'read'; added: number; leftOut: number } | { is: 'too-large' } | { is: 'no-calendar' };

/** Adds the busy times of a calendar file to those that the lanes keep clear. */
export async function importBusy(file: File): Promise<ImportedBusy> {
  if (file.size > MOST_BYTES) return { is: 'too-large' };
  const found = await coreWorker().busyTimes(await file.text(), timeZone, Date.now());
  if (!found) return { is: 'no-calendar' };
  return { is: 'read', added: await addBusy(found.busy), leftOut: found.leftOut };
}

/** @returns how many are in the file */
export async function exportCalendar(): Promise<number> {
  const all = await planned();
  const file = calendarFile(all, Date.now());
  downloadBlob('planned.ics', new Blob([file], { type: 'text/calendar' }));
  return all.length;
}
