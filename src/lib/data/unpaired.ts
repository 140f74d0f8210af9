import { tieId } from '$lib/core/model/tie.ts';
import type { Item } from '$lib/core/model/item.ts';
import { isUnpaired } from '$lib/core/twins/unpaired.ts';
import type { ToldItem } from '$lib/core/twins/likeness/told.ts';
import { spokenText } from '$lib/core/captions/spokenText.ts';
import { htmlText } from '$lib/core/text/html.ts';
import { db } from './db.ts';

/** Videos without a post and posts without a video, with the text there is of them. Heavy: runs in a worker. */
export async function readUnpaired(): Promise<{
  videos: ToldItem[];
  posts: ToldItem[];
  /** Pairs that the user does not want to see again. */
  refused: Set<string>;
}> {
  const [twins, ties] = await Promise.all([db.twins.toArray(), db.ties.toArray()]);
  const ids = twins.flatMap((twin) => (isUnpaired(twin) ? [twin.id] : []));
  const [items, bodies, details] = await Promise.all([
    db.items.bulkGet(ids),
    db.bodies.bulkGet(ids),
    db.details.bulkGet(ids)
  ]);
  const told = items.flatMap((item, i): ToldItem[] => {
    if (!item || item.origin !== null) return [];
    const html = bodies[i]?.html ?? '';
    const said = spokenText(details[i]?.cues ?? []);
    return [{ item, text: `${(html && htmlText(html)) || item.summary} ${said}`.trim() }];
  });
  const refused = ties.filter((t) => t.relation === 'none').map((t) => tieId(t.video, t.post));
  return {
    videos: told.filter(({ item }) => item.kind === 'video'),
    posts: told.filter(({ item }) => item.kind === 'post'),
    refused: new Set(refused)
  };
}

/** Videos without a post whose captions were not read yet. */
export async function videosToRead(): Promise<Item[]> {
  const twins = await db.twins.filter((twin) => twin.video !== null && isUnpaired(twin)).toArray();
  const known = new Set(await db.details.toCollection().primaryKeys());
  const items = await db.items.bulkGet(twins.map((twin) => twin.id).filter((id) => !known.has(id)));
  return items.filter((item) => item !== undefined && item.captions.length > 0) as Item[];
}
