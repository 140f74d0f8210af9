import { z } from 'zod';
import { keptLayoutSchema } from '../article/template/keptLayout.ts';
import { commentSchema } from '../comments/comment.ts';
import { outboxEntrySchema } from '../delivery/outbox.ts';
import { transferSchema } from '../delivery/transfer.ts';
import { laneSchema } from '../lanes/lane.ts';
import { laneRecordSchema } from '../lanes/record.ts';
import { laneRunSchema } from '../lanes/run.ts';
import { glossaryEntrySchema, linkMemorySchema } from '../links/glossary.ts';
import { listPageSchema } from '../listPages/listPage.ts';
import { baselineSchema, makingSchema, makingTextSchema } from '../model/baseline.ts';
import { itemSchema } from '../model/item.ts';
import { journalLineSchema } from '../model/journal.ts';
import { networkSchema } from '../model/network.ts';
import { placeSchema } from '../model/place.ts';
import { playlistSchema } from '../model/playlist.ts';
import {
  bodySchema,
  decisionSchema,
  detailsSchema,
  draftSchema,
  keptSpeechSchema,
  mediaSchema,
  placeTemplateSchema,
  samplesSchema,
  workSchema
} from '../model/rows.ts';
import { stepSchema } from '../model/step.ts';
import { tieSchema } from '../model/tie.ts';
import { narrationSchema, renderSchema } from '../narration/narration.ts';
import { libraryPictureSchema } from '../narration/pictures/library.ts';
import { ownVoiceSchema } from '../narration/voices.ts';
import { reachRowSchema, visitHoursSchema } from '../reach/reachRow.ts';
import { isSafeName } from './manifest.ts';
import { updateDraftSchema } from '../updates/draft.ts';

/** A file of the archive in which a part of a row lies. */
const inFileSchema = z.object({ file: z.string(), type: z.string().default('') });
export type InFile = z.infer<typeof inFileSchema>;

/** A file of this application, which has no folders. */
const fileNameSchema = z.string().refine((name) => isSafeName(name) && !name.includes('/'));

/** A table of an archive. */
interface ArchiveTable {
  /** Of its rows as they stand in the archive. */
  schema: z.ZodObject;
  /** The field that names a row; of the journal and its like, the field by which like rows are found. */
  key: string;
  /** Rows are told apart by all that they say: their numbers differ between browsers. */
  isLog?: true;
  /** The field that says when a row was last changed: ISO 8601, or milliseconds since 1970. */
  time?: string;
}

/**
 * The tables that go into an archive. What is reckoned from them (twins) or would not hold elsewhere (keys, pauses,
 * what was thrown away) does not.
 */
export const ARCHIVE_TABLES = {
  places: { schema: placeSchema, key: 'id' },
  networks: { schema: networkSchema, key: 'id' },
  playlists: { schema: playlistSchema, key: 'url', time: 'read' },
  items: { schema: itemSchema, key: 'id', time: 'updated' },
  bodies: { schema: bodySchema, key: 'id' },
  details: { schema: detailsSchema, key: 'id', time: 'read' },
  ties: { schema: tieSchema, key: 'id', time: 'at' },
  decisions: { schema: decisionSchema, key: 'id', time: 'at' },
  baselines: { schema: baselineSchema, key: 'id' },
  makings: { schema: makingSchema, key: 'id', time: 'at' },
  makingTexts: { schema: makingTextSchema, key: 'id' },
  comments: { schema: commentSchema, key: 'id', time: 'changed' },
  listPages: { schema: listPageSchema, key: 'id', time: 'changed' },
  glossary: { schema: glossaryEntrySchema, key: 'id', time: 'changed' },
  linkMemories: { schema: linkMemorySchema, key: 'id', time: 'changed' },
  drafts: { schema: draftSchema, key: 'id', time: 'changed' },
  work: { schema: workSchema, key: 'id' },
  templates: { schema: placeTemplateSchema, key: 'placeId' },
  layouts: { schema: keptLayoutSchema, key: 'id' },
  narrations: { schema: narrationSchema, key: 'id', time: 'changed' },
  renders: { schema: renderSchema, key: 'id', time: 'changed' },
  voices: { schema: ownVoiceSchema, key: 'id' },
  library: { schema: libraryPictureSchema, key: 'id' },
  reach: { schema: reachRowSchema, key: 'id', time: 'changed' },
  visitHours: { schema: visitHoursSchema, key: 'id' },
  updates: { schema: updateDraftSchema, key: 'id', time: 'changed' },
  lanes: { schema: laneSchema, key: 'id', time: 'changed' },
  records: { schema: laneRecordSchema, key: 'id', time: 'changed' },
  runs: { schema: laneRunSchema, key: 'id', time: 'at' },
  outbox: { schema: outboxEntrySchema, key: 'key', time: 'updated' },
  transfers: { schema: transferSchema, key: 'key', time: 'updated' },
  steps: { schema: stepSchema.omit({ id: true }), key: 'key', isLog: true },
  journal: { schema: journalLineSchema.omit({ id: true }), key: 'at', isLog: true },
  speech: { schema: keptSpeechSchema, key: 'key', time: 'used' },
  samples: { schema: samplesSchema.extend({ samples: inFileSchema }), key: 'key' },
  media: { schema: mediaSchema.extend({ blob: inFileSchema }), key: 'id' },
  settings: { schema: z.object({ name: z.string(), value: z.unknown() }), key: 'name' },
  /** Files beside the tables: finished videos, and the voices of the user. */
  files: { schema: z.object({ name: fileNameSchema, content: inFileSchema }), key: 'name' }
} satisfies Record<string, ArchiveTable>;

export type ArchiveTableName = keyof typeof ARCHIVE_TABLES;
export const ARCHIVE_TABLE_NAMES = Object.keys(ARCHIVE_TABLES) as ArchiveTableName[];
export const archiveTable = (name: ArchiveTableName): ArchiveTable => ARCHIVE_TABLES[name];

export type ArchiveRow = Record<string, unknown>;

/** When a row was last changed, in milliseconds since 1970; null where it does not say. */
export function changedAt(table: ArchiveTableName, row: ArchiveRow): number | null {
  const { time } = archiveTable(table);
  const value = time ? row[time] : undefined;
  const at = typeof value === 'string' ? Date.parse(value) : Number(value ?? NaN);
  return Number.isFinite(at) ? at : null;
}

/** A line of a table as a row, or why it is none. */
export type ReadRow = { row: ArchiveRow; fault: null } | { row: null; fault: string };

/** Characters of a fault that are told. */
const LONGEST_FAULT = 300;

export function readRow(table: ArchiveTableName, line: string): ReadRow {
  let told: unknown;
  try {
    told = JSON.parse(line);
  } catch {
    return { row: null, fault: 'It is not JSON.' };
  }
  return asRow(table, told);
}

/** Holds what is said to be a row of a table against its schema. */
export function asRow(table: ArchiveTableName, told: unknown): ReadRow {
  const { data, error } = archiveTable(table).schema.safeParse(told);
  if (data) return { row: data, fault: null };
  const faults = error?.issues.map(({ path, message }) => `${path.join('.')}: ${message}`) ?? [];
  return { row: null, fault: faults.join('; ').slice(0, LONGEST_FAULT) };
}
