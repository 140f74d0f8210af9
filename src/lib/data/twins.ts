import { isUpdate, type OutboxState } from '$lib/core/lanes/outbox.ts';
import { pairTwins } from '$lib/core/twins/pair.ts';
import { db } from './db.ts';

const UNSETTLED: Record<OutboxState, 'under-way' | 'failed' | undefined> = {
  'in-review': 'under-way',
  planned: 'under-way',
  waiting: 'under-way',
  sending: 'under-way',
  failed: 'failed',
  placed: undefined,
  removed: undefined
};

/** Pairs all items anew and writes down what changed. Heavy: runs in a worker. */
export async function pairAgain(): Promise<{ twins: number; changed: number }> {
  const [videos, posts, decisions, drafts, narrations, entries] = await Promise.all([
    db.items.where({ kind: 'video' }).toArray(),
    db.items.where({ kind: 'post' }).toArray(),
    db.decisions.toArray(),
    db.drafts.toArray(),
    db.narrations.toArray(),
    db.outbox.toArray()
  ]);
  const twins = pairTwins(videos, posts, {
    setAside: new Map(decisions.flatMap((d) => (d.kind === 'set-aside' ? [[d.id, d.at]] : []))),
    accepted: new Map(decisions.flatMap((d) => (d.titles ? [[d.id, d.titles]] : []))),
    onDesk: new Map(drafts.map((d) => [d.id, d.since])),
    inBooth: new Map(narrations.map((n) => [n.id, n.since])),
    placing: new Map(
      entries.flatMap((e) => {
        // An update that is on its way makes neither half.
        const state = isUpdate(e.payload) ? undefined : UNSETTLED[e.state];
        return state ? [[e.itemId, state] as const] : [];
      })
    )
  });
  return db.transaction('rw', db.twins, async () => {
    const before = new Map((await db.twins.toArray()).map((t) => [t.id, JSON.stringify(t)]));
    const changed = twins.filter((t) => before.get(t.id) !== JSON.stringify(t));
    for (const twin of twins) before.delete(twin.id);
    await db.twins.bulkDelete([...before.keys()]);
    await db.twins.bulkPut(changed);
    return { twins: twins.length, changed: changed.length + before.size };
  });
}
