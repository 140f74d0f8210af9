import { isChangedThere, type OutboxEntry, type OutboxState } from '../delivery/outbox.ts';
import { isChange, isPost, isUpdate } from '../delivery/payload.ts';
import type { Transfer } from '../delivery/transfer.ts';
import type { Baseline, Making } from '../model/baseline.ts';
import type { Tie } from '../model/tie.ts';
import type { Remembered } from './drift.ts';
import type { Circumstances, Publishing } from './pair.ts';

const PUBLISHING: Record<OutboxState, Publishing | undefined> = {
  'in-review': 'in-review',
  planned: 'planned',
  waiting: 'under-way',
  sending: 'under-way',
  failed: 'failed',
  published: undefined,
  removed: undefined
};

/** What the user decided, and what lies on the desk, in the booth and in the outbox. */
export interface PairingFacts {
  setAside: readonly { id: string; at: string }[];
  accepted: readonly { id: string; titles: { video: string; post: string } }[];
  drafts: readonly { id: string; since: string }[];
  narrations: readonly { id: string; since: string }[];
  entries: readonly OutboxEntry[];
  transfers: readonly Transfer[];
  ties: readonly Tie[];
  videos: readonly string[];
  baselines: readonly Baseline[];
  makings: readonly Making[];
  details: ReadonlyMap<string, { captions: string; chapters: string }>;
  /** Connected places, and when they were last read without a problem, ISO 8601 or empty. */
  places: readonly { id: string; read: string }[];
}

/** Facts by the items they are about, as pairing needs them. */
export function circumstancesOf(facts: PairingFacts): Circumstances {
  const publishing = new Map<string, Publishing>();
  const changedThere = new Set(
    facts.entries.filter((e) => isPost(e.payload) && isChangedThere(e)).map((e) => e.key)
  );
  const embedding = new Set(facts.transfers.filter((t) => t.embeds).map((t) => t.itemId));
  for (const { itemId, payload, state, theirs } of facts.entries) {
    // What stands at the blog is another version, and the user is to choose.
    if (theirs) continue;
    // An update on its way makes neither half; a change makes none either, but may tie them.
    if (isUpdate(payload)) continue;
    const stage = PUBLISHING[state];
    if (!stage) continue;
    if (!isChange(payload)) publishing.set(itemId, stage);
    else if (payload.change.what === 'embed' && stage === 'under-way') embedding.add(itemId);
  }
  return {
    setAside: new Map(facts.setAside.map((d) => [d.id, d.at])),
    accepted: new Map([...facts.ties, ...facts.accepted].map((d) => [d.id, d.titles])),
    onDesk: new Map(facts.drafts.map((d) => [d.id, d.since])),
    inBooth: new Map(facts.narrations.map((n) => [n.id, n.since])),
    publishing,
    embedding,
    changedThere,
    ties: facts.ties,
    known: new Set(facts.videos),
    remembered: rememberedOf(facts)
  };
}

function rememberedOf({ entries, baselines, makings, details, places }: PairingFacts): Remembered {
  const byId = new Map(makings.map((making) => [making.id, making]));
  const sent = new Map<string, number>();
  const sentMakings = new Map<string, Making>();
  for (const { key, itemId, payload, sent: last, sentAt, state, updated } of entries) {
    if (isUpdate(payload)) continue;
    // A change is sent under the item that it changes; what is made, under its own key.
    const name = isChange(payload) ? itemId : key;
    const at = state === 'removed' ? updated : sentAt;
    sent.set(name, Math.max(sent.get(name) ?? 0, at));
    const making = last && isPost(last) && last.making ? byId.get(last.making) : undefined;
    if (making) sentMakings.set(key, making);
  }
  return {
    baselines: new Map(baselines.map((row) => [row.id, row])),
    makings: sentMakings,
    details,
    sent,
    read: new Map(places.map(({ id, read }) => [id, read ? Date.parse(read) : 0]))
  };
}
