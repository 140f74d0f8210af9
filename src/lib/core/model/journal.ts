import { z } from 'zod';
import { problemSchema } from './place.ts';

/** What happened. Written once, never changed; `undo` names what can be taken back. */
export const journalLineSchema = z.object({
  id: z.number().int().optional(),
  /** ISO 8601. */
  at: z.string(),
  what: z.enum([
    'connected',
    'disconnected',
    'read',
    'read-failed',
    'key-saved',
    'key-removed',
    'passphrase-set',
    'passphrase-removed',
    'keys-forgotten',
    'published',
    'updated',
    'removed',
    'publish-failed',
    'video-ready',
    'embedded',
    'comments-brought',
    'comments-removed',
    'posted-by-hand',
    'run',
    'run-failed',
    'lane-paused',
    'rescheduled',
    /** Against what its lane or its place allows. */
    'rescheduled-anyway',
    'fell-due',
    'kept-theirs',
    'discarded',
    'lane-deleted',
    'layout-deleted',
    'started-over',
    'brought-back',
    'visits-imported',
    'figures-imported',
    'archived',
    'brought-in',
    'set-aside',
    'restored',
    'accepted',
    'paired',
    'unpaired',
    'not-a-pair'
  ]),
  placeId: z.string().default(''),
  itemId: z.string().default(''),
  laneId: z.string().default(''),
  /** Title or name, as it was then. */
  title: z.string().default(''),
  url: z.string().default(''),
  /** Key of the outbox entry. */
  key: z.string().default(''),
  /** Name of what was thrown away, where that can be undone. */
  trash: z.string().default(''),
  /** ISO 8601, or empty: what it was rescheduled to. */
  to: z.string().default(''),
  count: z.number().nullable().default(null),
  problem: problemSchema.nullable().default(null)
});
export type JournalLine = z.infer<typeof journalLineSchema>;
export type NewJournalLine = z.input<typeof journalLineSchema>;
