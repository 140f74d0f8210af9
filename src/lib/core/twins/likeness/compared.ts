import type { Likeness } from './likeness.ts';

/** Whether nothing that is compared with the one was published nearer to it, of the video, of the post. */
export type Nearness = 'both' | 'video' | 'post' | 'none';

/** A video and a post that were compared, by their places in the corpus. */
export interface Compared {
  video: number;
  post: number;
  likeness: Likeness;
  /** Whether the video is no longer than clips are. */
  isClip: boolean;
  /** Log-odds of each by itself, and beside its rivals. */
  alone: number;
  beside: number;
  /** The next best of the same video, and of the same post, by log-odds alone; -Infinity where there is none. */
  ofVideo: number;
  ofPost: number;
  /** What is left of these once their other halves have what is best for them. */
  freeOfVideo: number;
  freeOfPost: number;
  /** Whether a clip was taken from another video, as it seems: one that is about as much like the post. */
  isOfAnother: boolean;
  near: Nearness;
}
