import { create } from 'xmlbuilder2';
import { htmlContent } from '../htmlContent.ts';

/** A comment as a feed tells it. Addresses and names are whole. */
export interface FeedComment {
  id: string;
  url: string;
  author: string;
  site: string;
  html: string;
  /** Milliseconds since 1970. */
  at: number;
  answers: { id: string; url: string };
}

export const THREAD = 'http://purl.org/syndication/thread/1.0';

/** The link by which an entry names the feed of its comments (RFC 4685, section 4). */
export const repliesLink = (href: string, count: number) => ({
  '@rel': 'replies',
  '@type': 'application/atom+xml',
  '@href': href,
  '@thr:count': count
});

/** Comments as an Atom feed with the threading extension (RFC 4685). */
export function commentFeed(
  { self, title }: { self: string; title: string },
  comments: readonly FeedComment[]
): string {
  return create({
    feed: {
      '@xmlns': 'http://www.w3.org/2005/Atom',
      '@xmlns:thr': THREAD,
      id: self,
      title,
      updated: new Date(Math.max(0, ...comments.map((c) => c.at))).toISOString(),
      link: { '@rel': 'self', '@href': self },
      entry: comments.map((comment) => ({
        id: comment.id,
        title: `Comment by ${comment.author}`,
        link: { '@rel': 'alternate', '@type': 'text/html', '@href': comment.url },
        published: new Date(comment.at).toISOString(),
        updated: new Date(comment.at).toISOString(),
        author: { name: comment.author, ...(comment.site && { uri: comment.site }) },
        'thr:in-reply-to': { '@ref': comment.answers.id, '@href': comment.answers.url },
        content: htmlContent(comment.html)
      }))
    }
  }).end({ prettyPrint: true });
}
