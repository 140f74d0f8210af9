import type { CitedComment } from '$lib/core/delivery/payload.ts';
import type { Properties } from './micropubPlace.ts';

/** Comments to be added to a post and taken out of it, as Micropub's update has them. */
export interface CommentChanges {
  add: unknown[];
  delete: unknown[];
}

/**
 * What to change of a post's comments so that it cites what it should, each once, whatever it has of them
 * already. Those that were not brought from here are left alone.
 * @param channel title of the channel that they come from
 * @param without uids of those that are to go
 */
export function commentChanges(
  there: Properties,
  {
    comments,
    without,
    channel
  }: { comments: readonly CitedComment[]; without: readonly string[]; channel: string }
): CommentChanges {
  const held = there.comment ?? [];
  const wanted = new Map(comments.map((c) => [c.uid, c]));
  const unwanted = new Set(without);
  const isAsWanted = (comment: CitedComment, value: unknown) =>
    contentOf(value) === contentOf(toCite(comment, channel));
  const standing = new Set<string>();
  const gone = held.filter((value) => {
    const uid = uidOf(value);
    const comment = wanted.get(uid);
    if (!comment) return unwanted.has(uid);
    // A second one of the same is one too many.
    if (standing.has(uid) || !isAsWanted(comment, value)) return true;
    standing.add(uid);
    return false;
  });
  return {
    add: comments.filter((c) => !standing.has(c.uid)).map((c) => toCite(c, channel)),
    delete: gone
  };
}

/** A comment as a citation (microformats2 h-cite). */
const toCite = (comment: CitedComment, channel: string) => ({
  type: ['h-cite'],
  properties: {
    uid: [comment.uid],
    url: [comment.url],
    author: [
      {
        type: ['h-card'],
        properties: {
          name: [comment.author],
          ...(comment.authorUrl && { url: [comment.authorUrl] })
        }
      }
    ],
    content: [{ html: comment.html }],
    ...(comment.published && { published: [comment.published] }),
    publication: [channel],
    ...(comment.answers && { 'in-reply-to': [comment.answers] })
  }
});

function propertiesOf(value: unknown): Record<string, unknown> {
  if (!value || typeof value !== 'object' || !('properties' in value)) return {};
  return value.properties && typeof value.properties === 'object'
    ? (value.properties as Record<string, unknown>)
    : {};
}

function firstOf(value: unknown, name: string): unknown {
  const given = propertiesOf(value)[name];
  return Array.isArray(given) ? given[0] : given;
}

function uidOf(value: unknown): string {
  const uid = firstOf(value, 'uid');
  return typeof uid === 'string' ? uid : '';
}

function contentOf(value: unknown): string {
  const content = firstOf(value, 'content');
  return content && typeof content === 'object' && 'html' in content
    ? String(content.html)
    : typeof content === 'string'
      ? content
      : '';
}
