import { fromInt16 } from '$lib/core/audio/speech.ts';
import { beyondRoom } from '$lib/core/model/room.ts';
import type { Speech } from '$lib/voice/speech.ts';
import { db } from './db.ts';
import type { KeptSpeech } from '$lib/core/model/rows.ts';

/** Days after which a sentence that no video used is forgotten. */
const KEPT_DAYS = 90;
/** Bytes of sentences that are kept at most: some five hours of most voices. */
const ROOM = 600_000_000;

/** How the names of sentences begin that the user read: nobody else can say them again. */
export const TAKE = 'take:';

export const secondsOf = ({ samples, rate }: Speech): number => samples.length / rate;

/**
 * Keeps sentences by their names, all in one go.
 * @param today ISO 8601 day
 */
export async function keepSpeeches(
  said: ReadonlyMap<string, Speech>,
  today: string
): Promise<void> {
  const all = [...said];
  await db.transaction('rw', db.speech, db.samples, () =>
    Promise.all([
      db.samples.bulkPut(all.map(([key, { samples }]) => ({ key, samples }))),
      db.speech.bulkPut(
        all.map(([key, speech]) => {
          const { rate, words } = speech;
          return { key, seconds: secondsOf(speech), rate, words, used: today };
        })
      )
    ])
  );
}

/** Seconds of those of many sentences that are kept, by key, noting that they are still used. */
export async function findAllSpeech(
  keys: readonly string[],
  today: string
): Promise<ReadonlyMap<string, number>> {
  const kept = (await db.speech.bulkGet([...new Set(keys)])).filter((k) => k !== undefined);
  const old = kept.filter((k) => k.used !== today);
  if (old.length > 0) await db.speech.bulkPut(old.map((k) => ({ ...k, used: today })));
  return new Map(kept.map((k) => [k.key, k.seconds]));
}

export const getSpeechOf = (keys: readonly string[]): Promise<(KeptSpeech | undefined)[]> =>
  db.speech.bulkGet([...keys]);

/** A sentence as it sounds. */
export interface KeptSound {
  samples: Float32Array<ArrayBuffer>;
  /** Samples a second. */
  rate: number;
}

/** The sound of a kept sentence. */
export const readSpeech = async (key: string): Promise<KeptSound | null> =>
  (await readSpeeches([key])).get(key) ?? null;

/** The sounds of some kept sentences, by key: asked for together they come much sooner. */
export async function readSpeeches(keys: readonly string[]): Promise<Map<string, KeptSound>> {
  const wanted = [...new Set(keys)];
  const [kept, sounds] = await Promise.all([db.speech.bulkGet(wanted), db.samples.bulkGet(wanted)]);
  const found = new Map<string, KeptSound>();
  for (const [i, key] of wanted.entries()) {
    const [row, sound] = [kept[i], sounds[i]];
    if (row && sound) found.set(key, { samples: fromInt16(sound.samples), rate: row.rate });
  }
  return found;
}

/**
 * Makes room: sentences that were not used for long are forgotten, and beyond the room those that were not
 * used for longest. They can be said again, but for takes that a video has.
 */
export async function forgetOldSpeech(now: Date, room = ROOM): Promise<void> {
  const limit = new Date(now.getTime() - KEPT_DAYS * 86_400_000).toISOString().slice(0, 10);
  const newestFirst = await db.speech.orderBy('used').reverse().toArray();
  const old = newestFirst.filter(({ used }) => used < limit);
  const bytesOf = ({ seconds, rate }: KeptSpeech) => seconds * rate * Int16Array.BYTES_PER_ELEMENT;
  const going = new Set([...old, ...beyondRoom(newestFirst, bytesOf, room)].map(({ key }) => key));
  const isTake = [...going].some((key) => key.startsWith(TAKE));
  const takes = isTake ? await takesInUse() : new Set<string>();
  const keys = [...going].filter((key) => !takes.has(key));
  await db.speech.bulkDelete(keys);
  await db.samples.bulkDelete(keys);
}

async function takesInUse(): Promise<Set<string>> {
  const takes = new Set<string>();
  await db.narrations.each(({ scenes }) => {
    for (const { lines } of scenes) for (const { take } of lines) if (take) takes.add(take.key);
  });
  return takes;
}
