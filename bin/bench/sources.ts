import { posts } from '../../hosts/world/posts.ts';
import { worldVideosAt } from '../../hosts/world/world.ts';
import { textBlocks } from '../../src/lib/core/markup/textBlocks.ts';
import { readTalk } from '../../src/lib/core/text/talk.ts';
import type { UpdateSource } from '../../src/lib/core/updates/source.ts';
import { talkBlocks } from '../../src/lib/core/updates/talkBlocks.ts';

/** The English posts of the demo world, and its English talks as articles. */
export function demoSources(): UpdateSource[] {
  const written = posts
    .filter((post) => !post.slug.startsWith('kette'))
    .map((post): UpdateSource => {
      const link = `https://notebook.example/${post.slug}`;
      return {
        title: post.title,
        kind: 'post',
        link,
        language: 'en',
        blocks: textBlocks(post.content)
      };
    });
  const spoken = worldVideosAt(Date.UTC(2026, 0, 1), 'https://notebook.example/')
    .filter((video) => video.language.startsWith('en') && video.cues.length > 0)
    .map((video): UpdateSource => {
      const talk = readTalk({ cues: video.cues, unreadable: [], format: 'vtt', isTimed: true });
      const link = `https://channel.example/watch/${video.id}`;
      return {
        title: video.title,
        kind: 'video',
        link,
        language: 'en',
        blocks: talkBlocks(talk, video.title, video.chapters)
      };
    });
  return [...written, ...spoken];
}
