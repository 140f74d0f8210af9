import { graphemesOf } from './limits.ts';

export interface HashtagOptions {
  /** Most of them. */
  most: number;
  style: 'joined' | 'capitals';
  /** How often each is used at the place, by its name in lower case without the sign. */
  uses?: ReadonlyMap<string, number>;
  /** The user's own, which come first, and those never to be used; with or without the sign. */
  own?: readonly string[];
  banned?: readonly string[];
}

export interface Hashtag {
  /** With its sign. */
  tag: string;
  /** How often it is used at the place; null where the place does not tell. */
  uses: number | null;
  isOwn: boolean;
}

/** Longer ones nobody types. */
const MAX_LETTERS = 28;

/** Words as one hashtag: letters, digits and underscores only (as networks link them); empty where nothing is left. */
export function asHashtag(words: string, style: HashtagOptions['style']): string {
  const parts = words
    .replace(/^#/, '')
    .normalize('NFC')
    .split(/[^\p{L}\p{M}\p{N}_]+/u)
    .filter(Boolean);
  const joined =
    style === 'capitals' && parts.length > 1
      ? parts.map((p) => p.charAt(0).toLocaleUpperCase() + p.slice(1)).join('')
      : parts.join('');
  // Digits alone are no hashtag anywhere.
  return /\p{L}/u.test(joined) && graphemesOf(joined).length <= MAX_LETTERS ? `#${joined}` : '';
}

const nameOf = (tag: string): string => tag.replace(/^#/, '').toLocaleLowerCase();

/**
 * Hashtags from key phrases: the user's own first, then those that people use at the place, then
 * the others in their order. None twice, none banned, at most as many as asked for.
 * @param phrases best first
 */
export function hashtags(phrases: readonly string[], options: HashtagOptions): Hashtag[] {
  const { most, style, uses, own = [], banned = [] } = options;
  const never = new Set(banned.map((b) => nameOf(asHashtag(b, 'joined'))));
  const known = new Set<string>();
  const take = (words: string, isOwn: boolean): Hashtag[] => {
    const tag = asHashtag(words, isOwn ? 'joined' : style);
    const name = nameOf(tag);
    if (!tag || never.has(name) || known.has(name)) return [];
    known.add(name);
    return [{ tag, uses: uses ? (uses.get(name) ?? 0) : null, isOwn }];
  };
  const mine = own.flatMap((o) => take(o, true));
  const rest = phrases.flatMap((p) => take(p, false));
  // What is used at all comes before what nobody looks for; among those the item's order counts.
  const used = rest.filter((t) => (t.uses ?? 0) > 0);
  const unused = rest.filter((t) => !used.includes(t));
  return [...mine, ...used, ...unused].slice(0, Math.max(0, most));
}
