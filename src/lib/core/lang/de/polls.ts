import type { PollWords } from '../pollWords.ts';

export const GERMAN_POLLS: PollWords = {
  tryFirst: 'Was davon würdest du zuerst ausprobieren?',
  hearMore: 'Wozu möchtest du gern mehr erfahren?',
  which: (a, b) => `${a} oder ${b}: was nimmst du?`,
  answers: ['Ja', 'Nein', 'Kommt darauf an'],
  choice:
    /\b((?:\p{L}+ ){0,1}\p{Lu}\p{L}{2,}) oder (?:eine?[nr]? |der |die |das |den )?((?:\p{L}+ ){0,1}?\p{Lu}\p{L}{2,})(?=[,.;:?!]|$| )/gu,
  before: /^(?:der|die|das|den|dem|ein\w*|mit|von|in|auf|für)\s+/i,
  yesNo: /^(?:hast|bist|machst|nimmst|würdest|kannst|soll|ist|sind|habt|webst)\b/i
};
