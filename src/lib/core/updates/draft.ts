import { z } from 'zod';
import { styleSchema } from '../narration/styles.ts';
import { MANNERS } from '../lang/wordings.ts';

export const formSchema = z.enum(['text', 'poll', 'quiz']);
export type Form = z.infer<typeof formSchema>;

/** What is seen beside the text. */
export const shownSchema = z.enum(['picture', 'card', 'clip', 'nothing']);
export type Shown = z.infer<typeof shownSchema>;

const optionSchema = z.object({ text: z.string(), right: z.boolean() });

/** What is asked of the followers. */
export const askedSchema = z.object({
  question: z.string(),
  options: z.array(optionSchema),
  /** Shown to those who have answered a quiz. */
  why: z.string()
});
export type Asked = z.infer<typeof askedSchema>;

/** An update as it lies in the view, one for each item. What is null follows the item. */
export const updateDraftSchema = z.object({
  /** The item. */
  id: z.string(),
  form: formSchema,
  manner: z.enum(MANNERS),
  /** Which of the wordings; grows when another is asked for. */
  variant: z.number().int(),
  /** The text for all places that have none of their own; without its link. */
  text: z.string().nullable(),
  /** By network: what was written for it alone. */
  own: z.record(
    z.string(),
    z.object({ text: z.string().nullable(), hashtags: z.array(z.string()).nullable() })
  ),
  /** Networks it goes to; null takes the usual ones. */
  to: z.array(z.string()).nullable(),
  poll: askedSchema.nullable(),
  quiz: askedSchema.nullable(),
  /** Hours that a poll or quiz stays open. */
  openFor: z.number(),
  /** Text alternative of the picture; null takes the title. */
  alt: z.string().nullable(),
  shown: shownSchema,
  /** What a picture is cut around, as shares of its width and height. */
  subject: z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) }),
  /** A quotation drawn as a picture; its text follows the item where it is null. */
  card: z.object({ text: z.string().nullable(), style: styleSchema }),
  /** A kept file of the user's own. */
  clip: z
    .object({
      id: z.string(),
      name: z.string(),
      type: z.string(),
      seconds: z.number(),
      bytes: z.number()
    })
    .nullable(),
  /** What is too long for a place is told in numbered parts, where it has threads. */
  inParts: z.boolean(),
  /** Local date and time, as a date field has it; empty is at once. */
  on: z.string(),
  changed: z.string()
});
export type UpdateDraft = z.infer<typeof updateDraftSchema>;

export const newUpdateDraft = (id: string, now: string): UpdateDraft => ({
  id,
  form: 'text',
  manner: 'plain',
  variant: 0,
  text: null,
  own: {},
  to: null,
  poll: null,
  quiz: null,
  openFor: 72,
  alt: null,
  on: '',
  changed: now,
  shown: 'picture',
  subject: { x: 0.5, y: 0.5 },
  clip: null,
  inParts: false,
  card: { text: null, style: styleSchema.parse({}) }
});
