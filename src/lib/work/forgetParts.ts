import { beyondRoom } from '$lib/core/model/room.ts';
import { rendersByTime } from '$lib/data/runningRenders.ts';
import { listFiles, removeFiles } from '$lib/video/files.ts';
import { postOfPart } from '$lib/video/partFile.ts';

/** Bytes of finished parts that are kept at most, for videos that are rendered again. */
const ROOM = 1_000_000_000;

/** Makes room: the parts of videos that were not rendered for longest are forgotten. They can be made again. */
export async function forgetOldParts(room = ROOM): Promise<void> {
  const parts = (await listFiles()).filter(({ name }) => postOfPart(name) !== null);
  const renders = await rendersByTime();
  // A render that was cut off goes on with its parts.
  const running = new Set(renders.filter((r) => r.state === 'running').map((r) => r.id));
  const places = new Map(renders.map(({ id }, place) => [id, place]));
  const placeOf = (name: string): number => {
    const post = postOfPart(name) ?? '';
    return running.has(post) ? -1 : (places.get(post) ?? Infinity);
  };
  const newestFirst = parts.toSorted((a, b) => placeOf(a.name) - placeOf(b.name) || 0);
  const going = beyondRoom(newestFirst, ({ bytes }) => bytes, room);
  await removeFiles(going.map(({ name }) => name).filter((name) => placeOf(name) >= 0));
}
