import { moveOn } from '$lib/core/lanes/drive.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import { db } from '$lib/data/db.ts';
import { openWork } from '$lib/data/lanes.ts';
import { workOn } from '../post.ts';
import { attempt } from '../tasks.svelte.ts';
import { noteMissed, signLed } from './catchUp.ts';
import { runLane } from './runLane.ts';
import { laneWorld } from './world.ts';

/** Milliseconds between two looks at what the lanes have to do, and between two runs of a lane. */
const [LOOK_EVERY, RUN_EVERY] = [5_000, 30 * 60_000];
/** Milliseconds after which a lane is looked at again: places may take more than they did. */
const LONGEST_REST = 60_000;
/** Steps that one lane takes before the next has its turn. */
const MOST_STEPS = 20;

/**
 * Leads the lanes for as long as this tab is open. Exactly one tab leads: the others wait, and the
 * next takes over when it is closed or killed.
 */
export function leadLanes(signal: AbortSignal): void {
  void navigator.locks
    .request('lanes/lead', { signal }, async () => {
      await attempt(() => noteMissed(signal));
      while (!signal.aborted) {
        await signLed();
        await attempt(() => turn(signal));
        await attempt(async () => (await import('./daySummary.ts')).sendSummaryWhenDue());
        await new Promise<void>((done) => {
          const timer = setTimeout(done, LOOK_EVERY);
          signal.addEventListener('abort', () => (clearTimeout(timer), done()), { once: true });
        });
      }
    })
    .catch(() => null);
}

/** The run that goes on; one lane runs at a time, and others are moved on meanwhile. */
let going: Promise<unknown> | null = null;

async function turn(signal: AbortSignal): Promise<void> {
  for (const lane of await db.lanes.toArray()) {
    if (signal.aborted) return;
    if (!lane.isOn) {
      await settleBegun(lane);
      continue;
    }
    const latest = await lastRun(lane);
    if (!going && Date.now() - latest >= RUN_EVERY)
      going = attempt(() => runLane(lane)).finally(() => (going = null));
    await moveLane(lane, signal);
  }
}

/** What was begun when a lane was switched off, or was placed by hand since, is still seen through. */
async function settleBegun({ id }: Lane): Promise<void> {
  const begun = await db.outbox.where({ laneId: id }).toArray();
  for (const { key, state, nextTry } of begun)
    if ((state === 'sending' || state === 'waiting') && nextTry <= Date.now()) await workOn(key);
}

async function lastRun(lane: Lane): Promise<number> {
  const runs = await db.runs.where({ laneId: lane.id }).sortBy('at');
  return runs.at(-1)?.at ?? 0;
}

/** Until when a lane has nothing to do, as long as its open work and its settings stay the same. */
const resting = new Map<string, { until: number; work: string }>();

/** Lets out what the pace of a lane allows by now. */
async function moveLane(lane: Lane, signal: AbortSignal): Promise<void> {
  const workNow = async () => [lane.changed, ...(await openWork(lane.id))].join('\n');
  const work = await workNow();
  const rest = resting.get(lane.id);
  if (rest && rest.work === work && Date.now() < rest.until) return;
  const world = laneWorld(signal);
  let wakes: number | null = 0;
  for (let steps = 0; steps < MOST_STEPS && !signal.aborted; steps++) {
    wakes = await moveOn(lane, world);
    if (wakes === null || wakes > Date.now()) break;
  }
  const until = Math.min(wakes ?? Infinity, Date.now() + LONGEST_REST);
  resting.set(lane.id, { until, work: await workNow() });
}
