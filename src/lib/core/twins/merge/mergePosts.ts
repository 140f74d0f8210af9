import { plainText } from '../../text/html.ts';
import { changesIn, mergeHtml, takeChanges, type Change, type Merged } from './mergeHtml.ts';

/** What of a post is merged. */
export interface PostVersion {
  title: string;
  excerpt: string;
  /** Categories and tags, which a blog may not tell from each other. */
  tags: string[];
  /** Address of the featured picture, or empty. */
  picture: string;
  /** Of a video, its description in plain text. */
  html: string;
}

/** One thing that making a post anew would change in it; all but `text` is plain. */
export interface PostChange extends Change {
  where: 'title' | 'excerpt' | 'tags' | 'picture' | 'text';
  /** Of a change in the text, the heading that it stands under. */
  under: string;
}

/** What becomes of a change: it stays as it is, becomes what is made now, or both one after the other. */
export type Choice = 'mine' | 'fresh' | 'both';

export interface PostMerge {
  mine: PostVersion;
  /** It was edited by hand since it was made, on the desk or at the blog. */
  isEdited: boolean;
  /** In the order of the post. */
  changes: PostChange[];
  text: Merged;
  /** What the tags become where their change is taken. */
  tags: string[];
}

/**
 * Merges three versions of a post.
 * @param base as it was made
 * @param mine as it stands at the blog, with edits by hand
 * @param fresh as it would be made now
 * @param mergeText merges their texts; what is said of a video is plain
 */
export function mergePosts(
  base: PostVersion,
  mine: PostVersion,
  fresh: PostVersion,
  mergeText: typeof mergeHtml = mergeHtml
): PostMerge {
  const text = mergeText(base.html, mine.html, fresh.html);
  const plain = (['title', 'excerpt', 'picture'] as const).flatMap((where): PostChange[] => {
    const [was, is, now] = [base[where], mine[where], fresh[where]];
    if (now === was || now === is) return [];
    return [{ where, under: '', base: was, mine: is, fresh: now, isConflict: is !== was }];
  });
  const tags = mergedTags(base.tags, mine.tags, fresh.tags);
  const list = (some: readonly string[]) => some.join(', ');
  const tagChange: PostChange = {
    where: 'tags',
    under: '',
    base: list(base.tags),
    mine: list(mine.tags),
    fresh: list(tags),
    isConflict: false
  };
  const changes = [
    ...plain,
    ...(tagChange.mine === tagChange.fresh ? [] : [tagChange]),
    ...textChangesOf(text)
  ];
  return { mine, isEdited: isEdited(base, mine, mergeText), changes, text, tags };
}

const isEdited = (base: PostVersion, mine: PostVersion, mergeText: typeof mergeHtml): boolean =>
  base.title !== mine.title ||
  base.excerpt !== mine.excerpt ||
  base.tags.toSorted().join('\n') !== mine.tags.toSorted().join('\n') ||
  changesIn(mergeText(base.html, base.html, mine.html)).length > 0;

/** Changes in a text with the headings that they stand under. */
function textChangesOf(text: Merged): PostChange[] {
  let under = '';
  return text.flatMap((part) => {
    const change = typeof part === 'string' ? [] : [{ ...part, where: 'text' as const, under }];
    const stands = typeof part === 'string' ? part : part.mine || part.fresh;
    const last = [...stands.matchAll(/<(h[1-6]|summary)\b[^>]*>(.*?)<\/\1>/gs)].at(-1);
    under = last?.[2] === undefined ? under : plainText(last[2]);
    return change;
  });
}

/** Tags by hand stay, those that are made anew come, and those that are made no more go. */
function mergedTags(
  base: readonly string[],
  mine: readonly string[],
  fresh: readonly string[]
): string[] {
  const gone = new Set(base.filter((tag) => !fresh.includes(tag)));
  const come = fresh.filter((tag) => !base.includes(tag) && !mine.includes(tag));
  return [...mine.filter((tag) => !gone.has(tag)), ...come];
}

/**
 * The post with some of its changes made.
 * @param choices by the place of a change in `changes`; what has none stays as it is
 */
export function takeChoices(merge: PostMerge, choices: ReadonlyMap<number, Choice>): PostVersion {
  const post = { ...merge.mine };
  for (const [i, { where, fresh }] of merge.changes.entries()) {
    const choice = choices.get(i) ?? 'mine';
    if (where === 'text' || choice === 'mine') continue;
    if (where === 'tags') post.tags = merge.tags;
    else post[where] = fresh;
  }
  let at = merge.changes.findIndex((change) => change.where === 'text');
  return { ...post, html: takeChanges(merge.text, () => choices.get(at++) ?? 'mine') };
}

/** All changes that are in nobody's way. */
export const withoutConflicts = ({ changes }: PostMerge): Map<number, Choice> =>
  new Map(changes.flatMap((change, i) => (change.isConflict ? [] : [[i, 'fresh'] as const])));
