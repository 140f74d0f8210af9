import type { ComposedPost } from '$lib/core/article/template/compose.ts';
import type { Template } from '$lib/core/article/template/template.ts';
import type { Making, MakingText } from '$lib/core/model/baseline.ts';
import { hashOf } from '$lib/core/model/hash.ts';
import type { Item } from '$lib/core/model/item.ts';
import { detailsMark, readMark } from '$lib/core/twins/detailsMark.ts';
import { videoFactsOf } from '$lib/core/twins/drift.ts';
import type { PostVersion } from '$lib/core/twins/merge/mergePosts.ts';
import type { Details } from '$lib/core/model/rows.ts';

/** What a post is made from, to be kept with it when it goes out. */
export interface NewMaking {
  making: Making;
  text: Omit<MakingText, 'id'>;
}

/** A composed post as far as it can be merged with others. */
export const versionOf = (post: ComposedPost): PostVersion => ({
  title: post.title,
  excerpt: post.excerpt,
  tags: [...post.categories, ...post.tags],
  picture: post.picture?.url ?? '',
  html: post.html
});

/**
 * @param made as the layout makes it, before any edit by hand
 * @param now ISO 8601
 */
export function makingOf(
  of: { key: string; video: Item; details: Details | null; made: ComposedPost; template: Template },
  now: string
): NewMaking {
  const { key, video, details, made, template } = of;
  const text = { ...versionOf(made), template };
  const facts = videoFactsOf(video, details ? readMark(detailsMark(details)) : undefined);
  const id = `${key}/${hashOf(JSON.stringify([facts, text]))}`;
  return { making: { id, key, at: now, video: facts }, text };
}
