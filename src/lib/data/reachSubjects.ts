import { isUpdate } from '$lib/core/delivery/payload.ts';
import type { ReachSubject } from '$lib/core/reach/overview.ts';
import { db } from './db.ts';

/** Everything of connected places that has figures, with what may have to do with them. */
export async function reachSubjects(): Promise<ReachSubject[]> {
  const [totals, places, networks, entries] = await Promise.all([
    db.reachTotals.toArray(),
    db.places.toCollection().primaryKeys(),
    db.networks.toCollection().primaryKeys(),
    db.outbox.where({ state: 'published' }).toArray()
  ]);
  const connected = new Set<string>([...places, ...networks]);
  const made = new Map(entries.map((entry) => [entry.key, entry]));
  const mine = totals.filter(({ placeId }) => connected.has(placeId));
  const items = await db.items.bulkGet(mine.map(({ id }) => id));
  return mine.flatMap(({ id, kind, placeId, totals: figures }, i): ReachSubject[] => {
    const entry = made.get(items[i]?.origin ?? id);
    const payload = entry?.payload;
    const published = items[i]?.published ? Date.parse(items[i].published) : (entry?.sentAt ?? NaN);
    if (!(published > 0)) return [];
    return [
      {
        id,
        kind,
        placeId,
        laneId: entry?.laneId ?? '',
        published,
        duration: items[i]?.duration ?? null,
        form: payload && isUpdate(payload) ? formOf(payload) : '',
        totals: figures
      }
    ];
  });
}

function formOf({ form, part, clip }: Extract<Parameters<typeof isUpdate>[0], { kind: 'update' }>) {
  if (form !== 'text') return form;
  return part && part.of > 1 ? 'thread' : clip ? 'clip' : 'text';
}
