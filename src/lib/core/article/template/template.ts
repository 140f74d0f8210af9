import { z } from 'zod';
import { ENGLISH_POST } from '../../lang/en/post.ts';
import { LENGTH_NAMES, LENGTH_RANGE } from '../extract/length.ts';

export const blockKindSchema = z.enum([
  'embed',
  'lead',
  'summary',
  'takeaways',
  'picture',
  'description',
  'chapters',
  'article',
  'quote',
  'text',
  'transcript',
  'credit',
  'closing'
]);
export type BlockKind = z.infer<typeof blockKindSchema>;

/** Of a layout, as one may come in a file of a stranger: characters, and how many of each. */
const LIMITS = { line: 2_000, text: 20_000, names: 100, blocks: 60 };

export const blockSchema = z.object({
  id: z.string(),
  kind: blockKindSchema,
  on: z.boolean(),
  /** A heading above the block, or empty. May hold fields. */
  heading: z.string().max(LIMITS.line).default(''),
  /** The wording of lead, free text, credit and closing note. May hold fields and variants. */
  text: z.string().max(LIMITS.text).default('')
});
export type Block = z.infer<typeof blockSchema>;

/** How a post is laid out. Kept per channel and offered for the next upload. */
export const templateSchema = z.object({
  title: z.string().max(LIMITS.line),
  slug: z.string().max(LIMITS.line),
  excerpt: z.string().max(LIMITS.line),
  author: z.string().max(LIMITS.line),
  categories: z.array(z.string().max(LIMITS.line)).max(LIMITS.names),
  tags: z.array(z.string().max(LIMITS.line)).max(LIMITS.names),
  date: z.enum(['video', 'now']),
  comments: z.enum(['open', 'closed']),
  /** The featured picture. */
  picture: z.enum(['largest', 'none']).default('largest'),
  /** How long the article drawn from the talk is. */
  length: z
    .union([z.enum(LENGTH_NAMES), z.int().min(LENGTH_RANGE.least).max(LENGTH_RANGE.most)])
    .default('medium'),
  blocks: z.array(blockSchema).max(LIMITS.blocks)
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
  length: 'medium',
  blocks: [
    block('embed', true),
    block('lead', true, { text: '{{ video.summary }}' }),
    block('summary', false),
    block('takeaways', true, { heading: ENGLISH_POST.headings.takeaways }),
    block('picture', false),
    block('description', false),
    block('chapters', true, { heading: ENGLISH_POST.headings.chapters }),
    block('article', true),
    block('quote', false),
    block('text', false),
    block('transcript', true, { heading: ENGLISH_POST.headings.transcript }),
    block('credit', false, { text: ENGLISH_POST.credit }),
    block('closing', true, { text: ENGLISH_POST.closing })
  ]
};

/**
 * A kept template with what has been added to templates since: new blocks are there, and off. There is
 * one block of each kind; of several only the first is kept.
 */
export function asToday(kept: unknown): Template {
  const template = templateSchema.parse(structuredClone(kept ?? defaultTemplate));
  const blocks = template.blocks
    .filter((b, i, all) => all.findIndex((other) => other.kind === b.kind) === i)
    .map((b) => ({ ...b, id: b.kind as string }));
  for (const [i, fresh] of defaultTemplate.blocks.entries()) {
    if (blocks.some((b) => b.id === fresh.id)) continue;
    const before = defaultTemplate.blocks[i - 1]?.id;
    const at = blocks.findIndex((b) => b.id === before);
    blocks.splice(at + 1, 0, { ...fresh, on: false });
  }
  return { ...template, blocks };
}
