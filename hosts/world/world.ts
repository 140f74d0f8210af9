import { backPosts, backSpeech, backVideos } from './backCatalogue.ts';
import type { Comment } from '../comments/comment.ts';
import { comments as worldComments } from './comments.ts';
import { posts as worldPosts, type WorldPost } from './posts.ts';
import { speak, speakText, type Chapter, type Cue } from './speech.ts';
import { playlists, videos as worldVideos, type WorldVideo } from './videos.ts';

/** One upload as the channel keeps it. Times are milliseconds since 1970. */
export interface Video extends Omit<WorldVideo, 'daysAgo' | 'hour' | 'retitled'> {
  published: number;
  updated: number;
  /** Seconds. */
  duration: number;
  cues: Cue[];
  chapters: Chapter[];
  /** What is said when; empty for uploads by program. */
  sentences: Cue[];
  width: number;
  height: number;
  /** Address of what it was made from, and what its sender calls it; of uploads by program. */
  madeFrom?: string;
  uid?: string;
}

export interface Post {
  slug: string;
  /** Opens a draft or a private post to whoever has the address. */
  secret: string;
  status: 'published' | 'draft';
  visibility: 'public' | 'unlisted' | 'private';
  deleted: boolean;
  created: number;
  updated: number;
  /** Microformats2 properties, as Micropub sends them. */
  properties: Record<string, unknown[]>;
}

export const DAY = 86_400_000;
export { playlists };

/** The uploads of a world that begins at `began`, those of earlier years among them where it has them. */
export function worldVideosAt(began: number, blogUrl: string, hasBack = false): Video[] {
  const spoken = new Map(backVideos().map((video, n) => [video.id, backSpeech(n)]));
  return [...worldVideos, ...(hasBack ? backVideos() : [])].map(
    ({ daysAgo, hour, retitled, ...video }) => {
      const text = spoken.get(video.id);
      const said =
        video.captions === 'none'
          ? { cues: [], chapters: [], sentences: [], duration: video.silentSeconds ?? 30 }
          : text
            ? speakText(text, video.captions)
            : speak(video.id, video.captions);
      const published = atHour(began - daysAgo * DAY, hour);
      return {
        ...video,
        description: video.description.replaceAll('{blog}', blogUrl),
        ...said,
        published,
        updated: retitled ? began - retitled.daysAgo * DAY : published,
        width: video.upright ? 360 : 640,
        height: video.upright ? 640 : 360
      };
    }
  );
}

/** The posts that a world begins with. */
export function worldPostsAt(began: number, channelUrl: string, hasBack = false): Post[] {
  const all: WorldPost[] = [...worldPosts, ...(hasBack ? backPosts() : [])];
  return all.map((post) => {
    const created = atHour(began - post.daysAgo * DAY, 11);
    const content = post.content
      .replace(/\{embed:([\w-]+)\}/g, `${channelUrl}embed/$1`)
      .replace(/\{watch:([\w-]+)\}/g, `${channelUrl}watch/$1`)
      .replace(/\{picture:([\w-]+)\}/g, `${channelUrl}thumbnails/$1/1280.png`);
    return {
      slug: post.slug,
      secret: `look-${post.slug.length}${post.daysAgo}`,
      status: post.status,
      visibility: 'public',
      deleted: false,
      created,
      updated: created,
      properties: {
        name: [post.title],
        content: [{ html: content }],
        category: post.categories,
        summary: [post.summary],
        published: [new Date(created).toISOString()],
        author: ['Isolde Wrenfold'],
        ...(post.pictureOf && {
          photo: [`${channelUrl}thumbnails/${post.pictureOf}/1280.png`]
        })
      }
    };
  });
}

/** What was written under uploads before a world begins. */
export const worldCommentsAt = (began: number): Comment[] =>
  worldComments.map(({ daysAgo, site = '', answers = '', ...comment }) => ({
    ...comment,
    site,
    answers,
    at: atHour(began - daysAgo * DAY, 15)
  }));

function atHour(time: number, hour: number): number {
  const date = new Date(time);
  date.setUTCHours(hour, 0, 0, 0);
  return date.getTime();
}
