import { readFileSync } from 'node:fs';
import { anItem } from '../../../src/lib/core/testing.ts';
import type { Catalogue } from './catalogue.ts';

/** Each is judged by itself; from none of them is anything learned. */
export const WRITTEN = ['hives', 'radios', 'wheels', 'stars'] as const;
type WrittenName = (typeof WRITTEN)[number];

/**
 * A catalogue that was written by hand, without a rule for what a post takes from its video: descriptions, hardly any
 * captions.
 * `written/*.txt` has blocks of two lines, "kind | key | date | seconds | title" and the text. What has the same key is a
 * pair; "8 clip" is a clip of what the post 8 is about.
 */
export function writtenCatalogue(name: WrittenName): Catalogue {
  const made: Catalogue = { videos: [], posts: [], texts: new Map(), truth: [] };
  const blocks = readFileSync(new URL(`./written/${name}.txt`, import.meta.url), 'utf8').trim();
  const keys = { video: [] as string[], post: new Map<string, string>() };
  for (const block of blocks.split('\n\n')) {
    const [head = '', text = ''] = block.split('\n');
    const [kind, key = '', date, seconds, title = ''] = head.split('|').map((s) => s.trim());
    const isVideo = kind === 'video';
    const id = `${isVideo ? 'video' : 'post'} ${key}`.replaceAll(' ', '-');
    const item = anItem({
      id,
      kind: isVideo ? 'video' : 'post',
      placeId: isVideo ? 'channel' : 'blog',
      title,
      url: `https://${name}.example/${id}`,
      published: `${date}T09:00:00Z`,
      duration: isVideo ? Number(seconds) : null,
      language: ''
    });
    (isVideo ? made.videos : made.posts).push(item);
    made.texts.set(id, text);
    if (isVideo) keys.video.push(key);
    else keys.post.set(key, id);
  }
  for (const [at, key] of keys.video.entries()) {
    const post = keys.post.get(key.replace(/ clip$/, ''));
    const relation = key.endsWith(' clip') ? 'part-of' : 'twin';
    if (post) made.truth.push({ video: made.videos[at]!.id, post, relation });
  }
  return made;
}
