import sanitize from 'sanitize-html';
import { absoluteAddress } from './address.ts';
import { breaksText, oneLine } from '../text/html.ts';

/** The class of the element by which a made item tells its origin. */
export const ORIGIN_CLASS = 'swift-twin-origin';

const TEXT_TAGS = [
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
  'samp',
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
  'td',
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
  'span',
  'strong',
  'sub',
  'sup',
  'time',
  'u',
  'div',
  'section',
  'article',
  'details',
  'summary',
  'figure',
  'figcaption',
  'picture',
  'img',
  'iframe'
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

/** Characters of text that are kept as the opening. */
const OPENING = 400;

export interface CleanHtml {
  html: string;
  /** The beginning of its text, on one line. */
  opening: string;
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
  const found: Omit<CleanHtml, 'html' | 'opening'> = {
    embeds: [],
    links: [],
    pictures: [],
    origin: null
  };
  if (!/[<&]/.test(source))
    return { html: source, opening: oneLine(source.slice(0, OPENING)), ...found };
  let opening = '';
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
    onOpenTag(name) {
      if (opening.length < OPENING && breaksText(name)) opening += ' ';
    },
    textFilter(text) {
      if (opening.length < OPENING) opening += text;
      return text;
    },
    exclusiveFilter: (frame) => frame.tag === 'iframe' && !frame.attribs.src
  });
  return { html, opening: oneLine(unescapeHtml(opening.slice(0, OPENING))), ...found };
}

/** Takes back the four escapes that cleaned text contains. */
const unescapeHtml = (text: string): string =>
  !text.includes('&')
    ? text
    : text
        .replaceAll('&lt;', '<')
        .replaceAll('&gt;', '>')
        .replaceAll('&quot;', '"')
        .replaceAll('&amp;', '&');
