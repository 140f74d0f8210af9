import { z } from 'zod';
import { chapterSchema } from '../chapters/chapter.ts';
import { videoDetailsSchema } from './details.ts';
import { sceneSchema } from './scenes.ts';
import { scriptOptionsSchema } from './line.ts';
import { formatSchema, videoLookSchema } from './look.ts';
import { voiceChoiceSchema } from './voices.ts';

/** A post as it lies in the booth. */
export const narrationSchema = z.object({
  /** The post. */
  id: z.string(),
  options: scriptOptionsSchema,
  scenes: z.array(sceneSchema),
  /** The text the scenes were made from, so that a change of the post is noticed. */
  madeFrom: z.string(),
  /** Whether scenes were changed by hand since they were made. */
  isEdited: z.boolean(),
  voice: voiceChoiceSchema.nullable(),
  ...videoLookSchema.shape,
  /** Names of kept media, or empty. */
  music: z.string(),
  /** Decibels of the music under speech. */
  musicLevel: z.number(),
  /** Whether short sounds come with the scenes. */
  sounds: z.boolean().default(false),
  before: z.string(),
  after: z.string(),
  details: videoDetailsSchema.nullable(),
  /** ISO 8601. */
  since: z.string(),
  changed: z.string()
});
export type Narration = z.infer<typeof narrationSchema>;

const mediaProblemSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('not-media') }),
  z.object({ kind: z.literal('no-sound') }),
  z.object({ kind: z.literal('no-picture') }),
  /** The browser has no decoder for it. */
  z.object({ kind: z.literal('odd-codec'), codec: z.string() }),
  /** No voice reads this language along, so nothing can be found in a recording of it. */
  z.object({ kind: z.literal('no-voice'), language: z.string() })
]);
/** Why a file of the user's own cannot be taken. */
export type MediaProblem = z.infer<typeof mediaProblemSchema>;

const renderProblemSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('no-webcodecs') }),
  z.object({ kind: z.literal('no-such-format'), format: formatSchema }),
  z.object({ kind: z.literal('disk-full') }),
  z.object({ kind: z.literal('stopped') }),
  z.object({ kind: z.literal('media'), problem: mediaProblemSchema }),
  z.object({ kind: z.literal('broken'), detail: z.string() })
]);
/** Why a video could not be made. */
export type RenderProblem = z.infer<typeof renderProblemSchema>;

/** A video being made, or made: it lies in a file of the browser. */
export const renderSchema = z.object({
  /** The post. */
  id: z.string(),
  state: z.enum(['running', 'stopped', 'failed', 'done']),
  problem: renderProblemSchema.nullable(),
  format: formatSchema,
  file: z.string(),
  bytes: z.number(),
  seconds: z.number(),
  width: z.number(),
  height: z.number(),
  /** How its sound is encoded. */
  audio: z.enum(['opus', 'aac']).default('opus'),
  /** WebVTT. */
  captions: z.string(),
  chapters: z.array(chapterSchema),
  /** What it was made from, so that a later change is noticed. */
  madeFrom: z.string(),
  /** ISO 8601. */
  changed: z.string()
});
export type Render = z.infer<typeof renderSchema>;
