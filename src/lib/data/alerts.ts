import { db } from './db.ts';

/** What the user should have a look at. */
export interface Alerts {
  review: number;
  failed: number;
  /** Places whose allowance is nearly used up. */
  low: string[];
  /** Places that refused their key or keep failing. */
  refused: string[];
  /** Lanes that have found nothing for long. */
  quiet: string[];
}

/** Share of an allowance below which it is nearly used up, and days without anything that are long. */
const [LOW, LONG] = [0.1, 14];

export async function readAlerts(now: number): Promise<Alerts> {
  const [networks, places, lanes, pauses] = await Promise.all([
    db.networks.toArray(),
    db.places.toArray(),
    db.lanes.toArray(),
    db.pauses.toArray()
  ]);
  const quiet: string[] = [];
  for (const { id, name, isOn, since } of lanes) {
    const longAgo = now - LONG * 86_400_000;
    if (!isOn || (since ?? now) > longAgo) continue;
    const found = await db.records
      .where({ laneId: id })
      .filter((r) => r.keys.length > 0 && r.changed > longAgo)
      .count();
    if (found === 0) quiet.push(name);
  }
  const paused = new Set(pauses.filter((p) => p.until > now).map((p) => p.placeId));
  return {
    review: await db.outbox.where({ state: 'in-review' }).count(),
    failed: await db.outbox.where({ state: 'failed' }).count(),
    low: networks
      .filter(({ allowance: a }) => a && a.left <= Math.max(1, a.most * LOW))
      .map((n) => n.title),
    refused: [...places, ...networks]
      .filter((p) => paused.has(p.id) || p.problem?.kind === 'key-refused')
      .map((p) => p.title),
    quiet
  };
}
