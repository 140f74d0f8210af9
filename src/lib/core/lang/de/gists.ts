import type { GistWords } from '../gists.ts';

const list = (words: string): ReadonlySet<string> => new Set(words.trim().split(/\s+/));

export const GERMAN_GISTS: GistWords = {
  leads:
    /^(?:(?:und|aber|also|oder|nun|dann|auch|denn|doch|eigentlich|natürlich|übrigens|zum Beispiel|das heißt|wie gesagt)(?:,\s*|\s+))+/i,
  clauseStarts: list(
    'und aber oder denn sondern weil wenn wann während bis bevor nachdem seit obwohl damit dass wo wobei der die das als ob um'
  ),
  heads: list('und aber oder denn sondern weil dass auch dann nur noch schon sehr so'),
  tails: list(
    'und aber oder denn weil wenn bis dass der die das den dem des ein eine einen einem einer eines in an auf bei für von mit zu zum zur im am beim vom um über unter vor nach ist sind war waren hat haben wird werden kann muss soll nicht sehr mehr jede jeder jedes'
  ),
  doers: list('ich wir du ihr man'),
  denials: list('nicht nie niemals kein keine keinen keiner keines nichts niemand'),
  numbers:
    /^(?:\d[\d.,:]*|eins?|zwei|drei|vier|fünf|sechs|sieben|acht|neun|zehn|elf|zwölf|\p{L}+(?:zehn|zig|hundert|tausend)|hundert|tausend|anderthalb)$/u,
  smallNumbers: list('ein eins zwei drei vier fünf sechs sieben acht neun zehn'),
  measures:
    /^(?:(?:milli|zenti|kilo)?metern?|mm|cm|m|km|gramm|kilo|kilogramm|g|kg|litern?|ml|l|sekunden?|minuten?|stunden?|tagen?|tage|wochen?|monaten?|monate|jahren?|jahre|grad|prozent|%|mal|euro|fäden|reihen|seiten|personen|leute)$/i,
  terms: [
    /^(?:Eine?|Der|Die|Das)?\s*((?:[\p{L}-]+\s){0,2}\p{Lu}[\p{L}-]+)\s+(?:bedeutet(?:,\s+dass)?|heißt|nennt\s+man)\s([^.!?]{8,})[.!]?$/u,
    /^Eine?\s+((?:[\p{L}-]+\s){0,2}\p{Lu}[\p{L}-]+)\s+ist\s+((?:eine?|der|die|das)\s[^.!?]{8,})[.!]?$/u
  ],
  before: /(?<!\p{L})(?:vorher|davor|roh|zuerst|ungewaschen)(?!\p{L})/iu,
  after: /(?<!\p{L})(?:nachher|danach|fertig|gewaschen|am Ende|Ergebnis)(?!\p{L})/iu
};
