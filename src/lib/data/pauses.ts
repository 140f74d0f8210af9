import { longer, type Pause } from '$lib/core/lanes/run.ts';
import type { Problem } from '$lib/core/model/place.ts';
import { db } from './db.ts';

export const pausedUntil = async (placeId: string): Promise<number> =>
  (await db.pauses.get(placeId))?.until ?? 0;

/** Sends nothing to a place for a while: longer each time in a row. */
export function pausePlace(placeId: string, problem: Problem, now: number): Promise<void> {
  return db.transaction('rw', db.pauses, async () => {
    const before = (await db.pauses.get(placeId)) ?? null;
    await db.pauses.put(longer(before, placeId, problem, now));
  });
}

export const endPause = (placeId: string): Promise<void> => db.pauses.delete(placeId);

export const currentPauses = async (now: number): Promise<Pause[]> =>
  (await db.pauses.toArray()).filter((pause) => pause.until > now);
