import { z } from 'zod';
import type { JournalLine } from './journal.ts';

export const outcomeSchema = z.enum(['published', 'failed', 'removed', 'run', 'other']);
/** What kind of thing a line tells of. */
export type Outcome = z.infer<typeof outcomeSchema>;

const OUTCOMES: Partial<Record<JournalLine['what'], Outcome>> = {
  published: 'published',
  updated: 'published',
  'posted-by-hand': 'published',
  'video-ready': 'published',
  embedded: 'published',
  'comments-brought': 'published',
  'comments-removed': 'removed',
  'publish-failed': 'failed',
  'read-failed': 'failed',
  'run-failed': 'failed',
  'lane-paused': 'failed',
  removed: 'removed',
  run: 'run'
};
export const outcomeOf = (what: JournalLine['what']): Outcome => OUTCOMES[what] ?? 'other';

/** What is asked of the journal; what is empty asks for nothing. */
export interface JournalFilter {
  words: string;
  /** Kinds of lines whose name on the screen holds the words. */
  named: readonly JournalLine['what'][];
  outcome: Outcome | '';
  placeId: string;
  laneId: string;
  itemId: string;
  /** ISO 8601, from and before. */
  from: string;
  before: string;
  /** Without readings, and without attempts that another followed. */
  isBrief: boolean;
}

/**
 * Lines without readings and without attempts that another followed, so that what was published
 * stands out. To be given lines from the newest on.
 */
export function briefly(): (line: JournalLine) => boolean {
  const followed = new Set<string>();
  return (line) => {
    if (line.what === 'read') return false;
    if (!line.key) return true;
    const isFollowed = followed.has(line.key);
    followed.add(line.key);
    return !(line.what === 'publish-failed' && isFollowed);
  };
}

/** Whether a line is asked for. */
export function isAskedFor(line: JournalLine, filter: JournalFilter): boolean {
  const { words, named, outcome, placeId, laneId, itemId, from, before } = filter;
  return (
    (!placeId || line.placeId === placeId) &&
    (!laneId || line.laneId === laneId) &&
    (!itemId || line.itemId === itemId) &&
    (!from || line.at >= from) &&
    (!before || line.at < before) &&
    (!outcome || outcomeOf(line.what) === outcome) &&
    (!words ||
      named.includes(line.what) ||
      `${line.title} ${line.url}`.toLowerCase().includes(words.toLowerCase()))
  );
}
