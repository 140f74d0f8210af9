import type { Lane } from '$lib/core/lanes/lane.ts';
import { plural } from '$lib/core/text/plural.ts';
import type { LaneWorld } from '$lib/core/lanes/runner.ts';
import { allowancesOf, type PlaceAllowance } from '$lib/data/allowances.ts';
import { readBusy } from '$lib/data/busy.ts';
import { note } from '$lib/data/journal.ts';
import { laneStore, patchLane } from '$lib/data/lanes.ts';
import { entriesIn } from '$lib/data/outbox.ts';
import { getNetwork } from '$lib/data/networks.ts';
import { endPause, pausedUntil, pausePlace } from '$lib/data/pauses.ts';
import { getPlace } from '$lib/data/places.ts';
import { getPlaylists } from '$lib/data/playlists.ts';
import { deliverEntry } from '$lib/delivery/deliverEntry.ts';
import { withTimeLimit } from '$lib/timeLimit.ts';
import { lanesWorker } from '$lib/workers/lanes.ts';
import { checkPlace } from '../connect.ts';
import { checkNetwork } from '../networks.ts';
import { readPlaylist } from '../playlists.ts';
import { readPlaces } from '../read.ts';
import { attempt } from '../tasks.svelte.ts';

/** What lanes need, as it is: the database, the workers and the outbox. */
export const laneWorld: LaneWorld = {
  store: laneStore,
  now: Date.now,
  refresh,
  discover: (lane, runId) => lanesWorker().discover(lane, runId, Date.now()),
  make: (lane, { item }, target, signal) => {
    const { stepLimit, kind } = lane.make;
    const minutes = plural(stepLimit, 'minute', 'minutes');
    return withTimeLimit(
      stepLimit * 60_000,
      signal,
      async (limited) => {
        if (kind === 'post')
          return (await import('./makePost.ts')).makePostForLane(lane, item, target, limited);
        if (kind === 'video')
          return (await import('./makeNarrated.ts')).makeNarratedForLane(
            item,
            target,
            lane.make.look,
            limited
          );
        return (await import('./makeUpdate.ts')).makeUpdateForLane(lane, item, target);
      },
      `Making it took longer than ${minutes}.`
    );
  },
  async stopLane({ id, name }, made) {
    const at = Date.now();
    await patchLane(id, { isOn: false, stopped: { at, made } });
    await note({ what: 'lane-paused', title: name, laneId: id });
  },
  allowances,
  busy: readBusy,
  deliver: deliverEntry,
  pausedUntil,
  pause: (placeId, problem) => pausePlace(placeId, problem, Date.now()),
  resume: endPause
};

/** What the places of a lane still take, less what the user gave a time that other lanes publish there. */
async function allowances(lane: Lane): Promise<PlaceAllowance[]> {
  const [told, entries] = await Promise.all([
    allowancesOf(lane.targets.map((t) => t.placeId)),
    entriesIn('planned')
  ]);
  const now = Date.now();
  return told.map((allowance) => ({
    ...allowance,
    used: [
      ...allowance.used,
      ...entries.flatMap(({ laneId, placeId, pin }) =>
        laneId !== lane.id && placeId === allowance.placeId && pin && pin.at > now ? [pin.at] : []
      )
    ]
  }));
}

/**
 * Reads the sources of a lane anew and asks its places what they still take. A place that does not
 * answer keeps its problem; what is known of it from before is worked with.
 */
async function refresh(
  lane: Lane,
  signal: AbortSignal,
  report: (step: string) => void
): Promise<void> {
  report('Reading its sources');
  for (const id of lane.source.places) {
    signal.throwIfAborted();
    const place = await getPlace(id);
    if (place) await attempt(() => readPlaces(place, false));
  }
  for (const playlist of await getPlaylists(lane.source.playlists)) {
    const { problem } = await attempt(() => readPlaylist(playlist, signal));
    const { placeId, title, url } = playlist;
    if (problem) await note({ what: 'read-failed', placeId, title, url, problem });
  }
  report('Asking its places');
  for (const { placeId } of lane.targets) {
    const network = await getNetwork(placeId);
    if (network && !network.isByHand) await attempt(() => checkNetwork(network, signal));
    const place = await getPlace(placeId);
    if (place) await attempt(() => checkPlace(place, signal));
  }
}
