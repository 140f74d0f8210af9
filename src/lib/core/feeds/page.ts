import { Parser } from 'htmlparser2';
import { z } from 'zod';
import { absoluteAddress, seekAddress, keyAddress } from './address.ts';
import { LONGEST, tame } from '../text/tame.ts';

export interface FeedLink {
  url: string;
  title: string;
}

/** What a page says of itself to programs. */
export interface PageFacts {
  title: string;
  canonical: string;
  feeds: FeedLink[];
  oembed: string;
  micropub: string;
  tokenEndpoint: string;
  /** Address of its actor (ActivityStreams 2.0), or empty. */
  actor: string;
  /** Address of a description for programs (`describedby`), or empty. */
  description: string;
  videos: VideoFacts[];
}

/** A schema.org `VideoObject`, with absolute addresses. */
export interface VideoFacts {
  url: string;
  name: string;
  embedUrl: string;
  contentUrl: string;
  captions: { url: string; language: string }[];
  chapters: { start: number; end: number | null; title: string }[];
  /** Address with `{seek_to_second_number}` in it, or empty. */
  seekTo: string;
}

/** Feeds of a page; each is read. */
const MOST_FEEDS = 10;
const FEED_TYPE = /^application\/(atom\+xml|rss\+xml|rdf\+xml|feed\+json|json)\b/i;

/** Reads the head links and the JSON-LD of an HTML page. Nothing of the page is run or kept. */
export function readPage(html: string, url: string): PageFacts {
  const facts: PageFacts = {
    title: '',
    canonical: '',
    feeds: [],
    oembed: '',
    micropub: '',
    tokenEndpoint: '',
    actor: '',
    description: '',
    videos: []
  };
  let base = url;
  let inTitle = false;
  let script: string | null = null;
  const parser = new Parser({
    onopentag(name, attributes) {
      if (name === 'base' && base === url) base = absoluteAddress(attributes.href, url) || url;
      else if (name === 'title') inTitle = facts.title === '';
      else if (name === 'script' && /ld\+json/i.test(attributes.type ?? '')) script = '';
      else if (name === 'link' || name === 'a') noteLink(facts, attributes, base, name === 'a');
    },
    ontext(text) {
      if (inTitle && facts.title.length < LONGEST.title) facts.title += text;
      if (script !== null) script += text;
    },
    onclosetag(name) {
      if (name === 'title') inTitle = false;
      if (name === 'script' && script !== null) {
        facts.videos.push(...videosIn(script, base));
        script = null;
      }
    }
  });
  parser.end(html);
  facts.title = tame(facts.title, LONGEST.title).replace(/\s+/g, ' ').trim();
  return facts;
}

function noteLink(
  facts: PageFacts,
  link: Record<string, string>,
  base: string,
  isAnchor: boolean
): void {
  const rels = (link.rel ?? '').toLowerCase().split(/\s+/);
  const href = absoluteAddress(link.href, base);
  if (!href) return;
  const type = link.type ?? '';
  // Anybody may write a link into a comment; where keys go is told by the head of a page.
  if (isAnchor) return;
  if (rels.includes('micropub')) facts.micropub ||= keyAddress(href);
  if (rels.includes('token_endpoint')) facts.tokenEndpoint ||= keyAddress(href);
  if (rels.includes('canonical')) facts.canonical ||= href;
  if (rels.includes('describedby') && /^application\/json\b/i.test(type))
    facts.description ||= href;
  if (!rels.includes('alternate')) return;
  if (/oembed/i.test(type)) {
    if (/json/i.test(type)) facts.oembed ||= href;
  } else if (
    /^application\/(?:activity\+json|ld\+json;\s*profile="https:\/\/www\.w3\.org\/ns\/activitystreams")/i.test(
      type
    )
  ) {
    facts.actor ||= href;
  } else if (
    FEED_TYPE.test(type) &&
    facts.feeds.length < MOST_FEEDS &&
    !facts.feeds.some((f) => f.url === href)
  ) {
    facts.feeds.push({ url: href, title: tame(link.title ?? '', LONGEST.title) });
  }
}

const text = z
  .union([z.string(), z.number().transform(String)])
  .transform((given) => tame(given, LONGEST.address));
const list = <T extends z.ZodType>(schema: T) =>
  z.union([z.array(schema), schema.transform((one) => [one])]).catch([]);
const videoSchema = z.object({
  url: text.catch(''),
  name: text.catch(''),
  embedUrl: text.catch(''),
  contentUrl: text.catch(''),
  caption: list(
    z.object({
      contentUrl: text,
      encodingFormat: text.catch(''),
      inLanguage: text.catch('')
    })
  ),
  hasPart: list(
    z.object({
      name: text,
      startOffset: z.coerce.number().min(0),
      endOffset: z.coerce.number().nullable().catch(null)
    })
  ),
  potentialAction: list(z.object({ target: text.catch('') }))
});

function videosIn(json: string, base: string): VideoFacts[] {
  let data: unknown;
  try {
    data = JSON.parse(json);
  } catch {
    return [];
  }
  return nodesOf(data)
    .filter((node) => [node['@type']].flat().includes('VideoObject'))
    .flatMap((node) => {
      const video = videoSchema.safeParse(node).data;
      if (!video) return [];
      return {
        url: absoluteAddress(video.url, base),
        name: video.name,
        embedUrl: absoluteAddress(video.embedUrl, base),
        contentUrl: absoluteAddress(video.contentUrl, base),
        captions: video.caption
          .filter((c) => !c.encodingFormat || /vtt/i.test(c.encodingFormat))
          .flatMap((c) => {
            const address = absoluteAddress(c.contentUrl, base);
            return address ? [{ url: address, language: c.inLanguage }] : [];
          }),
        chapters: video.hasPart.slice(0, MOST_PARTS).map((c) => ({
          start: c.startOffset,
          end: c.endOffset,
          title: c.name
        })),
        seekTo:
          video.potentialAction.map((a) => seekAddress(a.target, base)).find((a) => a !== '') ?? ''
      };
    });
}

/** Chapters of a video. */
const MOST_PARTS = 1_000;

/** The objects at the top of a JSON-LD document: itself, a list, or its graph. */
function nodesOf(data: unknown): Record<string, unknown>[] {
  if (Array.isArray(data)) return data.slice(0, 200).flatMap(nodesOf);
  if (typeof data !== 'object' || data === null) return [];
  const node = data as Record<string, unknown>;
  return Array.isArray(node['@graph']) ? [node, ...nodesOf(node['@graph'])] : [node];
}
