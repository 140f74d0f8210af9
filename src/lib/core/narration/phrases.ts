import { toCardinal as english } from 'n2words/en-GB';
import { toCardinal as german } from 'n2words/de-DE';
import type { Unspoken } from './postBlocks.ts';

/** The few words that a script adds of its own. */
export interface Phrases {
  readMore: string;
  aside: Record<Unspoken, string>;
  /** How a list is announced, and a numbered item; null where it goes without. */
  countOf: ((count: number, isOrdered: boolean) => string) | null;
  numbered: ((n: number) => string) | null;
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const ENGLISH: Phrases = {
  readMore: 'Read the whole post at the address below.',
  aside: {
    code: 'The post has a piece of code here.',
    table: 'The post has a table here.',
    gallery: 'The post has more pictures here.',
    embed: 'The post has something to play here.',
    folded: 'The post has more on this, folded away.',
    footnote: 'The post has notes.'
  },
  countOf: (count, isOrdered) => `${capital(english(count))} ${isOrdered ? 'steps' : 'points'}`,
  numbered: (n) => capital(english(n))
};

const GERMAN: Phrases = {
  readMore: 'Der ganze Beitrag steht unter dieser Adresse.',
  aside: {
    code: 'Im Beitrag steht hier ein Stück Code.',
    table: 'Im Beitrag steht hier eine Tabelle.',
    gallery: 'Im Beitrag sind hier weitere Bilder.',
    embed: 'Im Beitrag gibt es hier etwas zum Abspielen.',
    folded: 'Im Beitrag steht dazu noch mehr.',
    footnote: 'Im Beitrag stehen Anmerkungen.'
  },
  countOf: (count, isOrdered) => `${capital(german(count))} ${isOrdered ? 'Schritte' : 'Punkte'}`,
  numbered: (n) => capital(german(n))
};

/** Languages without phrases of their own show an address and add nothing. */
const NONE: Phrases = {
  readMore: '',
  aside: { code: '', table: '', gallery: '', embed: '', folded: '', footnote: '' },
  countOf: null,
  numbered: null
};

export function phrasesFor(language: string): Phrases {
  const code = language.toLowerCase().split(/[-_]/)[0];
  return code === 'en' ? ENGLISH : code === 'de' ? GERMAN : NONE;
}
