import { candidatesFrom, countsWords } from '$lib/core/lanes/candidates.ts';
import type { Candidate } from '$lib/core/lanes/filter.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import type { Item } from '$lib/core/model/item.ts';
import { db } from './db.ts';

/** All that the sources of a lane have in the catalogue. Heavy: runs in a worker. */
export async function candidatesOf(lane: Lane): Promise<Candidate[]> {
  const [items, places, twins, entries, playlists] = await Promise.all([
    db.items.where('placeId').anyOf(lane.source.places).toArray(),
    db.places.toArray(),
    db.twins.toArray(),
    db.outbox.toArray(),
    db.playlists.bulkGet([...lane.source.playlists])
  ]);
  // Texts are read only where they are compared or counted: videos have none to speak of.
  const isAsked = ({ kind, origin }: Item) =>
    countsWords(lane) || (kind === 'post' && origin === null);
  const bodies = await db.bodies.bulkGet(items.filter(isAsked).map((item) => item.id));
  return candidatesFrom(lane, {
    items,
    bodies: new Map(bodies.flatMap((b) => (b ? [[b.id, b.html]] : []))),
    owners: new Map(places.map((p) => [p.id, p.author])),
    twins,
    entries,
    listed: new Set(playlists.flatMap((p) => p?.members ?? []))
  });
}
