import { Parser } from 'htmlparser2';
import sanitize from 'sanitize-html';
import { absoluteAddress } from './address.ts';

/** The class of the element by which a made item tells its origin. */
export const ORIGIN_CLASS = 'swift-twin-origin';

const TEXT_TAGS = [
  ...[
    'p',
    'br',
    'hr',
    'h1',
    'h2',
    'h3',
    'h4',
    'h5',
    'h6',
    'blockquote',
    'pre',
    'code',
    'kbd',
    'samp'
  ],
  ...[
    'ul',
    'ol',
    'li',
    'dl',
    'dt',
    'dd',
    'table',
    'caption',
    'thead',
    'tbody',
    'tfoot',
    'tr',
    'th',
    'td'
  ],
  ...[
    'a',
    'abbr',
    'b',
    'cite',
    'data',
    'del',
    'dfn',
    'em',
    'i',
    'ins',
    'mark',
    'q',
    's',
    'small',
    'span'
  ],
  ...['strong', 'sub', 'sup', 'time', 'u', 'div', 'section', 'article', 'details', 'summary'],
  ...['figure', 'figcaption', 'picture', 'img', 'iframe']
];
const ATTRIBUTES = {
  '*': ['lang', 'dir', 'title'],
  a: ['href', 'rel'],
  img: ['src', 'alt', 'width', 'height', 'loading'],
  iframe: ['src', 'title', 'width', 'height', 'allowfullscreen', 'loading'],
  data: ['value', 'class'],
  time: ['datetime'],
  ol: ['start', 'reversed', 'type'],
  td: ['colspan', 'rowspan'],
  th: ['colspan', 'rowspan', 'scope']
};

export interface CleanHtml {
  html: string;
  embeds: string[];
  links: string[];
  pictures: string[];
  /** The key of the origin marker it carries, or null. */
  origin: string | null;
}

/**
 * Cleans HTML from outside: text structure, pictures, links and frames stay, nothing that runs
 * does. Addresses become absolute, and it is told what the HTML frames, links to and shows.
 */
export function cleanHtml(source: string, base: string): CleanHtml {
  const found: Omit<CleanHtml, 'html'> = { embeds: [], links: [], pictures: [], origin: null };
  if (!/[<&]/.test(source)) return { html: source, ...found };
  const resolve =
    (name: 'src' | 'href', into: string[]) => (tagName: string, attribs: sanitize.Attributes) => {
      const address = absoluteAddress(attribs[name], base);
      const rest = { ...attribs };
      if (address) {
        rest[name] = address;
        into.push(address);
      } else if (name === 'src' || !/^mailto:/i.test(attribs[name] ?? '')) delete rest[name];
      return { tagName, attribs: rest };
    };
  const html = sanitize(source, {
    allowedTags: TEXT_TAGS,
    allowedAttributes: ATTRIBUTES,
    allowedClasses: { data: [ORIGIN_CLASS] },
    allowedSchemes: ['http', 'https', 'mailto'],
    parseStyleAttributes: false,
    nonTextTags: [
      'script',
      'style',
      'textarea',
      'option',
      'noscript',
      'template',
      'svg',
      'math',
      'object'
    ],
    transformTags: {
      a: resolve('href', found.links),
      img: resolve('src', found.pictures),
      iframe: resolve('src', found.embeds),
      data(tagName, attribs) {
        if (attribs.class?.split(/\s+/).includes(ORIGIN_CLASS))
          found.origin = attribs.value ?? null;
        return { tagName, attribs };
      }
    },
    exclusiveFilter: (frame) => frame.tag === 'iframe' && !frame.attribs.src
  });
  return { html, ...found };
}

const PARAGRAPH =
  /^(p|hr|h[1-6]|ul|ol|dl|table|blockquote|pre|div|section|article|figure|details)$/;
const LINE = /^(li|dt|dd|tr|figcaption|summary)$/;
const HIDDEN = /^(script|style|template|noscript)$/;

/**
 * The text of HTML: paragraphs apart by an empty line, items of lists and `br` by a line break.
 * What is not shown is left out.
 */
export function htmlText(source: string): string {
  if (!/[<&]/.test(source)) return source.trim();
  let text = '';
  let hidden = 0;
  const breakAt = (name: string) => {
    if (PARAGRAPH.test(name)) text += '\n\n';
    else if (LINE.test(name)) text += '\n';
  };
  const parser = new Parser({
    ontext: (part) => (text += hidden ? '' : part.replace(/\s+/g, ' ')),
    onopentagname(name) {
      if (HIDDEN.test(name)) hidden++;
      if (name === 'br') text += '\n';
      breakAt(name);
    },
    onclosetag(name) {
      if (HIDDEN.test(name)) hidden--;
      breakAt(name);
    }
  });
  parser.end(source);
  return text
    .replace(/[ \t]*\n[ \t]*/g, '\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/** Plain text as paragraphs; `inline` makes HTML of one paragraph's text. */
export function paragraphsToHtml(
  text: string,
  inline: (text: string) => string = escapeHtml
): string {
  return text
    .replace(/\r\n?/g, '\n')
    .split(/\n\s*\n/)
    .map((paragraph) => paragraph.trim())
    .filter(Boolean)
    .map((paragraph) => `<p>${inline(paragraph).replaceAll('\n', '<br>')}</p>`)
    .join('\n');
}

/** The text of HTML on one line: for titles. */
export const plainText = (source: string): string => htmlText(source).replace(/\s+/g, ' ').trim();

export const escapeHtml = (text: string): string =>
  text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
