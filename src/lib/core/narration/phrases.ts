import { GERMAN_PHRASES } from '../lang/de/narration.ts';
import { ENGLISH_PHRASES } from '../lang/en/narration.ts';
import type { Phrases } from '../lang/phrases.ts';

/** Languages without phrases of their own show an address and add nothing. */
const NONE: Phrases = {
  readMore: '',
  aside: { code: '', table: '', gallery: '', embed: '', folded: '', footnote: '' },
  countOf: null,
  numbered: null
};

export function phrasesFor(language: string): Phrases {
  const code = language.toLowerCase().split(/[-_]/)[0];
  return code === 'en' ? ENGLISH_PHRASES : code === 'de' ? GERMAN_PHRASES : NONE;
}
