import { find } from 'linkifyjs';
import { canonicalAddress } from '../feeds/address.ts';

/** What is known of the user's own pages, to tell where a visitor came from. */
export interface OwnPages {
  /** Host of the blog, with its port. */
  host: string;
  /** That host and those of the videos' pages. */
  hosts: ReadonlySet<string>;
  /** Ids of videos by the addresses of their pages, in canonical form. */
  videos: ReadonlyMap<string, string>;
  /** Names of link tags beside those that begin with `utm_`. */
  tags: ReadonlySet<string>;
}

/**
 * Where a visitor came from, in one word: `direct`, `blog` (another page of it), `video ID`, `tags QUERY` (link tags),
 * `site HOST`.
 */
export type VisitSource = string;

const LONGEST = 200;

/** The link tags of an address as one sorted query; empty where it has none. */
export function linkTagsOf(query: string, names: ReadonlySet<string> = new Set()): string {
  const tags = [...new URLSearchParams(query)].filter(
    ([name]) => name.startsWith('utm_') || names.has(name)
  );
  tags.sort(([a], [b]) => (a < b ? -1 : Number(a > b)));
  return new URLSearchParams(tags).toString();
}

/** Web addresses in a text, without the marks that end a sentence. */
export const linksIn = (text: string): string[] =>
  find(text, 'url').flatMap(({ href }) => (/^https?:/i.test(href) ? [href] : []));

/** @param query of the page that was asked for, without its question mark */
export function visitSource(query: string, referrer: string, own: OwnPages): VisitSource {
  const tags = query ? linkTagsOf(query, own.tags) : '';
  if (tags) return `tags ${tags}`.slice(0, LONGEST);
  const host = hostOf(referrer);
  if (!host) return 'direct';
  // Only of the user's own sites it matters which page it was.
  if (!own.hosts.has(host)) return `site ${host}`.slice(0, LONGEST);
  const page = canonicalAddress(referrer);
  const video = own.videos.get(page);
  if (video) return `video ${video}`;
  return host === own.host ? 'blog' : `site ${host}`;
}

/** The host of a web address, with its port; empty where it is none. Reading it in full would take long. */
function hostOf(address: string): string {
  const start = /^https?:\/\//i.exec(address)?.[0].length ?? 0;
  const host = start > 0 ? (address.slice(start).split(/[/?#\\]/, 1)[0] ?? '') : '';
  return /^[\w.:[\]-]+$/.test(host) ? host.toLowerCase() : '';
}
