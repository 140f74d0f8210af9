import { toCardinal } from 'n2words/en-GB';
import type { Phrases } from '../phrases.ts';

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export const ENGLISH_PHRASES: Phrases = {
  readMore: 'Read the whole post at the address below.',
  aside: {
    code: 'The post has a piece of code here.',
    table: 'The post has a table here.',
    gallery: 'The post has more pictures here.',
    embed: 'The post has something to play here.',
    folded: 'The post has more on this, folded away.',
    footnote: 'The post has notes.'
  },
  countOf: (count, isOrdered) => `${capital(toCardinal(count))} ${isOrdered ? 'steps' : 'points'}`,
  numbered: (n) => capital(toCardinal(n))
};

/** With these a sentence lays down what the rest explains. */
export const RULE_WORDS =
  /\b(?:rules? (?:is|are|was|of)|(?:trick|key|point|secret|idea|lesson|answer) is|remember|in short|most important|what matters|always|never)\b/i;
