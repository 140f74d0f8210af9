import { fromHtml } from 'hast-util-from-html';
import { defaultSchema, sanitize } from 'hast-util-sanitize';
import { toHtml } from 'hast-util-to-html';

const schema = {
  ...defaultSchema,
  clobberPrefix: '',
  tagNames: [
    ...(defaultSchema.tagNames ?? []),
    'iframe',
    'figure',
    'figcaption',
    'data',
    'time',
    'cite',
    'details',
    'summary'
  ],
  attributes: {
    ...defaultSchema.attributes,
    iframe: ['src', 'width', 'height', 'title', 'allow', 'allowFullScreen', 'loading'],
    data: ['value', 'className'],
    time: ['dateTime'],
    '*': [...(defaultSchema.attributes?.['*'] ?? []), 'className', 'lang', 'id']
  },
  protocols: { ...defaultSchema.protocols, src: ['http', 'https'] }
};

/** What this blog lets an author's HTML contain. */
export const clean = (html: string): string =>
  toHtml(sanitize(fromHtml(html, { fragment: true }), schema));
