import { z } from 'zod';
import { PlaceError, problemSchema, type Problem } from '../model/place.ts';

/** What a blog is asked to take. */
export const postPayloadSchema = z.object({
  title: z.string(),
  html: z.string(),
  slug: z.string(),
  excerpt: z.string(),
  author: z.string(),
  categories: z.array(z.string()),
  tags: z.array(z.string()),
  comments: z.enum(['open', 'closed']),
  picture: z.object({ url: z.string(), alt: z.string() }).nullable(),
  status: z.enum(['draft', 'public', 'private', 'dated']),
  /** ISO 8601; null is the moment of placing. */
  date: z.string().nullable()
});
export type PostPayload = z.infer<typeof postPayloadSchema>;

/** What a channel is asked to take. The file follows by a way of its own. */
export const videoPayloadSchema = z.object({
  kind: z.literal('video'),
  title: z.string(),
  description: z.string(),
  tags: z.array(z.string()),
  category: z.string(),
  language: z.string(),
  visibility: z.enum(['public', 'unlisted', 'private']),
  /** ISO 8601: when a private video becomes public, or null. */
  publishAt: z.string().nullable(),
  /** Address of the post it was made from. */
  madeFrom: z.string(),
  /** WebVTT, or empty. */
  captions: z.string(),
  chapters: z.string()
});
export type VideoPayload = z.infer<typeof videoPayloadSchema>;

/** What a network is asked to take. */
export const updatePayloadSchema = z.object({
  kind: z.literal('update'),
  form: z.enum(['text', 'poll', 'quiz']),
  /** Of the update, where the place has titles; else its first words, for the journal. */
  title: z.string(),
  hasTitle: z.boolean(),
  /** The whole text, its hashtags apart; of a poll or quiz, the question. */
  text: z.string(),
  hashtags: z.array(z.string()),
  options: z.array(z.object({ text: z.string(), right: z.boolean() })),
  /** Shown to those who have answered a quiz. */
  why: z.string(),
  /** ISO 8601: when a poll or quiz closes, or null. */
  closes: z.string().nullable(),
  /** An address, or the name of a kept file that is sent first. */
  picture: z.object({ url: z.string(), alt: z.string() }).nullable(),
  clip: z
    .object({ url: z.string(), alt: z.string(), seconds: z.number(), type: z.string() })
    .nullable()
    .default(null),
  /** Of a thread: which part it is, and the key of the part before it. */
  part: z
    .object({ number: z.number().int(), of: z.number().int(), after: z.string() })
    .nullable()
    .default(null),
  button: z.object({ label: z.string(), url: z.string() }).nullable()
});
export type UpdatePayload = z.infer<typeof updatePayloadSchema>;

export const payloadSchema = z.union([videoPayloadSchema, updatePayloadSchema, postPayloadSchema]);
export type Payload = z.infer<typeof payloadSchema>;
export const isVideo = (payload: Payload): payload is VideoPayload =>
  'kind' in payload && payload.kind === 'video';
export const isUpdate = (payload: Payload): payload is UpdatePayload =>
  'kind' in payload && payload.kind === 'update';

export const outboxStateSchema = z.enum([
  /** Made, and not to be sent before the user has looked at it. */
  'in-review',
  /** Looked at or let through, and waiting for the pace of its lane. */
  'planned',
  'waiting',
  'sending',
  'placed',
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
  wanted: z.enum(['placed', 'removed']),
  payload: payloadSchema,
  /** Grows with each change of what is wanted, and the one that the place is known to hold. */
  revision: z.number().int(),
  placedRevision: z.number().int(),
  state: outboxStateSchema,
  /** Address at the place, once known. */
  url: z.string(),
  attempts: z.number().int(),
  nextTry: z.number(),
  /** Until when a call that was never answered may still take effect. */
  unsettledUntil: z.number(),
  problem: problemSchema.nullable(),
  /** Of what is posted by hand: the address it got, once it is known. */
  answer: z.string().default(''),
  created: z.number(),
  updated: z.number()
});
export type OutboxEntry = z.infer<typeof outboxEntrySchema>;

/** What is to be done next for an entry. */
export type Command =
  | { do: 'wait'; until: number }
  | { do: 'find' }
  | { do: 'place' }
  | { do: 'replace'; url: string }
  | { do: 'remove'; url: string }
  | { do: 'nothing' };

/** What came of a command. */
export type Outcome =
  | { came: 'found'; url: string }
  | { came: 'not-found' }
  | { came: 'placed'; url: string; revision: number }
  | { came: 'removed' }
  | { came: 'problem'; problem: Problem };

/** Milliseconds. A call is given up after `callLimit`; it may take effect until then. */
export const TIMES = { callLimit: 20_000, firstWait: 1_000, longestWait: 300_000 };
export const MOST_ATTEMPTS = 8;

/** Problems that may be gone by the next try. All others need the user. */
const PASSING: ReadonlySet<Problem['kind']> = new Set([
  'no-answer',
  'timed-out',
  'server-error',
  'busy',
  'stopped'
]);
/** Problems after which nobody knows whether the deed was done, or will yet be. */
const SILENT: ReadonlySet<Problem['kind']> = new Set(['no-answer', 'timed-out', 'stopped']);

export function newEntry(
  fields: Pick<OutboxEntry, 'key' | 'itemId' | 'placeId' | 'payload'> &
    Partial<Pick<OutboxEntry, 'laneId' | 'state'>>,
  now: number
): OutboxEntry {
  return {
    laneId: '',
    state: 'waiting',
    ...fields,
    wanted: 'placed',
    revision: 1,
    placedRevision: 0,
    url: '',
    attempts: 0,
    nextTry: now,
    unsettledUntil: 0,
    problem: null,
    answer: '',
    created: now,
    updated: now
  };
}

/** The same entry with something else wanted of it. What is known of the place is kept. */
export function wantAnew(
  entry: OutboxEntry,
  change: { wanted: 'placed'; payload: Payload } | { wanted: 'removed' },
  now: number
): OutboxEntry {
  return {
    ...entry,
    ...change,
    revision: entry.revision + 1,
    state: 'waiting',
    attempts: 0,
    nextTry: now,
    problem: null,
    updated: now
  };
}

/**
 * What to keep when a worker saves an entry: a wish written while it worked stands, and what was
 * learned of the place is added to it.
 */
export function mergeSaved(stored: OutboxEntry | null, learned: OutboxEntry): OutboxEntry {
  if (!stored || stored.revision <= learned.revision) return learned;
  const { url, placedRevision, unsettledUntil } = learned;
  return { ...stored, url, placedRevision, unsettledUntil };
}

/** Lets what waits for review or for its pace go out; what is planned for later keeps its time. */
export const release = (entry: OutboxEntry, now: number): OutboxEntry =>
  entry.state === 'in-review' || entry.state === 'planned'
    ? { ...entry, state: 'waiting', nextTry: Math.max(now, entry.nextTry), updated: now }
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
  return entry.url ? { do: 'replace', url: entry.url } : { do: 'place' };
}

/**
 * The entry as it is written down before a command is carried out. A crash after this leaves an
 * entry that knows a call may be under way.
 */
export function beforeCommand(entry: OutboxEntry, command: Command, now: number): OutboxEntry {
  const isWrite = command.do === 'place' || command.do === 'replace' || command.do === 'remove';
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
      return { ...known, state: 'removed', url: '', unsettledUntil: 0, placedRevision: 0 };
    case 'placed': {
      const isCurrent = outcome.revision === entry.revision;
      return {
        ...known,
        url: outcome.url,
        placedRevision: outcome.revision,
        unsettledUntil: 0,
        attempts: 0,
        state: isCurrent && entry.wanted === 'placed' ? 'placed' : 'waiting'
      };
    }
    case 'problem':
      return afterProblem(entry, command, outcome.problem, now, chance);
  }
}

function afterProblem(
  entry: OutboxEntry,
  command: Command,
  problem: Problem,
  now: number,
  chance: number
): OutboxEntry {
  if (problem.kind === 'not-found' && command.do === 'remove') {
    return { ...entry, state: 'removed', url: '', problem: null, unsettledUntil: 0, updated: now };
  }
  if (problem.kind === 'not-found' && command.do === 'replace') {
    // Someone removed it at the place. It is looked for once more by its key, then placed anew.
    return {
      ...entry,
      state: 'waiting',
      url: '',
      placedRevision: 0,
      unsettledUntil: 0,
      updated: now
    };
  }
  const attempts = entry.attempts + 1;
  const isWrite = command.do !== 'find';
  // An answer, even a bad one, means that the call is over; only silence leaves it open.
  const unsettledUntil = isWrite && !SILENT.has(problem.kind) ? 0 : entry.unsettledUntil;
  const gaveUp = !PASSING.has(problem.kind) || attempts >= MOST_ATTEMPTS;
  const growing = Math.min(TIMES.longestWait, TIMES.firstWait * 2 ** (attempts - 1));
  const wait = Math.max(growing * (0.5 + chance / 2), (problem.retryAfter ?? 0) * 1000);
  return {
    ...entry,
    attempts,
    problem,
    unsettledUntil,
    state: gaveUp ? 'failed' : 'waiting',
    nextTry: now + Math.round(wait),
    updated: now
  };
}

/** Any error as a problem: what places throw carries its own, anything else is no answer. */
export function toProblem(error: unknown): Problem {
  if (error instanceof PlaceError) return error.problem;
  const detail = error instanceof Error ? error.message : String(error);
  return problemSchema.parse({ kind: 'no-answer', detail });
}
