import { keyOfUid } from '../model/origin.ts';
import { parseFeed } from 'feedsmith';
import { itemId } from '../model/ids.ts';
import { PlaceError } from '../model/place.ts';
import type { Item, Picture, Visibility } from '../model/item.ts';
import { absoluteAddress } from './address.ts';
import { cleanHtml } from './clean.ts';
import { escapeHtml } from '../text/escapeHtml.ts';
import { paragraphsToHtml, plainText } from '../text/html.ts';
import { LONGEST, tame } from '../text/tame.ts';
import { textHash } from '../text/textHash.ts';
import { hasManyUnclosedTags } from './unclosedTags.ts';

export interface ReadFeed {
  format: 'rss' | 'rdf' | 'atom' | 'json';
  title: string;
  author: string;
  /** The page the feed belongs to, or empty. */
  home: string;
  /** The following page of a paged feed (RFC 5005), or empty. */
  next: string;
  entries: FeedEntry[];
  /** Entries that had neither an id, an address nor a title, and were passed over. */
  passedOver: number;
}

/** An item as a feed tells it, before it is known to which place it belongs. */
export type FeedEntry = Omit<Item, 'id' | 'placeId'> & {
  html: string;
  /** Who it says has written it; the author of an entry that says nothing is that of its feed. */
  by: { name: string; url: string };
  /** Of a comment: what its feed calls that which it answers (RFC 4685), or empty. */
  answers: string;
};

/**
 * Reads RSS 2.0, RSS 1.0, Atom or JSON Feed, with Media RSS, into entries with absolute
 * addresses and cleaned HTML.
 * @param text the document
 * @param url where it was read, the base of relative addresses
 * @param now ISO 8601; an entry dated later is scheduled
 * @throws PlaceError `not-a-feed` or `broken-feed`
 */
export function readFeed(text: string, url: string, now: string): ReadFeed {
  const parsed = parse(text, url);
  const reader = READERS[parsed.format];
  const feed = reader.feed(parsed.feed, url);
  const entries: FeedEntry[] = [];
  let passedOver = 0;
  for (const source of reader.entries(parsed.feed)) {
    const entry = toEntry(source, feed, url, now);
    if (entry) entries.push(entry);
    else passedOver++;
  }
  return { format: parsed.format, ...feed, entries: withoutRepeats(entries), passedOver };
}

export function toItem(entry: FeedEntry, placeId: string): Item {
  const { html: _html, by: _by, answers: _answers, ...rest } = entry;
  return { ...rest, id: itemId(placeId, entry.nativeId), placeId };
}

/** Whether a feed tells of videos: most of its entries carry one. */
export function isVideoFeed(feed: ReadFeed): boolean {
  const videos = feed.entries.filter((e) => e.kind === 'video').length;
  return videos > 0 && videos * 2 >= feed.entries.length;
}

/** What the formats tell, under common names; all of it still raw. */
interface Source {
  id?: string;
  url?: string;
  title?: string;
  published?: unknown;
  updated?: unknown;
  author?: string;
  authorUrl?: string;
  /** The id of what it answers. */
  answers?: string;
  language?: string;
  licence?: string;
  access?: string;
  /** Address of what it was made from, and the name its maker gave it. */
  madeFrom?: string;
  uid?: string;
  content?: string;
  summary?: string;
  tags: string[];
  pictures: Picture[];
  video?: { url?: string; duration?: number };
  isVideo: boolean;
  embedUrl?: string;
  captions: { url: string; language: string }[];
  views?: number;
  likes?: number;
  rating?: { average: number; count: number };
  /** The feed of its comments (RFC 4685). */
  replies?: { url?: string; count?: number };
}

type FeedHead = Pick<ReadFeed, 'title' | 'author' | 'home' | 'next'>;

interface Reader {
  feed(feed: unknown, url: string): FeedHead;
  entries(feed: unknown): Source[];
}

type Parsed = ReturnType<typeof parseFeed>;
type FeedOf<F extends Parsed['format']> = Extract<Parsed, { format: F }>['feed'];

function parse(text: string, url: string): Parsed {
  const head = text.trimStart().slice(0, 1000).toLowerCase();
  const looksLikeFeed =
    /<(rss|feed|rdf:rdf|\w+:feed|\w+:rdf)[\s>]/.test(head) || head.startsWith('{');
  if (!head.startsWith('{') && hasManyUnclosedTags(text)) {
    const detail = 'Tags in it have no end.';
    throw new PlaceError({ kind: looksLikeFeed ? 'broken-feed' : 'not-a-feed', url, detail });
  }
  try {
    return parseFeed(text);
  } catch (error) {
    const detail = error instanceof Error ? error.message : '';
    throw new PlaceError({ kind: looksLikeFeed ? 'broken-feed' : 'not-a-feed', url, detail });
  }
}

/** Tags of an entry that are kept. */
const MOST_TAGS = 100;

/** A title or a name: on one line, and as long as one is. */
const line = (text: string | undefined): string =>
  tame(plainText((text ?? '').slice(0, 4 * LONGEST.title)), LONGEST.title);

function toEntry(source: Source, feed: FeedHead, base: string, now: string): FeedEntry | null {
  const url = absoluteAddress(source.url, base);
  const named = source.id?.trim() || url || source.title?.trim() || '';
  const nativeId = named.slice(0, LONGEST.address);
  if (!nativeId) return null;
  const body = cleanHtml(source.content ?? source.summary ?? '', url || base);
  const madeFrom = absoluteAddress(source.madeFrom, base);
  const { opening } = body;
  const replies = absoluteAddress(source.replies?.url, base);
  const title = line(source.title);
  const published = isoDate(source.published) ?? isoDate(source.updated);
  const summary = source.summary
    ? plainText(tame(source.summary, LONGEST.text))
    : firstWords(opening);
  return {
    kind: source.isVideo ? 'video' : 'post',
    nativeId,
    url: url || absoluteAddress(nativeId, base),
    title: title || firstWords(opening, 60) || url || nativeId,
    published,
    updated: isoDate(source.updated) ?? published,
    visibility: visibilityOf(source.access, published, now),
    author: line(source.author) || feed.author,
    language: (source.language ?? '').slice(0, 35),
    licence: (source.licence ?? '').slice(0, LONGEST.address),
    duration: positive(source.video?.duration),
    summary,
    textHash: textHash(body.html),
    pictures: source.pictures.length
      ? source.pictures.flatMap((p) => {
          const address = absoluteAddress(p.url, base);
          return address ? [{ ...p, url: address }] : [];
        })
      : body.pictures.map((address) => ({ url: address, width: null, height: null })),
    embedUrl: absoluteAddress(source.embedUrl, base),
    contentUrl: absoluteAddress(source.video?.url, base),
    captions: source.captions.flatMap((c) => {
      const address = absoluteAddress(c.url, base);
      return address ? [{ ...c, url: address }] : [];
    }),
    tags: [...new Set(source.tags.slice(0, MOST_TAGS).map(line).filter(Boolean))],
    embeds: body.embeds,
    links: body.links,
    ...(body.films.length > 0 && { films: body.films }),
    origin: body.origin ?? keyOfUid(madeFrom ? source.uid : undefined),
    ...(madeFrom && { madeFrom }),
    ...(isCount(source.views) && { views: source.views }),
    ...(isCount(source.likes) && { likes: source.likes }),
    ...(source.rating && { rating: source.rating }),
    ...(replies && {
      replies: {
        url: replies,
        count: isCount(source.replies?.count) ? (source.replies?.count ?? null) : null
      }
    }),
    html: body.html,
    by: { name: line(source.author), url: absoluteAddress(source.authorUrl, base) },
    answers: (source.answers ?? '').slice(0, LONGEST.address)
  };
}

function visibilityOf(
  access: string | undefined,
  published: string | null,
  now: string
): Visibility {
  if (access === 'private' || access === 'unlisted') return access;
  return published !== null && published > now ? 'scheduled' : 'public';
}

/** Feeds are read while they change: the same entry can stand on two pages, or twice on one. */
function withoutRepeats(entries: FeedEntry[]): FeedEntry[] {
  const seen = new Map<string, FeedEntry>();
  for (const entry of entries) if (!seen.has(entry.nativeId)) seen.set(entry.nativeId, entry);
  return [...seen.values()];
}

export function isoDate(text: unknown): string | null {
  if (typeof text !== 'string' || !text) return null;
  const time = Date.parse(text.trim());
  return Number.isNaN(time) ? null : new Date(time).toISOString();
}

const positive = (value: number | undefined): number | null =>
  typeof value === 'number' && Number.isFinite(value) && value > 0 ? value : null;

const isCount = (value: number | undefined): boolean =>
  value !== undefined && Number.isSafeInteger(value) && value >= 0;

function firstWords(text: string, most = 240): string {
  if (text.length <= most) return text;
  const cut = text.lastIndexOf(' ', most);
  return `${text.slice(0, cut > 0 ? cut : most)}…`;
}

/** Media RSS, which stands at the entry itself or in a group of it. */
type Media = NonNullable<NonNullable<NonNullable<FeedOf<'atom'>['entries']>[number]>['media']>;

function fromMedia(
  media: Media | undefined
): Partial<Source> & Pick<Source, 'pictures' | 'captions' | 'isVideo'> {
  const groups = media?.groups ?? [];
  const layers = [media, ...groups].filter((layer) => layer !== undefined);
  const contents = layers.flatMap((layer) => layer.contents ?? []);
  const inner = contents.flatMap((content) => content);
  const all = [...layers, ...inner];
  const first = <T>(pick: (layer: (typeof all)[number]) => T | undefined): T | undefined =>
    all.map(pick).find((value) => value !== undefined);
  const video = contents.find((c) => c.medium === 'video' || c.type?.startsWith('video/'));
  const player = first((layer) => layer.player?.url);
  const licence = first((layer) => layer.licenses?.[0]);
  const description = first((layer) => layer.description);
  const statistics = first((layer) => layer.community?.statistics);
  const rating = ratingOf(first((layer) => layer.community?.starRating));
  return {
    title: first((layer) => layer.title?.value),
    summary:
      description?.value && description.type !== 'html'
        ? paragraphsToHtml(description.value)
        : description?.value,
    language: video?.lang,
    licence: licence?.href ?? licence?.name,
    video: video && { url: video.url, duration: video.duration },
    embedUrl: player,
    isVideo: video !== undefined || player !== undefined,
    ...(statistics?.views !== undefined && { views: statistics.views }),
    ...(statistics?.favorites !== undefined && { likes: statistics.favorites }),
    ...(rating && { rating }),
    pictures: all
      .flatMap((layer) => layer.thumbnails ?? [])
      .map((t) => ({ url: t.url ?? '', width: t.width ?? null, height: t.height ?? null })),
    captions: all
      .flatMap((layer) => layer.subTitles ?? [])
      .map((s) => ({ url: s.href ?? '', language: s.lang ?? '' }))
  };
}

/** A star rating of Media RSS, from 0 to 1; its stars go from `min` to `max`. */
function ratingOf(
  stars: { average?: number; count?: number; min?: number; max?: number } | undefined
): Source['rating'] {
  const { average, count, min = 0, max = 5 } = stars ?? {};
  if (average === undefined || !isCount(count) || !(max > min)) return undefined;
  const share = (average - min) / (max - min);
  return share >= 0 && share <= 1 ? { average: share, count: count ?? 0 } : undefined;
}

const READERS: Record<Parsed['format'], Reader> = {
  atom: {
    feed(raw, url) {
      const feed = raw as FeedOf<'atom'>;
      return {
        title: line(feed.title?.value),
        author: line(feed.authors?.[0]?.name),
        home: absoluteAddress(linkTo(feed.links, 'alternate'), url),
        next: absoluteAddress(linkTo(feed.links, 'next'), url)
      };
    },
    entries: (raw) =>
      ((raw as FeedOf<'atom'>).entries ?? []).map((entry) => {
        const media = fromMedia(entry.media as Media | undefined);
        const enclosure = entry.links?.find(
          (l) => l.rel === 'enclosure' && l.type?.startsWith('video/')
        );
        const rights = entry.dcterms;
        const replies = entry.links?.find((l) => l.rel === 'replies' && isFeedType(l.type));
        return {
          ...media,
          id: entry.id,
          url: linkTo(entry.links, 'alternate'),
          title: asHtml(entry.title) ?? media.title,
          published: entry.published,
          updated: entry.updated,
          author: entry.authors?.[0]?.name,
          authorUrl: entry.authors?.[0]?.uri,
          answers: entry.thr?.inReplyTos?.[0]?.ref,
          language: rights?.languages?.[0] ?? media.language,
          access: rights?.accessRights?.[0],
          licence: media.licence ?? rights?.licenses?.[0],
          madeFrom: rights?.sources?.[0],
          uid: rights?.identifiers?.[0],
          content: asHtml(entry.content),
          summary: asHtml(entry.summary) ?? media.summary,
          tags: (entry.categories ?? []).map((c) => c.label ?? c.term ?? ''),
          video: media.video ?? (enclosure && { url: enclosure.href }),
          isVideo: media.isVideo || enclosure !== undefined,
          ...(replies && {
            replies: { url: replies.href, count: replies.thr?.count ?? entry.thr?.total }
          })
        };
      })
  },
  rss: {
    feed(raw, url) {
      const feed = raw as FeedOf<'rss'>;
      return {
        title: line(feed.title),
        author: line(feed.dc?.creators?.[0]),
        home: absoluteAddress(feed.link, url),
        next: absoluteAddress(linkTo(feed.atom?.links, 'next'), url)
      };
    },
    entries: (raw) =>
      ((raw as FeedOf<'rss'>).items ?? []).map((item) => {
        const media = fromMedia(item.media as Media | undefined);
        const enclosure = item.enclosures?.find((e) => e.type?.startsWith('video/'));
        return {
          ...media,
          id: item.guid?.value,
          url: item.link ?? (item.guid?.isPermaLink !== false ? item.guid?.value : undefined),
          title: item.title ?? media.title,
          published: item.pubDate ?? item.dc?.dates?.[0],
          updated: item.atom?.updated,
          author: item.dc?.creators?.[0] ?? item.authors?.[0]?.name ?? item.authors?.[0]?.email,
          answers: item.thr?.inReplyTos?.[0]?.ref,
          language: item.dc?.languages?.[0] ?? media.language,
          content: item.content?.encoded ?? item.description,
          summary: item.content?.encoded ? item.description : media.summary,
          tags: (item.categories ?? []).map((c) => c.name ?? ''),
          video: media.video ?? (enclosure && { url: enclosure.url }),
          isVideo: media.isVideo || enclosure !== undefined,
          ...(item.wfw?.commentRss && {
            replies: { url: item.wfw.commentRss, count: item.slash?.comments }
          })
        };
      })
  },
  rdf: {
    feed(raw, url) {
      const feed = raw as FeedOf<'rdf'>;
      return {
        title: line(feed.title),
        author: line(feed.dc?.creators?.[0]),
        home: absoluteAddress(feed.link, url),
        next: ''
      };
    },
    entries: (raw) =>
      ((raw as FeedOf<'rdf'>).items ?? []).map((item) => ({
        id: item.link,
        url: item.link,
        title: item.title,
        published: item.dc?.dates?.[0],
        author: item.dc?.creators?.[0],
        language: item.dc?.languages?.[0],
        content: item.content?.encoded ?? item.description,
        tags: item.dc?.subjects ?? [],
        pictures: [],
        captions: [],
        isVideo: false
      }))
  },
  json: {
    feed(raw, url) {
      const feed = raw as FeedOf<'json'>;
      return {
        title: line(feed.title),
        author: line(feed.authors?.[0]?.name),
        home: absoluteAddress(feed.home_page_url, url),
        next: absoluteAddress(feed.next_url, url)
      };
    },
    entries: (raw) =>
      ((raw as FeedOf<'json'>).items ?? []).map((item) => {
        const video = item.attachments?.find((a) => a.mime_type?.startsWith('video/'));
        return {
          id: item.id,
          url: item.url ?? item.external_url,
          title: item.title,
          published: item.date_published,
          updated: item.date_modified,
          author: item.authors?.[0]?.name,
          language: item.language,
          content: item.content_html ?? (item.content_text && escapeHtml(item.content_text)),
          summary: item.summary,
          tags: item.tags ?? [],
          pictures: item.image ? [{ url: item.image, width: null, height: null }] : [],
          captions: [],
          video: video && { url: video.url, duration: video.duration_in_seconds },
          isVideo: video !== undefined
        };
      })
  }
};

/** Replies are given as pages too; one without a type is taken for a feed. */
const isFeedType = (type: string | undefined): boolean => !type || /\b(?:atom|rss)\+xml/.test(type);

function linkTo(
  links: readonly { href?: string; rel?: string }[] | undefined,
  rel: string
): string | undefined {
  return links?.find((l) => (l.rel ?? 'alternate') === rel)?.href;
}

/** An Atom text construct as HTML: `text` is escaped, `html` and `xhtml` stand as they are. */
function asHtml(text: { value?: string; type?: string } | undefined): string | undefined {
  if (text?.value === undefined) return undefined;
  return text.type === 'html' || text.type === 'xhtml' ? text.value : escapeHtml(text.value);
}
