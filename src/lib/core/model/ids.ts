import { v5 } from 'uuid';

/** The name space of this application's keys: fixed for ever, or known items become new ones. */
const NAMESPACE = '6d1f3c0a-4b53-5e0e-9c36-0d6b2f5a7c11';

const nameBased = (...parts: string[]): string => v5(JSON.stringify(parts), NAMESPACE);

export const placeId = (feedUrl: string): string => nameBased('place', feedUrl);

/** The same for an item that is retitled, dated anew or fed again: only what its place calls it counts. */
export const itemId = (place: string, nativeId: string): string =>
  nameBased('item', place, nativeId);

/** The same for a comment however often its feed is read. */
export const commentId = (video: string, nativeId: string): string =>
  nameBased('comment', video, nativeId);

/**
 * The key of something to be placed. It depends only on what it is, so that any tab, retry or
 * installation comes to the same one.
 * @param source address of what it is made from
 * @param kind what is made
 * @param target address of the place it goes to
 */
export const placementKey = (source: string, kind: string, target: string): string =>
  nameBased('placement', source, kind, target);

/** The name of a sentence as one voice says it. */
export const speechKey = (
  {
    engine,
    voice,
    speed,
    tone = 'plain'
  }: { engine: string; voice: string; speed: number; tone?: string },
  spoken: string
): string =>
  nameBased('speech', engine, tone === 'plain' ? voice : `${voice} ${tone}`, String(speed), spoken);
