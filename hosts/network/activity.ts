import { z } from 'zod';
import type { NetworkKind } from './kinds.ts';
import type { Update } from './update.ts';

const many = <T extends z.ZodType>(schema: T) =>
  z.union([z.array(schema), schema.transform((one) => [one])]).default([]);
const attachmentSchema = z.union([
  z.object({ type: z.literal('Image'), url: z.url(), name: z.string().default('') }),
  z.object({ type: z.literal('Video'), url: z.url(), name: z.string().default('') }),
  z.object({ type: z.literal('Link'), href: z.url(), name: z.string().default('') })
]);
const objectSchema = z.object({
  id: z.string().optional(),
  type: z.enum(['Note', 'Question']),
  context: z.string().default(''),
  inReplyTo: z.string().default(''),
  name: z.string().default(''),
  content: z.string().default(''),
  summary: z.string().default(''),
  tag: many(z.object({ type: z.literal('Hashtag'), name: z.string() })),
  attachment: many(attachmentSchema),
  oneOf: many(z.object({ name: z.string(), isRight: z.boolean().default(false) })),
  endTime: z.iso.datetime({ offset: true }).optional()
});
export type Given = z.infer<typeof objectSchema>;
export const activitySchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('Create'), object: objectSchema }),
  z.object({ type: z.literal('Update'), object: objectSchema.extend({ id: z.string() }) }),
  z.object({
    type: z.literal('Delete'),
    object: z.union([z.string(), z.object({ id: z.string() }).transform((o) => o.id)])
  })
]);

let graphemes: Intl.Segmenter | null = null;
function count(text: string, linkWeight: number | null): number {
  graphemes ??= new Intl.Segmenter(undefined, { granularity: 'grapheme' });
  const counted =
    linkWeight === null
      ? text
      : text.replace(/https?:\/\/\S*[^\s.,;:!?)\]"']/gi, 'x'.repeat(linkWeight));
  return [...graphemes.segment(counted)].length;
}

/** What of an update the network does not take, in words; null where it takes all of it. */
export function overLimit(given: Given, { limits }: NetworkKind): string | null {
  const text = [given.content, ...given.tag.map((t) => t.name)].filter(Boolean).join(' ');
  const length = count(text, limits.linkWeight);
  const images = given.attachment.filter((a) => a.type === 'Image');
  if (length > limits.text) return `The text has ${length} characters; ${limits.text} are taken.`;
  if (given.tag.length > limits.hashtags) return `At most ${limits.hashtags} hashtags are taken.`;
  const clips = given.attachment.filter((a) => a.type === 'Video');
  if (clips.length > (limits.clip ? 1 : 0)) return 'So many clips are not taken.';
  if (given.inReplyTo && !limits.hasThreads) return 'Updates cannot follow each other here.';
  const isFirst = !given.inReplyTo;
  if (isFirst && images.length + clips.length === 0 && limits.picture === 'required')
    return 'A picture is needed here.';
  if (images.length > (limits.picture === 'none' ? 0 : 1)) return 'So many pictures are not taken.';
  if ([...images, ...clips].some((i) => !i.name.trim()))
    return 'A picture or clip needs a text alternative.';
  if (given.name && !limits.title) return 'Updates have no title here.';
  if (limits.title && count(given.name, null) > limits.title) return 'The title is too long.';
  if (given.attachment.some((a) => a.type === 'Link') && !limits.hasButton)
    return 'There are no buttons here.';
  if (given.type === 'Note') return given.content.trim() ? null : 'There is no text.';
  if (!limits.poll) return 'There are no polls here.';
  const { question, option, most } = limits.poll;
  if (count(given.content, null) > question)
    return `A question has at most ${question} characters.`;
  if (given.oneOf.length < 2 || given.oneOf.length > most)
    return `A poll has 2 to ${most} options.`;
  if (given.oneOf.some((o) => !o.name.trim() || count(o.name, null) > option))
    return `An option has 1 to ${option} characters.`;
  const right = given.oneOf.filter((o) => o.isRight).length;
  if (right > 0 && !limits.hasQuiz) return 'There are no quizzes here.';
  return right > 1 ? 'A quiz has one right answer.' : null;
}

/** What is kept of an update as it was given. */
export function fieldsOf(given: Given): Omit<Update, 'id' | 'network' | 'created' | 'updated'> {
  const image = given.attachment.find((a) => a.type === 'Image');
  const clip = given.attachment.find((a) => a.type === 'Video');
  const link = given.attachment.find((a) => a.type === 'Link');
  return {
    type: given.type,
    context: given.context,
    title: given.name,
    text: given.content,
    tags: given.tag.map((t) => t.name),
    picture: image ? { url: image.url, alt: image.name } : null,
    clip: clip ? { url: clip.url, alt: clip.name } : null,
    inReplyTo: given.inReplyTo,
    button: link ? { label: link.name, url: link.href } : null,
    options: given.oneOf,
    why: given.summary,
    closes: given.endTime ? Date.parse(given.endTime) : null
  };
}
