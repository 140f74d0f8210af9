import type { Nearness } from './features.ts';
import type { Likeness } from './likeness.ts';

/** A video and a post that were compared, by their places in the corpus. */
export interface Compared {
  video: number;
  post: number;
  likeness: Likeness;
  /** Log-odds of each by itself, and beside its rivals. */
  alone: number;
  beside: number;
  /** The next best of the same video, and of the same post, by log-odds alone; null where there is none. */
  ofVideo: number | null;
  ofPost: number | null;
  near: Nearness;
}
