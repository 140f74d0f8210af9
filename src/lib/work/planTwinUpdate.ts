import type { Twin } from '$lib/core/model/twin.ts';
import type { TalkWorker } from '$lib/make/post.ts';
import type { NoUpdate, TwinUpdate } from './twinUpdate.ts';
import { planUpdate } from './updatePost.ts';
import { planVideoUpdate } from './updateVideo.ts';

/**
 * Reads how the half that was made here was made, how it stands at its place and how it would be made now,
 * and merges the three. Nothing is sent.
 * @throws PlaceError
 */
export async function planTwinUpdate(
  twin: Twin,
  worker: TalkWorker,
  signal: AbortSignal
): Promise<TwinUpdate | NoUpdate> {
  const { video, post } = twin;
  if (!video || !post) return 'gone';
  return post.isMade ? planUpdate(video.id, post.id, worker, signal) : planVideoUpdate(twin);
}
