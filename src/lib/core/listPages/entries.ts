import { pictureFor, type Item, type Picture } from '../model/item.ts';
import type { Playlist } from '../model/playlist.ts';
import type { ListPage } from './listPage.ts';

/** One item as a page lists it. */
export interface ListEntry {
  title: string;
  url: string;
  /** ISO 8601, or null. */
  date: string | null;
  /** Of a video. */
  seconds: number | null;
  summary: string;
  picture: Picture | null;
}

/** What a page may list: an item, and where it leads. */
export interface Listable {
  item: Item;
  /** Of a video, its post. */
  post: Pick<Item, 'url' | 'visibility' | 'summary'> | null;
}

/** Pixels of a picture in a list. */
const WIDTH = 480;

/**
 * What a page lists, in its order: public items alone. A video leads to its post, else to its own page.
 * @param playlists all that are known
 */
export function entriesOf(
  page: Pick<ListPage, 'lists' | 'places' | 'only' | 'order' | 'most'>,
  listable: readonly Listable[],
  playlists: readonly Playlist[]
): ListEntry[] {
  const kind = page.lists === 'videos' ? 'video' : 'post';
  const isAskedFor = filterOf(page.only, playlists);
  const isFrom = ({ placeId }: Item) => page.places.length === 0 || page.places.includes(placeId);
  return listable
    .filter(
      ({ item }) =>
        item.kind === kind && item.visibility === 'public' && isFrom(item) && isAskedFor(item)
    )
    .map(toEntry)
    .filter((entry) => entry.url)
    .sort(ORDERS[page.order])
    .slice(0, page.most);
}

function filterOf(
  { by, name }: ListPage['only'],
  playlists: readonly Playlist[]
): (item: Item) => boolean {
  if (by === 'tag') {
    const wanted = name.trim().toLowerCase();
    return (item) => item.tags.some((tag) => tag.toLowerCase() === wanted);
  }
  if (by === 'playlist') {
    const list = playlists.find((p) => p.url === name);
    const members = new Set(list?.members);
    return (item) => item.placeId === list?.placeId && members.has(item.nativeId);
  }
  return () => true;
}

function toEntry({ item, post }: Listable): ListEntry {
  const isPostSeen = post?.visibility === 'public' && post.url !== '';
  return {
    title: item.title,
    url: isPostSeen ? post.url : item.url,
    date: item.published,
    seconds: item.duration,
    summary: (isPostSeen && post.summary) || item.summary,
    picture: pictureFor(item.pictures, WIDTH)
  };
}

const byDate = ({ date: a }: ListEntry, { date: b }: ListEntry): number =>
  a === b ? 0 : (a ?? '') < (b ?? '') ? -1 : 1;
const byTitle = (a: ListEntry, b: ListEntry): number => a.title.localeCompare(b.title);
const ORDERS: Record<ListPage['order'], (a: ListEntry, b: ListEntry) => number> = {
  newest: (a, b) => byDate(b, a) || byTitle(a, b),
  oldest: (a, b) => byDate(a, b) || byTitle(a, b),
  title: (a, b) => byTitle(a, b) || byDate(a, b)
};
