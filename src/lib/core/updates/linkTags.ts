import { fill, type FillProblem } from '../article/template/fill.ts';

/** Values that a pattern of link tags may name. */
export interface LinkTagFields {
  place: { name: string; kind: string };
  item: { slug: string; kind: string };
  update: { kind: string };
}

/** What a new user begins with. */
export const LINK_TAG_PATTERN =
  'utm_source={{ place.name }}&utm_medium=update&utm_campaign={{ item.slug }}';

/**
 * An address with the user's own tags, so that reach can be told apart. Tags that it has already
 * are replaced, everything else stays, its fragment as well.
 * @param pattern names and values as in a query, with fields in Liquid; empty for no tags
 */
export function tagLink(
  url: string,
  pattern: string,
  fields: LinkTagFields
): { url: string; problems: FillProblem[] } {
  if (!pattern.trim() || !URL.canParse(url)) return { url, problems: [] };
  const tagged = new URL(url);
  const problems: FillProblem[] = [];
  // Each value is filled by itself, so that none can bring a tag of its own.
  for (const pair of pattern
    .trim()
    .replace(/^[?&]+/, '')
    .split('&')) {
    const at = pair.indexOf('=');
    const name = (at < 0 ? pair : pair.slice(0, at)).trim();
    const value = fill(at < 0 ? '' : pair.slice(at + 1), fields, 'text', url);
    problems.push(...value.problems);
    if (name && value.text.trim()) tagged.searchParams.set(name, tidyValue(value.text));
  }
  return { url: tagged.href, problems };
}

/** As reports sort them: lower case, words joined by hyphens. */
const tidyValue = (value: string): string =>
  value
    .trim()
    .toLowerCase()
    .replace(/[^\p{L}\p{N}_.~-]+/gu, '-')
    .replace(/^-+|(?<!-)-+$/g, '');
