import { proxy } from 'comlink';
import { z } from 'zod';
import type { OwnVisits } from '$lib/core/reach/log/ownVisits.ts';
import type { Place } from '$lib/core/model/place.ts';
import { LINK_TAG_PATTERN } from '$lib/core/updates/linkTags.ts';
import { note } from '$lib/data/journal.ts';
import { addLogVisits, type FoundVisits } from '$lib/data/reach.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { localZone } from '$lib/localZone.ts';
import { reachWorker } from '$lib/workers/reach.ts';
import { runTask } from '../tasks.svelte.ts';

const OWN_VISITS = 'reach/own-visits';
const ownSchema = z
  .object({ addresses: z.array(z.string()), marks: z.array(z.string()) })
  .catch({ addresses: [], marks: [] });

/** How the user's own visits are told apart. They stay in this browser. */
export const readOwnVisits = (): Promise<OwnVisits> => readSetting(OWN_VISITS, ownSchema);
export const saveOwnVisits = (own: OwnVisits): Promise<unknown> => saveSetting(OWN_VISITS, own);

/** Names of the link tags that updates have. */
async function linkTagNames(): Promise<string[]> {
  const pattern = await readSetting('linkTags', z.string().catch(LINK_TAG_PATTERN));
  return pattern.split(/[?&]/).flatMap((pair) => pair.split('=')[0]?.trim() || []);
}

/**
 * Reads the access log of a blog, to be looked at before its visits are added.
 * @returns null where the file cannot be unpacked
 * @throws PlaceError `stopped`
 */
export function readAccessLog(
  blog: Place,
  file: File,
  own: OwnVisits
): Promise<FoundVisits | null> {
  return runTask(`Reading ${file.name}`, async (signal, report) => {
    const tags = await linkTagNames();
    // A file may be read for minutes in one go.
    signal.addEventListener('abort', () => reachWorker.end());
    const told = proxy((done: number) => report(`${Math.round(done * 100)} %`, done));
    return reachWorker().readLog(blog, file, own, tags, localZone(), told);
  });
}

/** Adds what a log told. @returns what takes it out again */
export async function addVisits(blog: Place, found: FoundVisits): Promise<() => Promise<void>> {
  const undo = await addLogVisits(found);
  const { visits } = found.findings.counts;
  await note({ what: 'visits-imported', placeId: blog.id, title: blog.title, count: visits });
  return undo;
}
