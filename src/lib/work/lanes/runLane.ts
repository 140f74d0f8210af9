import { v4 } from 'uuid';
import { make, syncRecords } from '$lib/core/lanes/drive.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import type { LaneRun } from '$lib/core/lanes/run.ts';
import type { Playlist } from '$lib/core/model/playlist.ts';
import { db } from '$lib/data/db.ts';
import { note } from '$lib/data/journal.ts';
import { saveLane } from '$lib/data/lanes.ts';
import { lanesWorker } from '$lib/workers/lanes.ts';
import { checkPlace } from '../link.ts';
import { checkNetwork } from '../networks.ts';
import { readPlaylist } from '../playlists.ts';
import { readPlaces } from '../read.ts';
import { attempt, runTask } from '../tasks.svelte.ts';
import { laneWorld } from './world.ts';

/** Milliseconds after which a run is stopped, whatever it does. */
const LONGEST_RUN = 60 * 60_000;

/**
 * One run of a lane: reads its sources, sifts, and makes what the most of one run allows. What is made
 * goes out later, at the pace of the lane. One run at a time, in whichever tab.
 * @returns what it did, or null where another run of it is going on
 */
export async function runLane(lane: Lane): Promise<LaneRun | null> {
  return await navigator.locks.request(`lane/${lane.id}`, { ifAvailable: true }, async (lock) => {
    if (!lock) return null;
    const run: LaneRun = {
      ...{ id: v4(), laneId: lane.id, at: Date.now(), ended: null },
      ...{ seen: 0, dropped: 0, made: 0, failed: 0, problem: null }
    };
    await db.runs.put(run);
    const { problem } = await attempt(() =>
      runTask(`Lane “${lane.name}”`, async (signal, report) => {
        const within = AbortSignal.any([signal, AbortSignal.timeout(LONGEST_RUN)]);
        report('reading its sources');
        for (const id of lane.source.places) {
          const place = await db.places.get(id);
          if (place) await attempt(() => readPlaces(place));
        }
        for (const playlist of await db.playlists.bulkGet(lane.source.playlists))
          if (playlist) await readAndNote(playlist, within);
        report('asking its places');
        for (const { placeId } of lane.targets) await attempt(() => askAgain(placeId, within));
        within.throwIfAborted();
        report('sifting');
        await syncRecords(lane, laneWorld(within));
        const looked = await lanesWorker().look(lane, run.id, Date.now());
        Object.assign(run, { seen: looked.seen, dropped: looked.dropped });
        if (looked.isBraked) {
          await saveLane({ ...lane, isOn: false, changed: Date.now() });
          await note({ what: 'lane-braked', title: lane.name, laneId: lane.id });
        }
        report('making');
        const ids = looked.found.map((r) => r.itemId);
        const candidates = await lanesWorker().candidates(lane, ids);
        const byId = new Map(candidates.map((c) => [c.item.id, c]));
        const tried = await make(lane, laneWorld(within), looked.found, byId, within);
        run.made = tried.filter((r) => r.state === 'in-review' || r.state === 'planned').length;
        run.failed = tried.filter((r) => r.problem !== null).length;
      })
    );
    Object.assign(run, { ended: Date.now(), problem });
    await db.runs.put(run);
    await note({
      ...{ what: problem ? 'run-failed' : 'run', title: lane.name, problem, laneId: lane.id },
      ...{ count: run.made, key: '', itemId: '', placeId: '' }
    });
    return run;
  });
}

/** Reads a playlist; where it cannot be read, what was known of it stays, and the journal says so. */
async function readAndNote(playlist: Playlist, signal: AbortSignal): Promise<void> {
  const { problem } = await attempt(() => readPlaylist(playlist, signal));
  const { placeId, title, url } = playlist;
  if (problem) await note({ what: 'read-failed', placeId, title, url, problem });
}

/** Asks a place again until when its key is good and what is left of its allowance. */
async function askAgain(placeId: string, signal: AbortSignal): Promise<void> {
  const network = await db.networks.get(placeId);
  if (network && !network.isByHand) await checkNetwork(network, signal);
  const place = await db.places.get(placeId);
  if (place) await checkPlace(place, signal);
}
