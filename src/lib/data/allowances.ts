import type { Allowance } from '$lib/core/lanes/pace.ts';
import { db } from './db.ts';

/** What a place still takes, with its name. */
export interface PlaceAllowance extends Allowance {
  placeId: string;
  title: string;
}

/** What some places still take, as they said when they were asked last; those that tell it only. */
export async function allowancesOf(placeIds: readonly string[]): Promise<PlaceAllowance[]> {
  const told: PlaceAllowance[] = [];
  for (const placeId of placeIds) {
    const network = await db.networks.get(placeId);
    const place = network ? undefined : await db.places.get(placeId);
    const known = network
      ? network.allowance && { ...network.allowance, asOf: network.checked }
      : place?.allowance;
    if (!known) continue;
    const used = (await db.outbox.where({ placeId }).toArray())
      .filter((e) => e.state === 'published' || e.publishedRevision > 0)
      .map((e) => e.updated);
    const title = network?.title ?? place?.title ?? '';
    told.push({ ...known, placeId, title, asOf: Date.parse(known.asOf), used });
  }
  return told;
}
