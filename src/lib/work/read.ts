import { PlaceError, type Place } from '$lib/core/model/place.ts';
import { replaceItems } from '$lib/data/items.ts';
import { note } from '$lib/data/journal.ts';
import { allPlaces, noteRead } from '$lib/data/places.ts';
import { adapterFor } from '$lib/places/adapter.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { attempt, runTask, type Report } from './tasks.svelte.ts';

/** Reads one place, or all of them, and pairs anew. Problems are kept with the place. */
export function readPlaces(which?: Place): Promise<void> {
  return runTask(
    which ? `Reading ${which.title}` : 'Reading all places',
    async (signal, report) => {
      for (const place of which ? [which] : await allPlaces()) {
        const { value, problem } = await attempt(() => readPlace(place, signal, report));
        signal.throwIfAborted();
        const checked = new Date().toISOString();
        await noteRead(place.id, { problem, checked });
        await note({
          what: problem ? 'read-failed' : 'read',
          placeId: place.id,
          title: place.title,
          count: value,
          problem
        });
      }
      report('Pairing');
      await coreWorker().pairAgain();
    }
  );
}

async function readPlace(place: Place, signal: AbortSignal, report: Report): Promise<number> {
  const adapter = await adapterFor(place);
  let pages = 0;
  const isWhole = await adapter.list(async (document) => {
    const { next, problem } = await coreWorker().collect(place.feedUrl, document);
    if (problem) throw new PlaceError(problem);
    report(`${place.title}: ${++pages} ${pages === 1 ? 'page' : 'pages'}`);
    return next;
  }, signal);
  const count = await coreWorker().storeCollected(place.feedUrl, isWhole);
  if (!adapter.listOwn || !place.hasKey) return count;
  const own = await adapter.listOwn();
  await replaceItems(
    place.id,
    own.map((o) => o.item),
    own.map(({ item, html }) => ({ id: item.id, html })),
    (item) => adapter.isOwn?.(item) ?? false
  );
  return count + own.length;
}
