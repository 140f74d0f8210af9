/** What only speech needs. Alternatives of patterns, in lower case. */
export const GREETINGS = 'guten (?:tag|morgen|abend)|hallo|willkommen|herzlich willkommen';
export const PARTINGS = 'tschüss|bis (?:bald|zum nächsten)|danke (?:fürs|für)';
export const PURPOSES = 'heute';
export const CALLS = 'abonnier\\w*|daumen|kommentare?';
export const SMALL_TALKS = "genau|gut|okay gut|so das war's";

/** Sounds that fill a pause. */
export const FILLERS = 'äh ähm öh öhm hm'.split(' ');

/** What says what is to come. */
export const AIMS = 'heute|zeige';
