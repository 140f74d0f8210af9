import { archiveFolder } from './archive/folder.ts';
import { isArchiveDue } from './archive/reminder.ts';
import { countOpenComments } from './comments.ts';
import { db } from './db.ts';

/** What the user should have a look at. */
export interface Alerts {
  review: number;
  failed: number;
  /** Places whose allowance is nearly used up. */
  low: string[];
  /** Places whose key ends soon. */
  ending: string[];
  /** Places that refused their key or keep failing. */
  refused: string[];
  /** Lanes that have found nothing for long. */
  quiet: string[];
  /** Comments that wait for a decision. */
  comments: number;
  /** It is time to make an archive. */
  archiveDue: boolean;
  /** The folder for daily copies cannot be written to. */
  copyFails: boolean;
}

const DAY = 86_400_000;
/** Share of an allowance below which it is nearly used up. */
const LOW = 0.1;
/** Milliseconds without anything that are long, and before its end in which a key is near it. */
const [LONG, NEAR] = [14 * DAY, 14 * DAY];

export async function readAlerts(now: number): Promise<Alerts> {
  // All at once: what is asked for late, after many other answers, is not followed through changes.
  const [archiveDue, folder, networks, places, lanes, pauses, comments] = await Promise.all([
    isArchiveDue(now),
    archiveFolder(),
    db.networks.toArray(),
    db.places.toArray(),
    db.lanes.toArray(),
    db.pauses.toArray(),
    countOpenComments()
  ]);
  const quiet: string[] = [];
  for (const { id, name, isOn, since } of lanes) {
    const longAgo = now - LONG;
    if (!isOn || (since ?? now) > longAgo) continue;
    const found = await db.records
      .where({ laneId: id })
      .filter((r) => r.keys.length > 0 && r.changed > longAgo)
      .count();
    if (found === 0) quiet.push(name);
  }
  const all = [...places, ...networks];
  const paused = new Set(pauses.filter((p) => p.until > now).map((p) => p.placeId));
  return {
    review: await db.outbox.where({ state: 'in-review' }).count(),
    // What could not be made is in no outbox.
    failed:
      (await db.outbox.where({ state: 'failed' }).count()) +
      (await db.records
        .where({ state: 'failed' })
        .filter((r) => r.keys.length === 0)
        .count()),
    low: all
      .filter(({ allowance: a }) => a && a.left <= Math.max(1, a.most * LOW))
      .map((n) => n.title),
    ending: all
      .filter((p) => p.hasKey && p.keyEnds && Date.parse(p.keyEnds) < now + NEAR)
      .map((p) => p.title),
    refused: all
      .filter((p) => paused.has(p.id) || p.problem?.kind === 'key-refused')
      .map((p) => p.title),
    quiet,
    comments,
    archiveDue,
    copyFails: Boolean(folder?.trouble)
  };
}
