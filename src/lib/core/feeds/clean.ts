import sanitize from 'sanitize-html';
import { absoluteAddress } from './address.ts';
import { ATTRIBUTES, ORIGIN_CLASS, TAGS } from './allowed.ts';
import { MARKUP_LIMITS, markupProblem, textWithoutTags } from '../markup/guard.ts';
import { LONGEST, tame } from '../text/tame.ts';
import { escapeHtml } from '../text/escapeHtml.ts';
import { breaksText, oneLine } from '../text/html.ts';

/** Characters of text that are kept as the opening. */
const OPENING = 400;

export interface CleanHtml {
  html: string;
  /** The beginning of its text, on one line. */
  opening: string;
  embeds: string[];
  links: string[];
  pictures: string[];
  /** Video files that it plays: they are taken out, and named here. */
  films: { url: string; captions: string }[];
  /** The key of the origin marker it carries, or null. */
  origin: string | null;
}

/** Characters of a body that are looked at. */
const MOST_LETTERS = MARKUP_LIMITS.length - 100;
/** Elements within elements; deeper ones are left out. */
const DEPTH = 200;

const isMark = (attribs: sanitize.Attributes): boolean =>
  attribs.class?.split(/\s+/).includes(ORIGIN_CLASS) ?? false;

/** What is let through beside what always is. */
interface Allowed {
  frame: (address: string) => boolean;
  /** The mark of an origin. */
  marker: boolean;
  /** Signs of markup within attributes, which another parser may take for the end of the attribute. */
  markup: boolean;
}

const withoutMarkup: sanitize.Transformer = (tagName, attribs) => ({
  tagName,
  attribs: Object.fromEntries(
    Object.entries(attribs).map(([name, value]) => [name, value.replace(/[<>]/g, '').trim()])
  )
});

/**
 * Cleans the HTML of a post that is to go out, by the same list as HTML from outside: layouts may come
 * from strangers, and titles and descriptions do. A mark of origin of its own is left out.
 * @param players origins whose frames stay
 */
export function cleanPost(
  source: string,
  base: string,
  players: readonly string[]
): { html: string; leftOut: string[] } {
  const leftOut: string[] = [];
  const frame = (address: string) => {
    const isOurs = players.includes(new URL(address).origin);
    if (!isOurs) leftOut.push(address);
    return isOurs;
  };
  return { html: cleanHtml(source, base, { frame, marker: false, markup: false }).html, leftOut };
}

/**
 * Cleans HTML from outside: text structure, pictures, links and frames stay, nothing that runs
 * does. Addresses become absolute, and it is told what the HTML frames, links to and shows.
 */
export function cleanHtml(
  source: string,
  base: string,
  may: Allowed = { frame: () => true, marker: true, markup: true }
): CleanHtml {
  const found: Omit<CleanHtml, 'html' | 'opening'> = {
    films: [],
    embeds: [],
    links: [],
    pictures: [],
    origin: null
  };
  // What nobody would write by hand is told in plain words, whatever it was.
  if (markupProblem(source))
    return cleanHtml(`<p>${escapeHtml(textWithoutTags(source.slice(0, MOST_LETTERS)))}</p>`, base);
  if (!/[<&]/.test(source))
    return {
      html: tame(source, LONGEST.text),
      opening: oneLine(source.slice(0, OPENING)),
      ...found
    };
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
  const noteFilm = (name: string, attribs: sanitize.Attributes) => {
    const address = absoluteAddress(attribs.src ?? '', base);
    const last = found.films.at(-1);
    if (name === 'video') found.films.push({ url: address, captions: '' });
    // Of several sources of one player the first is taken.
    else if (name === 'source' && last && !last.url && !/^audio/.test(attribs.type ?? ''))
      last.url = address;
    else if (name === 'track' && last && !last.captions && attribs.kind !== 'chapters')
      last.captions = address;
  };
  const html = sanitize(source, {
    allowedTags: [...TAGS],
    allowedAttributes: ATTRIBUTES as Record<string, string[]>,
    allowedClasses: { data: [ORIGIN_CLASS], figure: ['video'] },
    nestingLimit: DEPTH,
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
      ...(!may.markup && { '*': withoutMarkup }),
      a: resolve('href', found.links),
      img: resolve('src', found.pictures),
      iframe: resolve('src', found.embeds),
      data(tagName, attribs) {
        if (isMark(attribs)) found.origin = attribs.value ?? null;
        return { tagName, attribs };
      }
    },
    onOpenTag(name, attribs) {
      noteFilm(name, attribs);
      if (opening.length < OPENING && breaksText(name)) opening += ' ';
    },
    textFilter(given) {
      const text = tame(given, LONGEST.text);
      if (opening.length < OPENING) opening += text;
      return text;
    },
    exclusiveFilter: ({ tag, attribs }) =>
      (tag === 'iframe' && !(attribs.src && may.frame(attribs.src))) ||
      (tag === 'data' && !may.marker && isMark(attribs))
  });
  const films = found.films.filter((f) => f.url);
  return { html, opening: oneLine(unescapeHtml(opening.slice(0, OPENING))), ...found, films };
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
