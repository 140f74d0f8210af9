import { z } from 'zod';

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
  date: z.string().nullable(),
  /** Name of what is kept of what it was made from. */
  making: z.string().optional()
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

/** A comment on the video of a post, as the post is to cite it. */
export const citedCommentSchema = z.object({
  uid: z.string(),
  /** Where it was written. */
  url: z.string(),
  author: z.string(),
  authorUrl: z.string(),
  html: z.string(),
  /** ISO 8601, or empty. */
  published: z.string(),
  /** Address of the comment that it answers, or empty. */
  answers: z.string()
});
export type CitedComment = z.infer<typeof citedCommentSchema>;

/** A change to an item that stands at a place already, and that was not made here. */
export const changePayloadSchema = z.object({
  kind: z.literal('change'),
  /** Of the item, for the journal. */
  title: z.string(),
  change: z.discriminatedUnion('what', [
    /** The player of a video in front of a post's text. */
    z.object({ what: z.literal('embed'), embedUrl: z.string(), html: z.string() }),
    /** Another title; `from` is put back when the change is undone. */
    z.object({ what: z.literal('retitle'), from: z.string(), to: z.string() }),
    /** Another text, as HTML; `from` is put back when the change is undone. */
    z.object({ what: z.literal('content'), from: z.string(), to: z.string() }),
    /** What was written under its video: all of it that it is to show, and names of what it is not. */
    z.object({
      what: z.literal('comments'),
      /** Title of the channel that they come from. */
      channel: z.string(),
      comments: z.array(citedCommentSchema),
      without: z.array(z.string())
    }),
    /** A draft shown to everybody, now or from a moment on (ISO 8601). */
    z.object({ what: z.literal('to-public'), on: z.string().nullable() }),
    /** Another moment (ISO 8601) to be shown to everybody; `from` is put back when the change is undone. */
    z.object({ what: z.literal('date'), from: z.string(), to: z.string() }),
    /** Tags that come and go; both are put back when the change is undone. */
    z.object({ what: z.literal('tags'), add: z.array(z.string()), remove: z.array(z.string()) }),
    /** Hidden from everybody but its owner; `from` is put back when the change is undone. */
    z.object({ what: z.literal('to-draft'), from: z.enum(['public', 'private']) })
  ])
});
export type ChangePayload = z.infer<typeof changePayloadSchema>;

export const payloadSchema = z.union([
  videoPayloadSchema,
  updatePayloadSchema,
  changePayloadSchema,
  postPayloadSchema
]);
export type Payload = z.infer<typeof payloadSchema>;
export const isVideo = (payload: Payload): payload is VideoPayload =>
  'kind' in payload && payload.kind === 'video';
export const isUpdate = (payload: Payload): payload is UpdatePayload =>
  'kind' in payload && payload.kind === 'update';
export const isChange = (payload: Payload): payload is ChangePayload =>
  'kind' in payload && payload.kind === 'change';
export const isPost = (payload: Payload): payload is PostPayload => !('kind' in payload);
