import type { CitedComment } from '../delivery/payload.ts';
import { inOrder, type Comment } from './comment.ts';
import { uidOfKey } from '../model/origin.ts';

/** What a post is to show of the comments on its video: those that were chosen and still stand there. */
export interface Cited {
  comments: CitedComment[];
  /** Names of those that it is not to show, or not any more. */
  without: string[];
}

/** @param comments all that are known of one video */
export function citedOf(comments: readonly Comment[]): Cited {
  const isShown = ({ choice, isGone }: Comment) => choice === 'bring' && !isGone;
  const shown = inOrder(comments.filter(isShown));
  const addresses = new Map(comments.map((c) => [c.nativeId, c.url]));
  return {
    comments: shown.map(({ id, url, author, authorUrl, html, published, answers }) => ({
      uid: uidOfKey(id),
      url,
      author,
      authorUrl,
      html,
      published: published ?? '',
      answers: addresses.get(answers) ?? ''
    })),
    without: comments.filter((c) => !isShown(c)).map((c) => uidOfKey(c.id))
  };
}
