import { z } from 'zod';

/** What somebody wrote under a video, and whether its post shows it too. */
export const commentSchema = z.object({
  id: z.string(),
  videoId: z.string(),
  /** What the channel calls it. */
  nativeId: z.string(),
  /** Its address at the channel. */
  url: z.string(),
  author: z.string(),
  /** The author's own page, or empty. */
  authorUrl: z.string(),
  /** Cleaned: text and links, nothing that is loaded. */
  html: z.string(),
  /** ISO 8601, or null where the channel does not say. */
  published: z.string().nullable(),
  /** What the channel calls the comment that it answers, or empty. */
  answers: z.string(),
  /** What the user, or a rule of the user's, decided. */
  choice: z.enum(['open', 'bring', 'leave']),
  /** It is no longer at the channel. */
  isGone: z.boolean(),
  /** ISO 8601: when it was read or decided on last. */
  changed: z.string()
});
export type Comment = z.infer<typeof commentSchema>;

/** Comments with links are often advertisements: no rule lets them through unseen. */
export const hasLinks = ({ html }: Pick<Comment, 'html'>): boolean => /<a\s/.test(html);

/** Oldest first, answers after what they answer. */
export function inOrder<C extends Pick<Comment, 'nativeId' | 'published' | 'answers'>>(
  comments: readonly C[]
): C[] {
  const byDate = comments.toSorted((a, b) => ((a.published ?? '') < (b.published ?? '') ? -1 : 1));
  const known = new Set(byDate.map((c) => c.nativeId));
  const answersOf = new Map<string, C[]>();
  for (const comment of byDate) {
    const to = known.has(comment.answers) ? comment.answers : '';
    const answers = answersOf.get(to);
    if (answers) answers.push(comment);
    else answersOf.set(to, [comment]);
  }
  const placed = new Set<C>();
  const result: C[] = [];
  const place = (comment: C): void => {
    const waiting = [comment];
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      if (placed.has(next)) continue;
      placed.add(next);
      result.push(next);
      waiting.push(...(answersOf.get(next.nativeId) ?? []).toReversed());
    }
  };
  for (const comment of answersOf.get('') ?? []) place(comment);
  // Answers that go round in a circle answer nothing that comes first.
  for (const comment of byDate) place(comment);
  return result;
}
