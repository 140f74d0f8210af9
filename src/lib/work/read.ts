import { proxy } from 'comlink';
import { PlaceError, type Place } from '$lib/core/model/place.ts';
import { plural } from '$lib/core/text/plural.ts';
import { note } from '$lib/data/journal.ts';
import { noteSeen } from '$lib/data/outbox.ts';
import { hasPublishedUpdates } from '$lib/data/publishedUpdates.ts';
import { allPlaces, patchPlace } from '$lib/data/places.ts';
import { adapterFor } from '$lib/places/adapter.ts';
import { localZone } from '$lib/localZone.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { videosToReadAgain } from '$lib/data/twins.ts';
import { pageFetcher } from './pageFetcher.ts';
import { attempt, runTask, type Report } from './tasks.svelte.ts';

/**
 * Reads one place, or all of them. Problems are kept with the place.
 * @param isAsked the user wants it now: also what could not be read in time is tried once more
 */
export function readPlaces(which?: Place, isAsked = true): Promise<void> {
  return runTask(
    which ? `Reading ${which.title}` : 'Reading all places',
    async (signal, report) => {
      for (const place of which ? [which] : await allPlaces()) {
        if (!isAsked && place.problem?.kind === 'too-heavy') continue;
        const { value, problem } = await attempt(() => readPlace(place, signal, report));
        signal.throwIfAborted();
        await patchPlace(place.id, { problem, checked: new Date().toISOString() });
        await note({
          what: problem ? 'read-failed' : 'read',
          placeId: place.id,
          title: place.title,
          count: value,
          problem
        });
      }
      if (!which) await readUpdates(signal);
    }
  );
}

/** What came of updates at their networks; one that does not answer tells another time. */
async function readUpdates(signal: AbortSignal): Promise<void> {
  if (!(await hasPublishedUpdates())) return;
  // Loaded where there are some: the first page need not know networks.
  const { readNetworkFigures } = await import('./reach/networkFigures.ts');
  await readNetworkFigures(signal);
}

/**
 * Reads a place into the catalogue. One reading of a place at a time, in whichever tab: a second
 * one waits, so that each is applied against what the one before has left.
 * @returns how many items it has
 */
async function readPlace(place: Place, signal: AbortSignal, report: Report): Promise<number> {
  return await navigator.locks.request(`read/${place.id}`, { signal }, async () => {
    const adapter = await adapterFor(place);
    const own = place.hasKey ? ((await adapter.listOwn?.(signal)) ?? null) : null;
    let pages = 0;
    const fetchPage = pageFetcher(signal, () =>
      report(`${place.title}: ${plural(++pages, 'page', 'pages')}`)
    );
    const { count, problem } = await coreWorker().readFeed(
      place,
      own,
      localZone(),
      proxy(fetchPage)
    );
    if (problem) throw new PlaceError(problem);
    if (own && adapter.heldByKey) await noteSeen(place.id, adapter.heldByKey);
    await readChanged(place, signal, report);
    if (place.kind === 'channel' && (place.comments ?? 'off') !== 'off') {
      // Loaded where they are wanted: the first page need not know comments.
      const { readCommentsOf } = await import('./comments.ts');
      await readCommentsOf(place, signal, report);
    }
    return count;
  });
}

/** Reads captions and chapters of videos anew that were changed since a post was made of them. */
async function readChanged(place: Place, signal: AbortSignal, report: Report): Promise<void> {
  if (place.kind !== 'channel') return;
  const videos = await videosToReadAgain(place.id);
  if (videos.length === 0) return;
  // Loaded when there are some: the first page need not know captions.
  const { readMany } = await import('./readMany.ts');
  await readMany(videos, signal, (step, done) => report(`Captions: ${step}`, done));
}
