import { isUpdate } from '$lib/core/delivery/payload.ts';
import type { JournalLine } from '$lib/core/model/journal.ts';
import type { Item } from '$lib/core/model/item.ts';
import { emptyRow, type ReachRow } from '$lib/core/reach/reachRow.ts';
import { linksIn } from '$lib/core/reach/visitSource.ts';
import type { Form } from '$lib/core/updates/draft.ts';
import { itemsByIds } from '$lib/data/items.ts';
import { linesOfItems } from '$lib/data/journal.ts';
import { entriesOfItem, getEntry } from '$lib/data/outbox.ts';
import { placeTitles } from '$lib/data/places.ts';
import { getReach } from '$lib/data/reach.ts';
import { twinOfItem } from '$lib/data/twins.ts';

/** A half of a twin with what came of it. */
export interface HalfReach {
  item: Item;
  row: ReachRow;
}

export interface UpdateReach {
  key: string;
  form: Form;
  /** Its first words. */
  title: string;
  place: string;
  /** Milliseconds since 1970. */
  at: number;
  row: ReachRow;
  /** Addresses in it, by which a visit is known to come from it. */
  links: string[];
}

/** When something came out or was changed. */
export interface Moment {
  /** Milliseconds since 1970. */
  at: number;
  side: 'video' | 'post' | 'update';
  what: 'published' | 'changed' | 'embedded' | 'comments' | 'told';
  title: string;
}

export interface TwinReach {
  title: string;
  video: HalfReach | null;
  posts: HalfReach[];
  updates: UpdateReach[];
  /** Oldest first. */
  moments: Moment[];
}

/**
 * What came of both halves of a twin and of its updates.
 * @param id of the twin, of one of its halves or of an update
 * @returns null where there is no such twin
 */
export async function readTwinReach(id: string): Promise<TwinReach | null> {
  const twin = (await twinOfItem(id)) ?? (await twinOfItem((await getEntry(id))?.itemId ?? ''));
  if (!twin) return null;
  const postIds = [twin.post?.id ?? '', ...twin.otherPosts].filter(Boolean);
  const ids = [twin.video?.id ?? '', ...postIds].filter(Boolean);
  const items = await itemsByIds(ids);
  const [rows, entries, lines, places] = await Promise.all([
    getReach(ids),
    Promise.all(ids.map(entriesOfItem)),
    linesOfItems(ids),
    placeTitles()
  ]);
  const halves = ids.flatMap((one, i): HalfReach[] => {
    const item = items.get(one);
    return item ? [{ item, row: rows[i] ?? emptyRow(one, item.placeId, item.kind) }] : [];
  });
  const told = entries
    .flat()
    .filter(({ state, payload }) => state === 'published' && isUpdate(payload));
  const toldRows = await getReach(told.map(({ key }) => key));
  const updates = told.flatMap(({ key, payload, placeId, sentAt, updated }, i): UpdateReach[] => {
    if (!isUpdate(payload)) return [];
    const { form, title, text, button } = payload;
    return [
      {
        key,
        form,
        title: title || text.slice(0, 80),
        place: places.get(placeId) ?? '',
        at: sentAt || updated,
        row: toldRows[i] ?? emptyRow(key, placeId, 'update'),
        links: linksIn(`${text} ${button?.url ?? ''}`)
      }
    ];
  });
  const video = halves.find(({ item }) => item.kind === 'video') ?? null;
  const posts = halves.filter(({ item }) => item.kind === 'post');
  return {
    title: twin.video?.title ?? twin.post?.title ?? '',
    video,
    posts,
    updates: updates.sort((a, b) => a.at - b.at),
    moments: momentsOf(halves, updates, lines)
  };
}

const CHANGES: Partial<Record<JournalLine['what'], Moment['what']>> = {
  updated: 'changed',
  embedded: 'embedded',
  'comments-brought': 'comments'
};

function momentsOf(
  halves: readonly HalfReach[],
  updates: readonly UpdateReach[],
  lines: readonly JournalLine[]
): Moment[] {
  const published = halves.flatMap(({ item }): Moment[] =>
    item.published
      ? [
          {
            at: Date.parse(item.published),
            side: item.kind === 'video' ? 'video' : 'post',
            what: 'published',
            title: item.title
          }
        ]
      : []
  );
  const changed = halves.flatMap(({ item }): Moment[] => {
    const at = Date.parse(item.updated ?? '');
    const isLater = at - Date.parse(item.published ?? '') > 3_600_000;
    const side = item.kind === 'video' ? 'video' : 'post';
    return isLater ? [{ at, side, what: 'changed', title: item.title }] : [];
  });
  const noted = lines.flatMap(({ what, at, itemId, title }): Moment[] => {
    const kind = CHANGES[what];
    const half = halves.find(({ item }) => item.id === itemId)?.item.kind;
    // What is made from a video is a post, and what is made from a post is a video.
    const side = half === 'post' ? 'video' : 'post';
    return kind ? [{ at: Date.parse(at), side, what: kind, title }] : [];
  });
  const told = updates.map(({ at, place, title }): Moment => ({
    at,
    side: 'update',
    what: 'told',
    title: place ? `${place}: ${title}` : title
  }));
  const all = [...published, ...changed, ...noted, ...told].sort((a, b) => a.at - b.at);
  // A change is noted here, and the place tells of it too.
  return all.filter(
    (moment, i) =>
      !all
        .slice(0, i)
        .some(
          (other) =>
            other.what === moment.what &&
            other.side === moment.side &&
            other.what === 'changed' &&
            Math.abs(other.at - moment.at) < 120_000
        )
  );
}
