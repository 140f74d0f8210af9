import { v4 } from 'uuid';
import { run } from '$lib/core/lanes/runner.ts';
import type { LaneRun } from '$lib/core/lanes/run.ts';
import { note } from '$lib/data/journal.ts';
import { endCutRuns, getLane } from '$lib/data/lanes.ts';
import { withTimeLimit } from '$lib/timeLimit.ts';
import { runTask } from '../tasks.svelte.ts';
import { keepUpToDate } from './keepUpToDate.ts';
import { laneWorld } from './world.ts';

/** Milliseconds after which a run is stopped, whatever it does. */
const MAX_RUN = 60 * 60_000;

/**
 * One run of a lane, with the settings that it has by now. One run of it at a time, in whichever
 * tab.
 * @returns what it did, or null where another run of it is going on or the lane is gone
 */
export async function runLane(id: string): Promise<LaneRun | null> {
  return await navigator.locks.request(`lane/${id}`, { ifAvailable: true }, async (lock) => {
    const lane = await getLane(id);
    if (!lock || !lane) return null;
    await endCutRuns(id, Date.now());
    const done = await runTask(`Lane “${lane.name}”`, (signal, report) =>
      withTimeLimit(MAX_RUN, signal, async (limited) => {
        const ran = await run(lane, laneWorld, v4(), limited, report);
        if (!ran.problem) await keepUpToDate(lane, limited, report);
        return ran;
      })
    );
    await note({
      what: done.problem ? 'run-failed' : 'run',
      title: lane.name,
      problem: done.problem,
      laneId: id,
      count: done.made
    });
    return done;
  });
}
