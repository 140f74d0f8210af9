import { toCardinal } from 'n2words/de-DE';
import type { Phrases } from '../phrases.ts';

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export const GERMAN_PHRASES: Phrases = {
  readMore: 'Der ganze Beitrag steht unter dieser Adresse.',
  aside: {
    code: 'Im Beitrag steht hier ein Stück Code.',
    table: 'Im Beitrag steht hier eine Tabelle.',
    gallery: 'Im Beitrag sind hier weitere Bilder.',
    embed: 'Im Beitrag gibt es hier etwas zum Abspielen.',
    folded: 'Im Beitrag steht dazu noch mehr.',
    footnote: 'Im Beitrag stehen Anmerkungen.'
  },
  countOf: (count, isOrdered) =>
    `${capital(toCardinal(count))} ${isOrdered ? 'Schritte' : 'Punkte'}`,
  numbered: (n) => capital(toCardinal(n))
};

/** With these a sentence lays down what the rest explains. */
export const RULE_WORDS =
  /(?<!\p{L})(?:Regeln? (?:ist|sind|lautet|heißt)|(?:Trick|Schlüssel|Punkt|Geheimnis|Antwort) ist|merk\p{L}* (?:dir|euch)|kurz gesagt|(?:das )?Wichtigste|es kommt darauf an|immer|niemals|nie)(?!\p{L})/iu;
