import Dexie, { type EntityTable, type Table, type Transaction } from 'dexie';
import type { Comment } from '$lib/core/comments/comment.ts';
import type { KeptLayout } from '$lib/core/article/template/keptLayout.ts';
import type { GlossaryEntry, LinkMemory } from '$lib/core/links/glossary.ts';
import type { ListPage } from '$lib/core/listPages/listPage.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import type { OutboxEntry } from '$lib/core/delivery/outbox.ts';
import type { LaneRecord } from '$lib/core/lanes/record.ts';
import type { Step } from '$lib/core/model/step.ts';
import type { LaneRun, Pause } from '$lib/core/lanes/run.ts';
import type { Transfer } from '$lib/core/delivery/transfer.ts';
import type { Baseline, Making, MakingText } from '$lib/core/model/baseline.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { JournalLine } from '$lib/core/model/journal.ts';
import type { Place } from '$lib/core/model/place.ts';
import type { Network } from '$lib/core/model/network.ts';
import type { Playlist } from '$lib/core/model/playlist.ts';
import type { LibraryPicture } from '$lib/core/narration/pictures/library.ts';
import type { OwnVoice } from '$lib/core/narration/voices.ts';
import type { Narration, Render } from '$lib/core/narration/narration.ts';
import { newUpdateDraft, type UpdateDraft } from '$lib/core/updates/draft.ts';
import type { KeptTotals, ReachDay, ReachRow, VisitHours } from '$lib/core/reach/reachRow.ts';
import type { Tie } from '$lib/core/model/tie.ts';
import type { Twin } from '$lib/core/model/twin.ts';
import { detailsMark } from '$lib/core/twins/detailsMark.ts';
import { renameAll, toVersion10 } from './renamed.ts';
import type {
  Body,
  Decision,
  Details,
  Draft,
  KeptSpeech,
  Media,
  PlaceTemplate,
  Samples,
  Trashed,
  Work
} from '$lib/core/model/rows.ts';

/** Drafts of updates once said only whether the picture of the item goes with them. */
function giveShown(draft: UpdateDraft & { withPicture?: boolean }): void {
  const { withPicture, ...kept } = draft;
  const { shown, subject, card, clip, inParts } = newUpdateDraft(kept.id, kept.changed);
  Object.assign(draft, { subject, card, clip, inParts });
  draft.shown = withPicture === false ? 'nothing' : shown;
  delete draft.withPicture;
}

/** What stands at a place once was what was last wanted; nothing else was kept. */
function giveSent(entry: OutboxEntry): void {
  const isThere = entry.state === 'published' && entry.wanted === 'published';
  entry.sent = isThere ? entry.payload : null;
  entry.sentAt = isThere ? entry.updated : 0;
}

/** Before, nothing that a lane planned could be given a time. */
function givePin(entry: OutboxEntry): void {
  entry.pin = null;
}

function giveMark(details: Details): void {
  details.mark = detailsMark(details);
}

/** The key of a place, encrypted; `key` as it was before keys were encrypted. */
export interface KeptKey {
  placeId: string;
  iv?: Uint8Array<ArrayBuffer>;
  sealed?: Uint8Array<ArrayBuffer>;
  key?: string;
}

/** A version of the tables: what is new in it, and what becomes of rows of before. */
interface TablesVersion {
  stores: Record<string, string>;
  upgrade?: (change: Transaction) => PromiseLike<unknown>;
}

const VERSIONS: readonly TablesVersion[] = [
  {
    stores: {
      places: 'id, kind',
      keys: 'placeId',
      items: 'id, placeId, kind',
      bodies: 'id',
      details: 'id',
      twins: 'id, date',
      decisions: 'id',
      drafts: 'id',
      templates: 'placeId',
      outbox: 'key, itemId, placeId, state',
      journal: '++id, at',
      settings: 'name'
    }
  },
  { stores: { work: 'id' } },
  {
    stores: {
      narrations: 'id',
      renders: 'id',
      speech: 'key, used',
      samples: 'key',
      media: 'id',
      transfers: 'key, state'
    }
  },
  { stores: { networks: 'id', updates: 'id' } },
  {
    stores: {},
    upgrade: (change) => change.table('updates').toCollection().modify(giveShown)
  },
  {
    stores: {
      lanes: 'id',
      records: 'id, laneId, state, runId',
      runs: 'id, laneId, at',
      pauses: 'placeId',
      steps: '++id, key',
      outbox: 'key, itemId, placeId, state, laneId'
    }
  },
  {
    stores: {
      playlists: 'url, placeId',
      layouts: 'id',
      outbox: 'key, itemId, placeId, state, laneId, [laneId+state]'
    }
  },
  { stores: {}, upgrade: renameAll },
  {
    stores: { trash: 'id, at' },
    upgrade: (change) => change.table('outbox').toCollection().modify(giveSent)
  },
  { stores: {}, upgrade: toVersion10 },
  { stores: { voices: 'id', library: 'id' } },
  { stores: { ties: 'id' } },
  {
    stores: { details: 'id, mark', baselines: 'id', makings: 'id, key', makingTexts: 'id' },
    upgrade: (change) => change.table('details').toCollection().modify(giveMark)
  },
  {
    stores: { comments: 'id, videoId, choice', listPages: 'id', glossary: 'id', linkMemories: 'id' }
  },
  {
    stores: { items: 'id, placeId, kind, published' },
    upgrade: (change) => change.table('outbox').toCollection().modify(givePin)
  },
  {
    stores: {
      reach: 'id, placeId',
      reachTotals: 'id, placeId',
      reachDays: 'id, placeId, day',
      visitHours: 'id, placeId, day'
    }
  }
];

/** The version of the tables as they are declared here. */
export const TABLES_VERSION = VERSIONS.length;

export class Database extends Dexie {
  places!: EntityTable<Place, 'id'>;
  keys!: EntityTable<KeptKey, 'placeId'>;
  items!: EntityTable<Item, 'id'>;
  bodies!: EntityTable<Body, 'id'>;
  details!: EntityTable<Details, 'id'>;
  twins!: EntityTable<Twin, 'id'>;
  decisions!: EntityTable<Decision, 'id'>;
  ties!: EntityTable<Tie, 'id'>;
  baselines!: EntityTable<Baseline, 'id'>;
  makings!: EntityTable<Making, 'id'>;
  /** The posts of makings, apart because pairing does not need them. */
  makingTexts!: EntityTable<MakingText, 'id'>;
  comments!: EntityTable<Comment, 'id'>;
  listPages!: EntityTable<ListPage, 'id'>;
  glossary!: EntityTable<GlossaryEntry, 'id'>;
  linkMemories!: EntityTable<LinkMemory, 'id'>;
  drafts!: EntityTable<Draft, 'id'>;
  work!: EntityTable<Work, 'id'>;
  templates!: EntityTable<PlaceTemplate, 'placeId'>;
  narrations!: EntityTable<Narration, 'id'>;
  renders!: EntityTable<Render, 'id'>;
  speech!: EntityTable<KeptSpeech, 'key'>;
  samples!: EntityTable<Samples, 'key'>;
  media!: EntityTable<Media, 'id'>;
  voices!: EntityTable<OwnVoice, 'id'>;
  library!: EntityTable<LibraryPicture, 'id'>;
  transfers!: EntityTable<Transfer, 'key'>;
  networks!: EntityTable<Network, 'id'>;
  updates!: EntityTable<UpdateDraft, 'id'>;
  reach!: EntityTable<ReachRow, 'id'>;
  /** What is reckoned from `reach`, to be looked through without reading it all. */
  reachTotals!: EntityTable<KeptTotals, 'id'>;
  reachDays!: EntityTable<ReachDay, 'id'>;
  visitHours!: EntityTable<VisitHours, 'id'>;
  lanes!: EntityTable<Lane, 'id'>;
  records!: EntityTable<LaneRecord, 'id'>;
  runs!: EntityTable<LaneRun, 'id'>;
  pauses!: EntityTable<Pause, 'placeId'>;
  steps!: Table<Step, number>;
  playlists!: EntityTable<Playlist, 'url'>;
  layouts!: EntityTable<KeptLayout, 'id'>;
  outbox!: EntityTable<OutboxEntry, 'key'>;
  journal!: Table<JournalLine, number>;
  trash!: EntityTable<Trashed, 'id'>;
  settings!: EntityTable<{ name: string; value: unknown }, 'name'>;

  /** @param upTo a version of before, to be filled with what was kept then and opened anew */
  constructor(name = 'swift-twin', upTo: number = TABLES_VERSION) {
    super(name);
    for (const [i, { stores, upgrade }] of VERSIONS.slice(0, upTo).entries()) {
      const version = this.version(i + 1).stores(stores);
      if (upgrade) version.upgrade(upgrade);
    }
  }
}

/** IndexedDB counts whole numbers; Dexie leaves room for nine between two of its own. */
const STEPS = 10;

/**
 * Whether a later version of this application has kept its data here: it may be laid out in ways that
 * this one would spoil. Nothing is read or written then.
 */
export async function isOfLaterVersion(database: Database = db): Promise<boolean> {
  await database.open();
  const isLater = database.backendDB().version > TABLES_VERSION * STEPS;
  if (isLater) database.close({ disableAutoOpen: true });
  return isLater;
}

/** Those who are told, until they do not want to be any more. */
function listenersOf(): { tell: () => void; listen: (listener: () => void) => () => void } {
  const listeners = new Set<() => void>();
  return {
    tell: () => listeners.forEach((listener) => listener()),
    listen: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    }
  };
}
const replaced = listenersOf();
const blocked = listenersOf();

/** Calls when another tab brings in a later version: this one has to be loaded anew. */
export const onReplaced = replaced.listen;
/** Calls when this version waits for another tab, which holds on to the tables of an earlier one. */
export const onBlocked = blocked.listen;

/** Lets go of a database that another tab changes the tables of; it is not opened again from here. */
export function giveWay(database: Database): Database {
  database.on('versionchange', () => {
    database.close({ disableAutoOpen: true });
    replaced.tell();
    return false;
  });
  database.on('blocked', blocked.tell);
  return database;
}

export const db = giveWay(new Database());
