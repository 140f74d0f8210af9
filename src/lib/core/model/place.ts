import { z } from 'zod';
import { allowanceSchema } from './allowance.ts';

/** What the tool may do at a place. */
export const rightSchema = z.enum(['read', 'create', 'update', 'delete', 'draft', 'media']);
export type Right = z.infer<typeof rightSchema>;

/** Why a place did not answer as it should; screens turn it into words. */
export const problemSchema = z.object({
  kind: z.enum([
    'bad-address',
    'forbidden-address',
    'not-found',
    'no-answer',
    'timed-out',
    'too-large',
    'too-many-redirects',
    'server-error',
    'busy',
    'not-a-feed',
    'broken-feed',
    'no-feed-found',
    /** The keys of this browser wait for their passphrase. */
    'keys-locked',
    /** Our own server asks for its password again. */
    'signed-out',
    'key-missing',
    'key-refused',
    'right-missing',
    'over-quota',
    'refused',
    /** Somebody changed the item there since it was last sent; nothing was overwritten. */
    'changed-there',
    /** An item gives nothing of the kind that was asked for. */
    'nothing-to-make',
    /** The place answered, but not as its standard has it. */
    'not-understood',
    /** It takes so long to read that it was given up; it is not tried again by itself. */
    'too-heavy',
    /** The browser's own storage refused to read or write. */
    'storage',
    /** A fault of this application. */
    'internal',
    'stopped'
  ]),
  url: z.string().default(''),
  /** What the place itself said, cut short. */
  detail: z.string().default(''),
  status: z.number().nullable().default(null),
  /** Seconds that the place asks to be left alone. */
  retryAfter: z.number().nullable().default(null)
});
export type Problem = z.infer<typeof problemSchema>;
export type ProblemKind = Problem['kind'];

export class PlaceError extends Error {
  readonly problem: Problem;
  constructor(problem: z.input<typeof problemSchema>) {
    super(problem.kind);
    this.problem = problemSchema.parse(problem);
  }
}

export const placeSchema = z.object({
  id: z.string(),
  kind: z.enum(['channel', 'blog']),
  /** The page people see. */
  url: z.string(),
  feedUrl: z.string(),
  title: z.string(),
  author: z.string(),
  /** Where posts are sent (Micropub) and where the key tells its rights, or empty. */
  micropub: z.string(),
  tokenEndpoint: z.string(),
  rights: z.array(rightSchema),
  /** The categories that it offers; without them they are typed. */
  categories: z.array(z.string()).optional(),
  hasKey: z.boolean(),
  /** Until when the key is good (ISO 8601), where that is told. */
  keyEnds: z.string().nullable().optional(),
  /** What it still took when it was asked, `asOf` (ISO 8601). */
  allowance: allowanceSchema.extend({ asOf: z.string() }).nullable().optional(),
  /** Origins whose frames, pictures and media belong to this place. */
  origins: z.array(z.string()),
  /** Of a channel: whether what is written under its videos goes to their posts. Absent is `off`. */
  comments: z.enum(['off', 'ask', 'always']).optional(),
  linked: z.string(),
  checked: z.string(),
  problem: problemSchema.nullable()
});
export type Place = z.infer<typeof placeSchema>;

/** Whether the user's key may put new things there: posts at a blog, videos at a channel. */
export const canPublish = (place: Place): boolean =>
  place.micropub !== '' &&
  place.hasKey &&
  (place.rights.includes('create') || place.rights.includes('draft'));
