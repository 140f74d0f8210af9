import type { OutboxEntry } from '../delivery/outbox.ts';
import { isChange, isPost, isUpdate, isVideo } from '../delivery/payload.ts';
import type { PlannedItem } from '../lanes/plan.ts';
import type { Item } from '../model/item.ts';

/**
 * How something in the calendar is moved: the time its lane has for it, the time it is sent, the date it has at its place,
 * or the date that somebody gave it there.
 */
export type Moves = 'planned' | 'sent' | 'dated' | 'dated-there';

/** One post, video or update that went out or will, at one place. Times are milliseconds since 1970. */
export interface CalendarEntry {
  /** The key of its entry in the outbox, or the id of its item. */
  id: string;
  kind: 'post' | 'video' | 'update';
  title: string;
  placeId: string;
  /** The lane that made it, or empty. */
  laneId: string;
  itemId: string;
  url: string;
  at: number;
  state: 'published' | 'scheduled' | 'planned' | 'sending' | 'failed';
  /** Null for what cannot be moved from here. */
  moves: Moves | null;
  /** Whether the user gave it its time, so that its lane does not choose it. */
  isPinned: boolean;
}

/**
 * All that went out and will, each once: what this application published is known by its address among the items of its
 * place.
 * @param planned of all lanes, when each goes out
 * @param mayChange whether what stands at a place can be changed from here
 */
export function calendarEntries(
  outbox: readonly OutboxEntry[],
  planned: readonly PlannedItem[],
  items: readonly Item[],
  now: number,
  mayChange: (placeId: string) => boolean = () => false
): CalendarEntry[] {
  const byUrl = new Map(items.filter((item) => item.url).map((item) => [item.url, item]));
  const slots = new Map(planned.flatMap((p) => p.entries.map((entry) => [entry.key, p] as const)));
  const found: CalendarEntry[] = [];
  const shown = new Set<string>();
  for (const entry of outbox) {
    const { key, placeId, laneId, itemId, url, payload } = entry;
    if (isChange(payload) || entry.wanted === 'removed') continue;
    // A thread is one update.
    if (isUpdate(payload) && (payload.part?.number ?? 1) > 1) continue;
    const slot = slots.get(key);
    const when = whenOf(entry, slot, url ? byUrl.get(url) : undefined, now);
    if (!when) continue;
    if (url) shown.add(url);
    const kind = isVideo(payload) ? 'video' : isUpdate(payload) ? 'update' : 'post';
    const isPinned = slot?.isPinned ?? false;
    found.push({
      id: key,
      kind,
      title: payload.title,
      placeId,
      laneId,
      itemId,
      url,
      isPinned,
      ...when
    });
  }
  for (const { id, placeId, kind, title, url, published, visibility } of items) {
    if (shown.has(url) || published === null) continue;
    const at = Date.parse(published);
    if (!Number.isFinite(at) || visibility === 'draft' || visibility === 'private') continue;
    const state = at > now ? 'scheduled' : 'published';
    const moves = state === 'scheduled' && mayChange(placeId) ? 'dated-there' : null;
    const own = { placeId, laneId: '', itemId: id, url, isPinned: false };
    found.push({ id, kind, title, at, state, moves, ...own });
  }
  return found.sort((a, b) => a.at - b.at);
}

type When = Pick<CalendarEntry, 'at' | 'state' | 'moves'>;

/** When an entry of the outbox goes out or went, or null for what has no time: drafts, and what waits for review. */
function whenOf(
  entry: OutboxEntry,
  slot: PlannedItem | undefined,
  item: Item | undefined,
  now: number
): When | null {
  const { state, payload, attempts, nextTry, updated } = entry;
  if (state === 'planned') return slot ? { at: slot.at, state: 'planned', moves: 'planned' } : null;
  if (state === 'in-review' || state === 'removed') return null;
  if (isPost(payload) && (payload.status === 'draft' || payload.status === 'private')) return null;
  const date = dateAtPlace(entry);
  if (state === 'failed') return { at: date ?? updated, state, moves: null };
  if (state !== 'published') {
    if (date !== null && date > now) return { at: date, state: 'sending', moves: null };
    const isScheduled = !entry.laneId && attempts === 0 && nextTry > now;
    return isScheduled
      ? { at: nextTry, state: 'scheduled', moves: 'sent' }
      : { at: now, state: 'sending', moves: null };
  }
  if (date !== null && date > now) return { at: date, state: 'scheduled', moves: 'dated' };
  const published = Date.parse(item?.published ?? '');
  const first = entry.revision === 1 ? entry.sentAt || updated : entry.created;
  return { at: Number.isFinite(published) ? published : (date ?? first), state, moves: null };
}

/** When its place shows it to everybody, or null where that is at once. */
function dateAtPlace({ payload }: Pick<OutboxEntry, 'payload'>): number | null {
  const date = isPost(payload)
    ? payload.status === 'dated'
      ? payload.date
      : null
    : isVideo(payload)
      ? payload.publishAt
      : null;
  const at = Date.parse(date ?? '');
  return Number.isFinite(at) ? at : null;
}
