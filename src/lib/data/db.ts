import Dexie, { type EntityTable, type Table } from 'dexie';
import type { Chapter } from '$lib/core/chapters/chapter.ts';
import type { EditedChapter } from '$lib/core/chapters/edit.ts';
import type { Cue } from '$lib/core/captions/cue.ts';
import type { TidyOptions } from '$lib/core/captions/tidy.ts';
import type { GivenPicture } from '$lib/core/article/layOut.ts';
import type { KeptLayout } from '$lib/core/article/keptLayout.ts';
import type { Template } from '$lib/core/article/template.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import type { OutboxEntry } from '$lib/core/lanes/outbox.ts';
import type { LaneRecord } from '$lib/core/lanes/record.ts';
import type { Step } from '$lib/core/model/step.ts';
import type { LaneRun, Pause } from '$lib/core/lanes/run.ts';
import type { Transfer } from '$lib/core/lanes/transfer.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { JournalLine } from '$lib/core/model/journal.ts';
import type { Place } from '$lib/core/model/place.ts';
import type { Network } from '$lib/core/model/network.ts';
import type { Playlist } from '$lib/core/model/playlist.ts';
import type { Narration, Render } from '$lib/core/narration/narration.ts';
import { newUpdateDraft, type UpdateDraft } from '$lib/core/updates/draft.ts';
import type { Twin } from '$lib/core/model/twin.ts';

/** The cleaned HTML of an item, kept apart because lists do not need it. */
export interface Body {
  id: string;
  html: string;
}

/** What the page of a video told beyond its feed. */
export interface Details {
  id: string;
  cues: Cue[];
  chapters: Chapter[];
  seekTo: string;
  /** The captions were brought in by hand; reading the channel again leaves them. */
  isByHand?: boolean;
  /** ISO 8601. */
  read: string;
}

export interface Decision {
  /** An item id, or two joined by a space. */
  id: string;
  kind: 'set-aside' | 'accepted';
  at: string;
  titles?: { video: string; post: string };
}

/** A post as it lies on the desk, before it is placed. */
export interface Draft {
  /** The video. */
  id: string;
  template: Template;
  status: 'draft' | 'public' | 'private' | 'dated';
  /** Local date and time for `dated`, as a date field has it. */
  on: string;
  placeId: string;
  since: string;
  changed: string;
}

/** What was done by hand on the desk of one video. It outlives the placing of its post. */
export interface Work {
  /** The video. */
  id: string;
  /** Chapters once touched; null takes the channel's, or else those proposed. */
  chapters: EditedChapter[] | null;
  tidy: TidyOptions;
  pictures: GivenPicture[];
  phrases: string[];
  /** The text as edited, and as it was made when editing began; both as the editor writes it. */
  edited: { base: string; html: string } | null;
}

/** A sentence as a voice said it, kept so that only what is changed is said anew. */
export interface KeptSpeech {
  key: string;
  seconds: number;
  /** Samples a second. */
  rate: number;
  words: number[];
  /** ISO 8601 day when it was last used. */
  used: string;
}

/** A file of the user's own, or a picture of a post kept for drawing. */
export interface Media {
  /** The address of a picture, or `own:` and a random name. */
  id: string;
  /** As the user's machine calls it. */
  name: string;
  blob: Blob;
  /** Of sound and clips: seconds. */
  seconds: number | null;
  /** Of sound that was decoded (16 bits, woven, 48,000 a second): its channels. */
  channels: number | null;
}

/** Drafts of updates once said only whether the picture of the item goes with them. */
function giveShown(draft: UpdateDraft & { withPicture?: boolean }): void {
  const { withPicture, ...kept } = draft;
  const { shown, subject, card, clip, inParts } = newUpdateDraft(kept.id, kept.changed);
  Object.assign(draft, { subject, card, clip, inParts });
  draft.shown = withPicture === false ? 'nothing' : shown;
  delete draft.withPicture;
}

export class Database extends Dexie {
  places!: EntityTable<Place, 'id'>;
  keys!: EntityTable<{ placeId: string; key: string }, 'placeId'>;
  items!: EntityTable<Item, 'id'>;
  bodies!: EntityTable<Body, 'id'>;
  details!: EntityTable<Details, 'id'>;
  twins!: EntityTable<Twin, 'id'>;
  decisions!: EntityTable<Decision, 'id'>;
  drafts!: EntityTable<Draft, 'id'>;
  work!: EntityTable<Work, 'id'>;
  templates!: EntityTable<{ placeId: string; template: Template }, 'placeId'>;
  narrations!: EntityTable<Narration, 'id'>;
  renders!: EntityTable<Render, 'id'>;
  speech!: EntityTable<KeptSpeech, 'key'>;
  /** The sound of kept sentences, apart because most questions do not need it. */
  samples!: EntityTable<{ key: string; samples: Int16Array<ArrayBuffer> }, 'key'>;
  media!: EntityTable<Media, 'id'>;
  transfers!: EntityTable<Transfer, 'key'>;
  networks!: EntityTable<Network, 'id'>;
  updates!: EntityTable<UpdateDraft, 'id'>;
  lanes!: EntityTable<Lane, 'id'>;
  records!: EntityTable<LaneRecord, 'id'>;
  runs!: EntityTable<LaneRun, 'id'>;
  pauses!: EntityTable<Pause, 'placeId'>;
  steps!: Table<Step, number>;
  playlists!: EntityTable<Playlist, 'url'>;
  layouts!: EntityTable<KeptLayout, 'id'>;
  outbox!: EntityTable<OutboxEntry, 'key'>;
  journal!: Table<JournalLine, number>;
  settings!: EntityTable<{ name: string; value: unknown }, 'name'>;

  constructor(name = 'swift-twin') {
    super(name);
    this.version(1).stores({
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
    });
    this.version(2).stores({ work: 'id' });
    this.version(3).stores({
      narrations: 'id',
      renders: 'id',
      speech: 'key, used',
      samples: 'key',
      media: 'id',
      transfers: 'key, state'
    });
    this.version(4).stores({ networks: 'id', updates: 'id' });
    this.version(5)
      .stores({})
      .upgrade((change) => change.table('updates').toCollection().modify(giveShown));
    this.version(6).stores({
      lanes: 'id',
      records: 'id, laneId, state, runId',
      runs: 'id, laneId, at',
      pauses: 'placeId',
      steps: '++id, key',
      outbox: 'key, itemId, placeId, state, laneId'
    });
    this.version(7).stores({
      playlists: 'url, placeId',
      layouts: 'id',
      outbox: 'key, itemId, placeId, state, laneId, [laneId+state]'
    });
  }
}

export const db = new Database();
