import { z } from 'zod';
import { problemSchema, type Problem } from '../model/place.ts';
import { type Payload, isChange, payloadSchema } from './payload.ts';
import { isPassing, isUncertain, waitAfter, type Backoff } from './retry.ts';

/** What a place holds of a post, as its owner may have changed it there. */
export const heldSchema = z.object({
  /** The same for the same content, and for nothing else. */
  fingerprint: z.string(),
  title: z.string(),
  html: z.string(),
  status: z.enum(['draft', 'public', 'private']),
  excerpt: z.string().default(''),
  /** Categories and tags. */
  tags: z.array(z.string()).default([]),
  /** Address of its featured picture, or empty. */
  picture: z.string().default('')
});
export type Held = z.infer<typeof heldSchema>;

/** What stood out when something was made; screens turn it into words. */
export const findingSchema = z.object({
  /** A `blocking` one is never approved; a `wrong` one waits for a person. */
  level: z.enum(['look', 'wrong', 'blocking']),
  of: z.enum(['post', 'video', 'update']),
  /** As the check of that kind has it. */
  finding: z.looseObject({ kind: z.string() })
});
export type MakeFinding = z.infer<typeof findingSchema>;

export const outboxStateSchema = z.enum([
  /** Made, and not to be sent before the user has looked at it. */
  'in-review',
  /** Looked at or let through, and waiting for the pace of its lane. */
  'planned',
  'waiting',
  'sending',
  'published',
  'failed',
  'removed'
]);
export type OutboxState = z.infer<typeof outboxStateSchema>;

/** One thing to be placed, written down before anything is sent. Times are milliseconds since 1970. */
export const outboxEntrySchema = z.object({
  key: z.string(),
  /** The item it was made from. */
  itemId: z.string(),
  placeId: z.string(),
  /** The lane that made it, or empty; it goes out at the pace of that lane. */
  laneId: z.string().default(''),
  /** What is wanted: that it stands there as the payload says, or that it is gone. */
  wanted: z.enum(['published', 'removed']),
  payload: payloadSchema,
  /** Grows with each change of what is wanted, and the one that the place is known to hold. */
  revision: z.number().int(),
  publishedRevision: z.number().int(),
  state: outboxStateSchema,
  /**
   * Of what is planned: when the user wants it to go out, and whether that counts more than what its lane and its place
   * allow.
   */
  pin: z.object({ at: z.number(), insists: z.boolean() }).nullable().default(null),
  /** Address at the place, once known. */
  url: z.string(),
  attempts: z.number().int(),
  nextTry: z.number(),
  /** Until when a call that was never answered may still take effect. */
  unsettledUntil: z.number(),
  problem: problemSchema.nullable(),
  /** Of what is posted by hand: the address it got, once it is known. */
  answer: z.string().default(''),
  findings: z.array(findingSchema).default([]),
  /** What the place last took from us, and what it had taken before that: an undo brings it back. */
  sent: payloadSchema.nullable().default(null),
  sentBefore: payloadSchema.nullable().default(null),
  /** When it took it. */
  sentAt: z.number().default(0),
  /** Fingerprint of what the place held after that, and when it was last read; empty if unknown. */
  held: z.string().default(''),
  seen: z.string().default(''),
  /** What somebody made of it at the place, while the user has not chosen. */
  theirs: heldSchema.nullable().default(null),
  created: z.number(),
  updated: z.number()
});
export type OutboxEntry = z.infer<typeof outboxEntrySchema>;

/** What is to be done next for an entry. */
export type Command =
  | { do: 'wait'; until: number }
  | { do: 'find' }
  | { do: 'publish' }
  | { do: 'update'; url: string }
  | { do: 'remove'; url: string }
  | { do: 'nothing' };

/** What came of a command. */
export type Outcome =
  | { came: 'found'; url: string }
  | { came: 'not-found' }
  | { came: 'published'; url: string; revision: number }
  | { came: 'removed' }
  /** Somebody changed it there: nothing was sent. */
  | { came: 'changed'; theirs: Held }
  | { came: 'problem'; problem: Problem };

/** Milliseconds. A call is given up after `callLimit`; it may take effect until then. */
export const TIMES = { callLimit: 20_000 };
const BACKOFF: Backoff = { first: 1_000, max: 300_000 };
export const MAX_ATTEMPTS = 8;

export function newEntry(
  fields: Pick<OutboxEntry, 'key' | 'itemId' | 'placeId' | 'payload'> &
    Partial<Pick<OutboxEntry, 'laneId' | 'state' | 'url' | 'findings'>>,
  now: number
): OutboxEntry {
  return {
    laneId: '',
    state: 'waiting',
    pin: null,
    url: '',
    findings: [],
    ...fields,
    wanted: 'published',
    revision: 1,
    publishedRevision: 0,
    attempts: 0,
    nextTry: now,
    unsettledUntil: 0,
    problem: null,
    answer: '',
    sent: null,
    sentBefore: null,
    sentAt: 0,
    held: '',
    seen: '',
    theirs: null,
    created: now,
    updated: now
  };
}

/** The same entry with something else wanted of it. What is known of the place is kept. */
export function changeRequest(
  entry: OutboxEntry,
  change: { wanted: 'published'; payload: Payload } | { wanted: 'removed' },
  now: number
): OutboxEntry {
  return {
    ...entry,
    ...change,
    revision: entry.revision + 1,
    state: 'waiting',
    pin: null,
    attempts: 0,
    nextTry: now,
    problem: null,
    theirs: null,
    updated: now
  };
}

/** Whether somebody changed an item at its place since it was last sent, as far as is known. */
export const isChangedThere = ({
  held,
  seen,
  state,
  theirs
}: Pick<OutboxEntry, 'held' | 'seen' | 'state' | 'theirs'>): boolean =>
  Boolean(theirs) || (state === 'published' && Boolean(held && seen) && held !== seen);

/** Leaves what somebody made of an item at its place as it is, and takes it for agreed. */
export const keepTheirs = (entry: OutboxEntry, now: number): OutboxEntry => ({
  ...entry,
  payload: entry.sent ?? entry.payload,
  held: entry.theirs?.fingerprint ?? entry.seen,
  seen: '',
  theirs: null,
  problem: null,
  state: 'published',
  publishedRevision: entry.revision,
  updated: now
});

/** Sends what is wanted over what the user has seen of theirs; a further change there asks again. */
export const overwriteTheirs = (entry: OutboxEntry, now: number): OutboxEntry => ({
  ...entry,
  held: entry.theirs?.fingerprint ?? entry.held,
  theirs: null,
  problem: null,
  state: 'waiting',
  attempts: 0,
  nextTry: now,
  updated: now
});

/**
 * What to keep when a worker saves an entry: a wish written while it worked stands, and what was
 * learned of the place is added to it.
 */
export function mergeSaved(stored: OutboxEntry | null, learned: OutboxEntry): OutboxEntry {
  if (!stored || stored.revision <= learned.revision) return learned;
  const { url, publishedRevision, unsettledUntil, sent, sentBefore, sentAt, held } = learned;
  return { ...stored, url, publishedRevision, unsettledUntil, sent, sentBefore, sentAt, held };
}

/** Lets what waits for review or for its pace go out; what is planned for later keeps its time. */
export const approve = (entry: OutboxEntry, now: number): OutboxEntry =>
  entry.state === 'in-review' || entry.state === 'planned'
    ? { ...entry, state: 'waiting', nextTry: Math.max(now, entry.nextTry), updated: now }
    : entry;

/** Stops trying, until the user wants it again. What is being sent at this moment runs to its end. */
export const stopTrying = (entry: OutboxEntry, now: number): OutboxEntry =>
  entry.state === 'waiting'
    ? { ...entry, state: 'failed', problem: problemSchema.parse({ kind: 'stopped' }), updated: now }
    : entry;

/** Tries a failed or waiting entry at once. */
export const retryNow = (entry: OutboxEntry, now: number): OutboxEntry =>
  entry.state === 'failed' || entry.state === 'waiting'
    ? { ...entry, state: 'waiting', attempts: 0, nextTry: now, problem: null, updated: now }
    : entry;

/**
 * What to do next. Nothing is ever placed before the place was asked for the key, and not while
 * an unanswered call could still take effect: so a retry, a second tab or a lost answer ends in one
 * item, as long as one holder at a time works on an entry.
 * @param looked whether the place was asked for the key in this turn, and did not have it
 */
export function nextCommand(entry: OutboxEntry, looked: boolean, now: number): Command {
  if (entry.state !== 'waiting' && entry.state !== 'sending') return { do: 'nothing' };
  if (entry.nextTry > now) return { do: 'wait', until: entry.nextTry };
  if (!entry.url && !looked) return { do: 'find' };
  if (entry.unsettledUntil > now) return { do: 'wait', until: entry.unsettledUntil };
  if (entry.wanted === 'removed')
    return entry.url ? { do: 'remove', url: entry.url } : { do: 'nothing' };
  return entry.url ? { do: 'update', url: entry.url } : { do: 'publish' };
}

/**
 * The entry as it is written down before a command is carried out. A crash after this leaves an
 * entry that knows a call may be under way.
 */
export function beforeCommand(entry: OutboxEntry, command: Command, now: number): OutboxEntry {
  const isWrite = command.do === 'publish' || command.do === 'update' || command.do === 'remove';
  return {
    ...entry,
    state: 'sending',
    unsettledUntil: isWrite ? now + TIMES.callLimit : entry.unsettledUntil,
    updated: now
  };
}

/**
 * The entry after a command, and whether another command may follow at once.
 * @param chance between 0 and 1, spreads the waits
 */
export function afterCommand(
  entry: OutboxEntry,
  command: Command,
  outcome: Outcome,
  now: number,
  chance: number
): OutboxEntry {
  const known = { ...entry, problem: null, updated: now };
  switch (outcome.came) {
    case 'found':
      // Another installation may have put it there: what it holds is replaced, never doubled.
      // The one call that may have been open is the one that put it there, so it is over.
      return { ...known, url: outcome.url, unsettledUntil: 0 };
    case 'not-found':
      return known;
    case 'removed':
      return {
        ...known,
        state: 'removed',
        url: urlAfterRemoval(entry),
        unsettledUntil: 0,
        publishedRevision: 0,
        sent: null,
        sentBefore: null,
        held: '',
        seen: ''
      };
    case 'changed':
      return {
        ...known,
        state: 'failed',
        // Nothing was sent.
        unsettledUntil: 0,
        theirs: outcome.theirs,
        problem: problemSchema.parse({ kind: 'changed-there', url: entry.url })
      };
    case 'published': {
      const isCurrent = outcome.revision === entry.revision;
      return {
        ...known,
        url: outcome.url,
        publishedRevision: outcome.revision,
        unsettledUntil: 0,
        attempts: 0,
        sent: entry.payload,
        sentBefore: entry.publishedRevision > 0 ? entry.sent : null,
        sentAt: now,
        held: '',
        seen: '',
        state: isCurrent && entry.wanted === 'published' ? 'published' : 'waiting'
      };
    }
    case 'problem':
      return afterProblem(entry, command, outcome.problem, now, chance);
  }
}

/** What was changed still stands where it stood; what was published is gone. */
const urlAfterRemoval = ({ payload, url }: OutboxEntry): string => (isChange(payload) ? url : '');

function afterProblem(
  entry: OutboxEntry,
  command: Command,
  problem: Problem,
  now: number,
  chance: number
): OutboxEntry {
  if (problem.kind === 'not-found' && command.do === 'remove') {
    return {
      ...entry,
      state: 'removed',
      url: urlAfterRemoval(entry),
      problem: null,
      unsettledUntil: 0,
      updated: now
    };
  }
  if (problem.kind === 'not-found' && command.do === 'update' && !isChange(entry.payload)) {
    // Someone removed it at the place. It is looked for once more by its key, then placed anew.
    return {
      ...entry,
      state: 'waiting',
      url: '',
      publishedRevision: 0,
      unsettledUntil: 0,
      updated: now
    };
  }
  const attempts = entry.attempts + 1;
  const isWrite = command.do !== 'find';
  // An answer, even a bad one, means that the call is over; only silence leaves it open.
  const unsettledUntil = isWrite && !isUncertain(problem.kind) ? 0 : entry.unsettledUntil;
  const gaveUp = !isPassing(problem.kind) || attempts >= MAX_ATTEMPTS;
  const wait = waitAfter(attempts, BACKOFF, problem, chance);
  return {
    ...entry,
    attempts,
    problem,
    unsettledUntil,
    state: gaveUp ? 'failed' : 'waiting',
    nextTry: now + wait,
    updated: now
  };
}
