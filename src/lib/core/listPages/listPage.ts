import { z } from 'zod';

/** A post that lists videos or posts, and keeps itself up to date at its blog. */
export const listPageSchema = z.object({
  id: z.string(),
  /** The key of its post, given once it is first published. */
  key: z.string(),
  placeId: z.string(),
  title: z.string(),
  slug: z.string(),
  /** Plain text in front of the list; paragraphs are apart by an empty line. */
  intro: z.string(),
  /** BCP 47: of dates and headings. */
  language: z.string(),
  lists: z.enum(['videos', 'posts']),
  /** Channels or blogs that its items stand at; empty takes all that are connected. */
  places: z.array(z.string()),
  /** A tag that its items carry, the feed of a playlist that they are in, or nothing. */
  only: z.object({ by: z.enum(['all', 'tag', 'playlist']), name: z.string() }),
  order: z.enum(['newest', 'oldest', 'title']),
  groups: z.enum(['none', 'year', 'month']),
  /** Whether each has a line, or its picture and the beginning of its text. */
  style: z.enum(['lines', 'pictures']),
  hasDates: z.boolean(),
  hasLengths: z.boolean(),
  /** How many items it lists at most. */
  most: z.number().int().min(1).max(1000),
  status: z.enum(['draft', 'public', 'private']),
  /** It follows what is read, once it was published. */
  isOn: z.boolean(),
  /** Why it does not follow at the moment, and waits for the user. */
  problem: z.enum(['', 'edited-there', 'gone-there', 'empty', 'shrunk']),
  /** How many items it listed when it was last sent. */
  sentItems: z.number().int(),
  /** Its text as it was last made, before what was written by hand at the blog. */
  made: z.string(),
  created: z.string(),
  changed: z.string()
});
export type ListPage = z.infer<typeof listPageSchema>;

/** @param now ISO 8601 */
export const newListPage = (
  given: Pick<ListPage, 'id' | 'placeId'> & Partial<ListPage>,
  now: string
): ListPage => ({
  key: '',
  title: 'All videos',
  slug: 'videos',
  intro: '',
  language: 'en',
  lists: 'videos',
  places: [],
  only: { by: 'all', name: '' },
  order: 'newest',
  groups: 'year',
  style: 'lines',
  hasDates: true,
  hasLengths: true,
  most: 500,
  status: 'public',
  isOn: true,
  problem: '',
  sentItems: 0,
  made: '',
  created: now,
  changed: now,
  ...given
});

/** Why a page should not follow what is read by itself: something is amiss more likely than meant. */
export function amiss(page: Pick<ListPage, 'sentItems'>, items: number): ListPage['problem'] {
  if (items === 0) return 'empty';
  return page.sentItems >= FEW && items * 2 < page.sentItems ? 'shrunk' : '';
}
/** Fewer items than these may well become half as many. */
const FEW = 4;
