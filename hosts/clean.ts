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
    'summary',
    'video',
    'track'
  ],
  attributes: {
    ...defaultSchema.attributes,
    a: [...(defaultSchema.attributes?.a ?? []), 'rel'],
    iframe: ['src', 'width', 'height', 'title', 'allow', 'allowFullScreen', 'loading'],
    data: ['value', 'className'],
    video: ['src', 'controls', 'width', 'height'],
    source: ['src', 'type'],
    track: ['src', 'kind', 'srcLang'],
    time: ['dateTime'],
    '*': [...(defaultSchema.attributes?.['*'] ?? []), 'className', 'lang', 'id']
  },
  protocols: { ...defaultSchema.protocols, src: ['http', 'https'] }
};

/** What this blog lets an author's HTML contain. */
export const clean = (html: string): string =>
  toHtml(sanitize(fromHtml(html, { fragment: true }), schema));
