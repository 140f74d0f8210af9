import { z } from 'zod';

/** What is looked for in titles, texts and tags. Empty lists ask for nothing. */
export const searchSchema = z.object({
  any: z.array(z.string()).default([]),
  all: z.array(z.string()).default([]),
  /** Exactly these words in this order. */
  phrase: z.string().default(''),
  without: z.array(z.string()).default([]),
  /** Without its sign. */
  hashtag: z.string().default('')
});
export type Search = z.infer<typeof searchSchema>;

export interface Searched {
  title: string;
  summary: string;
  tags: readonly string[];
}

/** Lower case, marks of accents kept, anything but letters and digits as one space. */
const flat = (text: string): string =>
  ` ${text
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, ' ')
    .trim()} `;

/** Whether some words stand in a text as whole words, in their order. */
export const hasWords = (text: string, words: string): boolean => {
  const wanted = flat(words);
  return wanted.trim() !== '' && flat(text).includes(wanted);
};

const textOf = ({ title, summary, tags }: Searched): string =>
  [title, summary, ...tags].join(' \n ');

/** Whether an item is what a search asks for. */
export function matches(item: Searched, search: Search): boolean {
  const text = textOf(item);
  const has = (words: string) => hasWords(text, words);
  const { any, all, phrase, without, hashtag } = search;
  const tag = hashtag.replace(/^#/, '').trim().toLowerCase();
  const isTagged =
    tag === '' ||
    item.tags.some((t) => t.replace(/^#/, '').toLowerCase() === tag) ||
    new RegExp(`#${tag.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}\\p{N}])`, 'iu').test(
      `${item.title} ${item.summary}`
    );
  return (
    isTagged &&
    (any.filter((w) => w.trim()).length === 0 || any.some(has)) &&
    all.filter((w) => w.trim()).every(has) &&
    (phrase.trim() === '' || has(phrase)) &&
    !without.some(has)
  );
}
