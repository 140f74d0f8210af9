import { z } from 'zod';
import { formSchema } from '../updates/draft.ts';
import { MANNERS } from '../lang/wordings.ts';
import { videoLookSchema } from '../narration/look.ts';
import { voiceChoiceSchema } from '../narration/voices.ts';
import { paceSchema } from './pace.ts';
import { searchSchema } from './search.ts';
import { sheetSchema } from './sheetRows.ts';

/** What a lane makes of an item. */
export const makeKindSchema = z.enum(['post', 'video', 'update']);

export const laneSourceSchema = z.object({
  /** Linked channels or blogs. */
  places: z.array(z.string()).default([]),
  /** Only what these wrote or filmed; empty takes everybody. */
  creators: z.array(z.string()).default([]),
  /** Only what stands in one of these playlists: addresses of their feeds. */
  playlists: z.array(z.string()).default([]),
  search: searchSchema.default(() => searchSchema.parse({})),
  /** Only what a list names, where one was given. */
  sheet: sheetSchema.nullable().default(null)
});

export const laneFilterSchema = z.object({
  /** Only what comes after the lane was switched on, or the catalogue as well. */
  scope: z.enum(['new', 'newest-first', 'oldest-first', 'most-seen-first']).default('new'),
  /** Days. */
  notOlderThan: z.number().positive().nullable().default(null),
  mostInAll: z.number().int().positive().nullable().default(null),
  /** Seconds. */
  shortest: z.number().nonnegative().nullable().default(null),
  longest: z.number().positive().nullable().default(null),
  languages: z.array(z.string()).default([]),
  publicOnly: z.boolean().default(true),
  needsCaptions: z.boolean().default(false),
  needsPicture: z.boolean().default(false),
  /** Other people's items: never, with an open licence, or with a permission that is noted. */
  others: z.enum(['never', 'licensed', 'permitted']).default('never'),
  permission: z.string().default(''),
  /** One of these must stand in title or text, and none of those. */
  keep: z.array(z.string()).default([]),
  drop: z.array(z.string()).default([]),
  fewestWords: z.number().int().positive().nullable().default(null),
  mostWords: z.number().int().positive().nullable().default(null),
  /** One of these as category or tag. */
  tags: z.array(z.string()).default([])
});
export type LaneFilter = z.infer<typeof laneFilterSchema>;

/** Items of a language, or with a category or tag, are laid out in their own way. */
export const layoutRuleSchema = z.object({
  by: z.enum(['language', 'tag']),
  is: z.string(),
  layout: z.string()
});

export const laneMakeSchema = z.object({
  kind: makeKindSchema,
  /** Of posts: a kept layout; null takes the one that the channel's last post had. */
  layout: z.string().nullable().default(null),
  /** Layouts for some items; the first rule that an item keeps to is taken. */
  layoutRules: z.array(layoutRuleSchema).default([]),
  /** Of updates. */
  form: formSchema.default('text'),
  manner: z.enum(MANNERS).default('plain'),
  /** Of videos: a look and a voice of its own; null takes those of the last one in the booth. */
  look: videoLookSchema.extend({ voice: voiceChoiceSchema.nullable() }).nullable().default(null),
  /** Minutes after which making one thing is given up, to be tried again later. */
  stepLimit: z.number().int().positive().default(10)
});

export type LaneLook = NonNullable<z.infer<typeof laneMakeSchema>['look']>;

export const approvalSchema = z.object({
  /** What is made waits to be looked at, or goes out by itself. */
  mode: z.enum(['after-review', 'if-no-check-complains', 'always']).default('after-review'),
  /** Of posts whose video changes later: they show as drifted, or are updated, where nobody edited them or in all that does not conflict. */
  upToDate: z.enum(['ask', 'untouched', 'merge']).default('ask')
});

/** Where what is made goes, and how it stands there. */
export const laneTargetSchema = z.object({
  placeId: z.string(),
  /** `dated` is placed at once, to appear at the moment that the pace gives it. */
  status: z.enum(['draft', 'private', 'public', 'dated']).default('draft'),
  categories: z.array(z.string()).default([]),
  tags: z.array(z.string()).default([])
});
export type LaneTarget = z.infer<typeof laneTargetSchema>;

/** A standing arrangement. Times are milliseconds since 1970. */
export const laneSchema = z.object({
  id: z.string(),
  name: z.string(),
  note: z.string().default(''),
  isOn: z.boolean().default(false),
  /** When it was first switched on; null before. What comes later is new. */
  since: z.number().nullable().default(null),
  source: laneSourceSchema,
  filter: laneFilterSchema,
  make: laneMakeSchema,
  pace: paceSchema,
  approval: approvalSchema,
  targets: z.array(laneTargetSchema),
  /** Set when its rate guard switched it off: when, and how many it had taken in a week. */
  stopped: z.object({ at: z.number(), made: z.number() }).nullable().default(null),
  created: z.number(),
  changed: z.number()
});
export type Lane = z.infer<typeof laneSchema>;

export const newLane = (id: string, name: string, zone: string, now: number): Lane =>
  laneSchema.parse({
    id,
    name,
    created: now,
    changed: now,
    targets: [],
    source: {},
    filter: {},
    make: { kind: 'post' },
    pace: { zone },
    approval: {}
  });
