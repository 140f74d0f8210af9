import { PlaceError } from '$lib/core/model/place.ts';
import type { Choice, PostMerge } from '$lib/core/twins/merge/mergePosts.ts';
import { getEntry } from '$lib/data/outbox.ts';
import { deliverEntry } from '$lib/delivery/deliverEntry.ts';

/** Three versions of the half that was made here, merged: what there is to decide before it is updated. */
export interface TwinUpdate {
  side: 'video' | 'post';
  merge: PostMerge;
  /**
   * Updates it at its place with the changes that are taken. What is not taken stays as it is there, and
   * is not offered again.
   * @throws PlaceError when it was refused; the outbox goes on trying what may pass
   */
  apply(choices: ReadonlyMap<number, Choice>): Promise<Updated>;
}

export interface Updated {
  /** Whether it has arrived; else the outbox goes on trying. */
  isSent: boolean;
  undo: () => Promise<void>;
}

/** Why a half cannot be brought up to date from here. */
export type NoUpdate = 'not-made-here' | 'on-the-desk' | 'being-sent' | 'gone';

/**
 * Sends what was written into the outbox.
 * @returns whether it has arrived
 * @throws PlaceError when it was refused
 */
export async function sendNow(key: string): Promise<boolean> {
  await deliverEntry(key);
  const entry = await getEntry(key);
  if (entry?.state === 'failed' && entry.problem) throw new PlaceError(entry.problem);
  return entry?.state === 'published';
}
