import type { SentenceChoice } from '$lib/core/article/edit/choices.ts';
import type { GivenPicture } from '$lib/core/article/extract/layOut.ts';
import type { Template } from '$lib/core/article/template/template.ts';
import type { Cue } from '$lib/core/captions/cue.ts';
import type { TidyOptions } from '$lib/core/captions/tidy.ts';
import type { Chapter } from '$lib/core/chapters/chapter.ts';
import type { EditedChapter } from '$lib/core/chapters/edit.ts';

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
  /** When the channel said that the video was last changed, as this was read; ISO 8601. */
  asOf?: string;
  /** Hashes of its captions and its chapters, so that neither has to be read to compare them. */
  mark?: string;
  /** The captions were imported by hand; reading the channel again leaves them. */
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
  /** Sentences that are kept or dropped whatever they say; absent in rows of before. */
  choices?: SentenceChoice[];
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

/** Rows that were thrown away, for as long as that can be undone. */
export interface Trashed {
  id: string;
  /** ISO 8601. */
  at: string;
  rows: { table: string; row: object }[];
}
