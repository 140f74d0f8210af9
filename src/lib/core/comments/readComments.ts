import sanitize from 'sanitize-html';
import type { FeedEntry } from '../feeds/read.ts';
import { commentId } from '../model/ids.ts';
import { LONGEST } from '../text/tame.ts';
import { htmlText } from '../text/html.ts';
import type { Comment } from './comment.ts';

/** Characters of a comment that are kept. */
const LONGEST_COMMENT = 20_000;

/**
 * HTML of a comment as text with its links: no pictures or players, which would be loaded from anywhere,
 * and links that vouch for nothing (`nofollow ugc`).
 * @param html cleaned already, with absolute addresses
 */
const cleanComment = (html: string): string =>
  sanitize(html.slice(0, LONGEST_COMMENT), {
    allowedTags: [
      ...['p', 'br', 'blockquote', 'pre', 'code', 'ul', 'ol', 'li'],
      ...['a', 'b', 'strong', 'i', 'em', 'q', 's', 'sub', 'sup']
    ],
    allowedAttributes: { a: ['href', 'rel'] },
    allowedSchemes: ['http', 'https'],
    transformTags: {
      a: (tagName, { href = '' }) => ({ tagName, attribs: { href, rel: 'nofollow ugc' } })
    }
  }).trim();

/**
 * Entries of a feed of comments (Atom with its threading extension, RFC 4685, or RSS) as comments on a video.
 * What says nothing once it is cleaned is left out.
 * @param now ISO 8601
 */
export function toComments(entries: readonly FeedEntry[], videoId: string, now: string): Comment[] {
  return entries.flatMap((entry) => {
    const html = cleanComment(entry.html);
    if (!htmlText(html).trim()) return [];
    return [
      {
        id: commentId(videoId, entry.nativeId),
        videoId,
        nativeId: entry.nativeId,
        url: entry.url,
        author: entry.by.name,
        authorUrl: entry.by.url.slice(0, LONGEST.address),
        html,
        published: entry.published,
        answers: entry.answers,
        choice: 'open' as const,
        isGone: false,
        changed: now
      }
    ];
  });
}
