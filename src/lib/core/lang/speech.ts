import * as german from './de/speech.ts';
import * as english from './en/speech.ts';

/** What is greeted with in other languages whose speech is not known further. */
const OTHERS = {
  greetings: 'bonjour|bienvenue|hola|bienvenidos',
  partings: "merci d'avoir|gracias por",
  purposes: "nous allons|aujourd'hui|hoy|vamos"
};

const anyOf = (...alternatives: string[]): string => `(?:${alternatives.join('|')})`;
const LEAD = '^(?:so |and |okay |alright )*';

/** Talks mix languages: a greeting is one in whichever. Tested on sentences in lower case without marks. */
export const GREETING = new RegExp(
  `${LEAD}${anyOf(english.GREETINGS, german.GREETINGS, OTHERS.greetings)}(?![\\p{L}])`,
  'u'
);
export const PARTING = new RegExp(
  `${LEAD}${anyOf(english.PARTINGS, german.PARTINGS, OTHERS.partings)}(?![\\p{L}])`,
  'u'
);
/** A greeting that goes on to say what the video is about is more than a greeting. */
export const PURPOSE = new RegExp(
  `\\b${anyOf(english.PURPOSES, german.PURPOSES, OTHERS.purposes)}\\b`
);
export const CALL = new RegExp(`\\b${anyOf(english.CALLS, german.CALLS)}\\b`);
export const SMALL_TALK = new RegExp(`^${anyOf(english.SMALL_TALKS, german.SMALL_TALKS)}$`);
/** What a sentence has that says what is to come. In lower case. */
export const AIM = new RegExp(`\\b${anyOf(english.AIMS, german.AIMS)}\\b`);

/** Sounds that fill a pause. */
export const FILLERS: ReadonlySet<string> = new Set([...english.FILLERS, ...german.FILLERS, 'euh']);
