import { z } from 'zod';

export const blockKindSchema = z.enum([
  'embed',
  'lead',
  'picture',
  'description',
  'chapters',
  'transcript',
  'credit',
  'closing'
]);
export type BlockKind = z.infer<typeof blockKindSchema>;

export const blockSchema = z.object({
  id: z.string(),
  kind: blockKindSchema,
  on: z.boolean(),
  /** A heading above the block, or empty. May hold fields. */
  heading: z.string().default(''),
  /** The wording of lead, credit and closing note. May hold fields and variants. */
  text: z.string().default('')
});
export type Block = z.infer<typeof blockSchema>;

/** How a post is laid out. Kept per channel and offered for the next upload. */
export const templateSchema = z.object({
  title: z.string(),
  slug: z.string(),
  excerpt: z.string(),
  author: z.string(),
  categories: z.array(z.string()),
  tags: z.array(z.string()),
  date: z.enum(['video', 'now']),
  comments: z.enum(['open', 'closed']),
  /** The featured picture. */
  picture: z.enum(['largest', 'none']).default('largest'),
  blocks: z.array(blockSchema)
});
export type Template = z.infer<typeof templateSchema>;

const block = (kind: BlockKind, on: boolean, rest: Partial<Block> = {}): Block => ({
  id: kind,
  kind,
  on,
  heading: '',
  text: '',
  ...rest
});

export const defaultTemplate: Template = {
  title: '{{ video.title }}',
  slug: '',
  excerpt: '{{ video.summary }}',
  author: '{{ video.author }}',
  categories: [],
  tags: [],
  date: 'now',
  comments: 'open',
  picture: 'largest',
  blocks: [
    block('embed', true),
    block('lead', true, { text: '{{ video.summary }}' }),
    block('picture', false),
    block('description', false),
    block('chapters', true, { heading: 'In this video' }),
    block('transcript', true, { heading: 'What is said' }),
    block('credit', false, {
      text: 'Video by {{ video.author }} ({{ video.licence }}): {{ video.url }}'
    }),
    block('closing', true, {
      text: '{Watch it on the channel|See it on the channel}: {{ video.url }}'
    })
  ]
};
