import { canonicalAddress } from '../feeds/address.ts';
import type { Item } from '../model/item.ts';
import type { Place } from '../model/place.ts';
import type { Render } from './narration.ts';

/** A video file that a post holds or links to. */
export interface Film {
  url: string;
  /** Address of its captions, or empty. */
  captions: string;
  /** Whether it lies at the blog itself: of any other the user has to say that it is theirs. */
  isAtBlog: boolean;
}

/** Files that are uploaded as they are. A host above that of the blog is another site: many may share it. */
const FILE = /\.(?:mp4|m4v|webm)$/i;

const pathOf = (url: string): string => (URL.canParse(url) ? new URL(url).pathname : '');
const hostOf = (url: string): string =>
  URL.canParse(url) ? new URL(url).host.replace(/^www\./, '') : '';

/** The video files of a post, in the order it has them. Players of other sites are none. */
export function filmsOf(post: Item, blog: Place | null): Film[] {
  const home = hostOf(post.url || (blog?.url ?? ''));
  const linked = [post.contentUrl, ...post.links].filter((url) => FILE.test(pathOf(url)));
  const films = [...(post.films ?? []), ...linked.map((url) => ({ url, captions: '' }))];
  const seen = new Set<string>();
  return films.flatMap(({ url, captions }) => {
    const address = canonicalAddress(url);
    if (!url || seen.has(address)) return [];
    seen.add(address);
    const host = hostOf(url);
    return [{ url, captions, isAtBlog: host === home || host.endsWith(`.${home}`) }];
  });
}

/** What a finished video was made from, where it is a file of the post itself. */
export const madeFromFilm = (url: string): string => `film ${url}`;
/** Whether a finished video is a file of the post itself. */
export const isFilm = ({ madeFrom }: Pick<Render, 'madeFrom'>): boolean =>
  madeFrom.startsWith('film ');
