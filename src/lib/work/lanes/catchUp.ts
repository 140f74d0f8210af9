import { z } from 'zod';
import { caughtUp } from '$lib/core/lanes/caughtUp.ts';
import { historyOf, isPinnedAfter } from '$lib/core/lanes/runner.ts';
import { paceReasonSchema } from '$lib/core/lanes/pace.ts';
import { note } from '$lib/data/journal.ts';
import { allLanes, laneStore } from '$lib/data/lanes.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { laneWorld } from './world.ts';

/** What fell due in a lane while the application was closed. Times are milliseconds since 1970. */
const missedSchema = z.object({
  laneId: z.string(),
  /** When it was opened again. */
  at: z.number(),
  /** When each of it goes out. */
  slots: z.array(z.object({ at: z.number(), waitsFor: paceReasonSchema.nullable() }))
});
export type Missed = z.infer<typeof missedSchema>;

const [LED, MISSED] = ['lanes/led', 'lanes/missed'];
/** Milliseconds between two signs of life, and without one after which the lanes were not led. */
const [SIGN_EVERY, UNLED] = [30_000, 120_000];

export const readMissed = (): Promise<Missed[]> =>
  readSetting(MISSED, z.array(missedSchema).catch([]));

/** Takes what fell due while nobody led the lanes down, to be told; nothing is approved here. */
export async function noteMissed(): Promise<void> {
  const now = Date.now();
  const led = await readSetting(LED, z.number().catch(now));
  if (now - led < UNLED) return;
  const missed: Missed[] = [];
  for (const lane of (await allLanes()).filter((l) => l.isOn)) {
    const entries = (await laneStore.entries(lane.id)).filter((e) => e.wanted === 'published');
    const due = entries.filter((e) => e.state === 'planned' && !isPinnedAfter(e, now));
    const planned = new Set(due.map((e) => e.itemId));
    const history = await historyOf(lane, laneWorld, entries);
    const slots = caughtUp(lane.pace, history, planned.size, led, now);
    if (slots.length === 0) continue;
    missed.push({ laneId: lane.id, at: now, slots });
    await note({ what: 'fell-due', title: lane.name, laneId: lane.id, count: slots.length });
  }
  await saveSetting(MISSED, missed);
}

/** Leaves a sign that the lanes are led. */
export async function signLed(): Promise<void> {
  const now = Date.now();
  const last = await readSetting(LED, z.number().catch(0));
  if (Math.abs(now - last) >= SIGN_EVERY) await saveSetting(LED, now);
}
