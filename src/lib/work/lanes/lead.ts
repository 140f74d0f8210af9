import { advance } from '$lib/core/lanes/runner.ts';
import { toProblem } from '$lib/core/delivery/retry.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import type { MonthReport } from '$lib/core/reach/report.ts';
import type { Problem } from '$lib/core/model/place.ts';
import { note } from '$lib/data/journal.ts';
import { keyLock } from '$lib/data/keyOfKeys.ts';
import { allLanes, latestRuns, openWork } from '$lib/data/lanes.ts';
import { entriesOfLane } from '$lib/data/outbox.ts';
import { deliverEntry } from '$lib/delivery/deliverEntry.ts';
import { attempt } from '../tasks.svelte.ts';
import { noteMissed, signLed } from './catchUp.ts';
import { runLane } from './runLane.ts';
import { laneWorld } from './world.ts';

/** Milliseconds between two looks at what the lanes have to do, and between two runs of a lane. */
const [LOOK_EVERY, RUN_EVERY] = [5_000, 30 * 60_000];
/** Milliseconds after which a lane is looked at again: places may take more than they did. */
const MAX_REST = 60_000;
/** Steps that one lane takes before the next has its turn. */
const MAX_STEPS = 20;

/**
 * Leads the lanes for as long as this tab is open. Exactly one tab leads: the others wait, and the
 * next takes over when it is closed or killed.
 * @param buildReport makes the report of a month, where it is wanted by mail
 */
export function leadLanes(
  signal: AbortSignal,
  buildReport: (month: string) => Promise<MonthReport>
): void {
  void navigator.locks
    .request('lanes/lead', { signal }, async () => {
      await tell('', () => noteMissed());
      while (!signal.aborted) {
        await tell('', () => signLed());
        // Nothing can be read with a key or published meanwhile.
        if ((await keyLock()) !== 'locked') {
          await turn(signal);
          await tell('', async () => (await import('./daySummary.ts')).sendSummaryWhenDue());
          await tell('', async () =>
            (await import('../reach/mailReport.ts')).sendReportWhenDue(buildReport)
          );
        }
        await new Promise<void>((done) => {
          const timer = setTimeout(done, LOOK_EVERY);
          signal.addEventListener('abort', () => (clearTimeout(timer), done()), { once: true });
        });
      }
    })
    .catch((error: unknown) => {
      // A tab that is closed while it waits for its turn has nothing to tell.
      if (!signal.aborted) return noteTrouble('', toProblem(error));
    });
}

/** What went wrong last, by lane: the same again is told once. */
const troubles = new Map<string, string>();

/** Does a piece of the leader's work; what goes wrong is told in the journal, and the leader goes on. */
async function tell(lane: string | Lane, work: () => Promise<unknown>): Promise<void> {
  const { problem } = await attempt(work);
  const id = typeof lane === 'string' ? lane : lane.id;
  if (!problem) troubles.delete(id);
  else await noteTrouble(lane, problem);
}

async function noteTrouble(lane: string | Lane, problem: Problem): Promise<void> {
  const [laneId, title] = typeof lane === 'string' ? ['', 'Lanes'] : [lane.id, lane.name];
  const words = `${problem.kind} ${problem.detail}`;
  if (troubles.get(laneId) === words) return;
  troubles.set(laneId, words);
  // Where not even the journal can be written, the console is all there is.
  await note({ what: 'run-failed', laneId, title, problem }).catch(console.error);
}

/** The run that goes on; one lane runs at a time, and others are advanced meanwhile. */
let going: Promise<unknown> | null = null;

async function turn(signal: AbortSignal): Promise<void> {
  const { value: lanes, problem } = await attempt(allLanes);
  if (problem) return noteTrouble('', problem);
  for (const lane of lanes) {
    if (signal.aborted) return;
    if (!lane.isOn) {
      await tell(lane, () => deliverBegun(lane));
      continue;
    }
    await tell(lane, async () => {
      const [latest] = await latestRuns(lane.id, 1);
      // A run that was cut short, as by a page that was loaded anew, goes on at once.
      const isDue = Date.now() - (latest?.at ?? 0) >= RUN_EVERY || latest?.ended === null;
      if (!going && isDue) going = tell(lane, () => runLane(lane.id)).finally(() => (going = null));
      await advanceLane(lane, signal);
    });
  }
}

/** What was begun when a lane was switched off, or was published by hand since, is still seen through. */
async function deliverBegun({ id }: Lane): Promise<void> {
  for (const { key, state, nextTry } of await entriesOfLane(id))
    if ((state === 'sending' || state === 'waiting') && nextTry <= Date.now())
      await deliverEntry(key);
}

/** Until when a lane has nothing to do, as long as its open work and its settings stay the same. */
const resting = new Map<string, { until: number; work: string }>();

/** Sends what the pace of a lane allows by now. */
async function advanceLane(lane: Lane, signal: AbortSignal): Promise<void> {
  const workNow = async () => [lane.changed, ...(await openWork(lane.id))].join('\n');
  const work = await workNow();
  const rest = resting.get(lane.id);
  if (rest && rest.work === work && Date.now() < rest.until) return;
  let wakes: number | null = 0;
  for (let steps = 0; steps < MAX_STEPS && !signal.aborted; steps++) {
    wakes = await advance(lane, laneWorld);
    if (wakes === null || wakes > Date.now()) break;
  }
  const until = Math.min(wakes ?? Infinity, Date.now() + MAX_REST);
  resting.set(lane.id, { until, work: await workNow() });
}
