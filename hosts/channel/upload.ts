import { z } from 'zod';
import type { Video } from '../world/world.ts';

const fileSchema = z.object({
  /** In the folder of uploads. */
  name: z.string(),
  bytes: z.number(),
  type: z.string(),
  /** Seconds, pixels. */
  duration: z.number(),
  width: z.number(),
  height: z.number()
});

/** A video that was sent to the channel by program. Times are milliseconds since 1970. */
export const uploadSchema = z.object({
  id: z.string(),
  /** What its sender calls it. */
  uid: z.string(),
  /** Address of what it was made from, or empty. */
  source: z.string(),
  title: z.string(),
  description: z.string(),
  tags: z.array(z.string()),
  category: z.string(),
  language: z.string(),
  visibility: z.enum(['public', 'unlisted', 'private']),
  /** When a private video becomes public, or null. */
  publishAt: z.number().nullable(),
  created: z.number(),
  updated: z.number(),
  captions: z.array(z.object({ start: z.number(), end: z.number(), text: z.string() })),
  chapters: z.array(z.object({ start: z.number(), end: z.number(), title: z.string() })),
  file: fileSchema.nullable(),
  /** When the file had come in whole. */
  received: z.number().nullable(),
  /** Why the file could not be used, or empty. */
  trouble: z.string(),
  thumbnail: z.string(),
  deleted: z.boolean()
});
export type Upload = z.infer<typeof uploadSchema>;

/** How far the channel has got with a file: looking at it, then making the sizes it is watched in. */
export type WorkState = 'awaiting-file' | 'checking' | 'making-sizes' | 'ready' | 'failed';

const CHECKING = 1_500;
/** Milliseconds for each second of video, and for any video. */
const WORK = { each: 25, any: 2_500 };

export function workOf(upload: Upload, now: number): { state: WorkState; done: number } {
  if (upload.trouble) return { state: 'failed', done: 0 };
  if (!upload.file || upload.received === null) return { state: 'awaiting-file', done: 0 };
  const since = now - upload.received;
  if (since < CHECKING) return { state: 'checking', done: 0 };
  const length = WORK.any + WORK.each * Math.min(600, upload.file.duration);
  const done = Math.min(1, (since - CHECKING) / length);
  return { state: done < 1 ? 'making-sizes' : 'ready', done };
}

/** Who may see it at a time: a private video with a date becomes public then. */
export function visibilityOf(upload: Upload, now: number): Upload['visibility'] {
  const isOut = upload.publishAt !== null && upload.publishAt <= now;
  return isOut ? 'public' : upload.visibility;
}

/** An upload as the channel shows it. */
export function toVideo(upload: Upload, now: number): Video {
  const { id, title, description, tags, category, language, captions, chapters, file } = upload;
  const [width, height] = [file?.width ?? 1280, file?.height ?? 720];
  return {
    id,
    title,
    description,
    tags,
    category,
    language,
    chapters,
    width,
    height,
    visibility: visibilityOf(upload, now),
    author: 'Wrenfold Loomworks',
    licence: 'All rights reserved',
    captions: captions.length > 0 ? 'edited' : 'none',
    cues: captions,
    sentences: [],
    duration: file?.duration ?? 0,
    published: upload.publishAt ?? upload.created,
    updated: upload.updated,
    upright: height > width,
    madeFrom: upload.source,
    uid: upload.uid,
    scene: 'loom',
    draft: {
      threading: [1, 2, 3, 4],
      tieUp: [
        [1, 1, 0, 0],
        [0, 1, 1, 0],
        [0, 0, 1, 1],
        [1, 0, 0, 1]
      ],
      treadling: [1, 2, 3, 4],
      warp: '#7b2d1f',
      weft: '#d9c7a3'
    }
  };
}
