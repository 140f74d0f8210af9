import type { LinkProposal } from '$lib/core/links/propose.ts';
import type { OwnPost } from '$lib/core/links/targets.ts';
import { allGlossary, allLinkMemories } from '$lib/data/glossary.ts';
import { getPlace, placesOfKind } from '$lib/data/places.ts';
import { itemsOf } from '$lib/data/items.ts';
import { getTwin } from '$lib/data/twins.ts';
import { talkWorker } from '$lib/workers/talk.ts';

/**
 * Links that the post of a video may have: to addresses of the glossary, and to own posts that stand at a blog
 * for everybody. Nothing is changed.
 */
export async function findLinks(
  { html, videoId, language }: { html: string; videoId: string; language: string },
  blogId: string
): Promise<LinkProposal[]> {
  const [glossary, memories, blogs, twin, blog] = await Promise.all([
    allGlossary(),
    allLinkMemories(),
    placesOfKind('blog'),
    getTwin(videoId),
    getPlace(blogId)
  ]);
  const items = await itemsOf(blogs.map((b) => b.id));
  // A post does not link to itself.
  const posts = items.flatMap((item): OwnPost[] =>
    item.kind === 'post' && item.visibility === 'public' && item.id !== twin?.post?.id
      ? [
          {
            url: item.url,
            title: item.title,
            summary: item.summary,
            tags: item.tags,
            published: item.published
          }
        ]
      : []
  );
  const base = blog?.url ?? 'https://post.invalid/';
  return talkWorker().proposeLinks({ html, language, base, glossary, memories, posts });
}
