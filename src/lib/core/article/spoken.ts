import type { Talk } from '../language/talk.ts';
import { bare } from '../captions/words.ts';
import { withoutRestarts } from './restarts.ts';
import type { LeftOutReason, Written, WrittenWord } from './written.ts';

const LEAD = '^(?:so |and |okay |alright )*';
const GREETING = new RegExp(
  `${LEAD}(?:hello|hi|hey|good (?:morning|evening|afternoon)|welcome|what's up|what is up|guten (?:tag|morgen|abend)|hallo|willkommen|herzlich willkommen|bonjour|bienvenue|hola|bienvenidos)(?![\\p{L}])`,
  'u'
);
const PARTING = new RegExp(
  `${LEAD}(?:thank you (?:so much |very much )?for (?:watching|joining|being)|thanks (?:so much |a lot )?for (?:watching|joining|being|listening)|thank you(?: all| everyone| everybody)?$|see you|bye|goodbye|until next time|catch you|i'll see you|cheers|take care|have a (?:good|great|nice|lovely)|happy \\w+ing$|tschüss|bis (?:bald|zum nächsten)|danke (?:fürs|für)|merci d'avoir|gracias por)(?![\\p{L}])`,
  'u'
);
/** A greeting that goes on to say what the video is about is more than a greeting. */
const PURPOSE =
  /\b(?:today|going to|we're|we are|i want|i'll|heute|nous allons|aujourd'hui|hoy|vamos)\b/;
const GREETED =
  /\b(?:welcome (?:back )?to (?:the|my|our|another)|see you (?:in the next|next|there|then|soon|on)|happy (?:weaving|sewing|painting|baking|gardening|crafting)$)\b/;
const CALL =
  /\b(?:subscri\w+|hit (?:the|that) bell|like button|(?:give|leave) (?:it|this|the video|us|me)? ?a (?:like|thumbs)|thumbs up|in the comments|comment below|(?:leave|drop|write|put|tell me|let me know|them)(?: \w+){0,6} (?:below|comments?)|let me know (?:in|what|which|how|if)|link(?:ed|s)? (?:is |are )?(?:below|in the description|in the bio|down below)|follow me on|share this video|patreon|sponsor\w*|abonnier\w*|daumen|kommentare?)\b/;
const SMALL_TALK =
  /^(?:okay|ok|alright|all right|right|perfect|great|good|nice|cool|there we go|there you go|here we go|so here we go|there it is|and there it is|that's it|and that's it|that's all|that's pretty much it|let's go|let's do it|let's jump in|let's get started|let's start|so let's begin|let's begin|ready|done|wow|oh wow|yeah|yes|no|exactly|look at that|look at this|does that make sense|you see|you see that|you hear that|see|how's that|how was that|i'm not joking|seriously|come on|you know|i know|i hope|sorry|excuse me|where was i|so where was i|let me see|hang on|one second|there|and done|so|well|anyway|genau|gut|okay gut|so das war's)$/;
/** Talk about what is in sight, which a reader cannot see. */
const POINTING =
  /\b(?:look at (?:this|that|these|those)|see (?:this|that|these|those|it here|here)|(?:like|just like) (?:this|that|so)$|(?:right|over|down|up|in) (?:here|there)\b|can you (?:see|hear)|do you see|you can see (?:it )?here|watch (?:this|my|what)|this (?:one|bit|part|side|corner|end|button|page|thing) here|as you can see|i'm (?:pointing|holding|pressing|clicking)|there we go|here is one i|here's one i)\b/;

const HEADS: readonly string[][] = [
  'okay',
  'ok',
  'alright',
  'all right',
  'so now',
  'and now',
  'now then',
  'now',
  'well',
  'yeah',
  'yes',
  'um',
  'basically',
  'actually',
  'honestly',
  'anyway',
  'seriously',
  'obviously',
  'i mean',
  'you know',
  'you see',
  'as you can see',
  'as i said',
  'like i said',
  'and so',
  'so',
  'and',
  'but like',
  'and then so',
  'right so',
  'right',
  'oh and',
  'oh'
].map((phrase) => phrase.split(' '));

/** Phrases that are cut wherever they stand, by their first word. */
const INSIDE = byFirstWord([
  'as you can see here',
  'as you can see there',
  'as you can see',
  'you can see that',
  'like i said',
  'as i said',
  'or something like that',
  'and stuff like that',
  'and things like that',
  'you know',
  'i mean',
  'kind of',
  'sort of',
  'a little bit of',
  'go ahead and',
  'to be honest',
  'to be fair',
  'if you like',
  'as it were',
  'what you want to do is',
  "what you're going to want to do is",
  "what you're gonna want to do is",
  "what you're going to do is",
  "what you're gonna do is",
  "what you'll want to do is",
  'what you need to do is',
  'what you do is',
  'what i did is',
  'what i did was',
  'what i do is',
  "what i'm going to do is",
  "what i'm gonna do is",
  "what we're going to do is",
  "what we're gonna do is",
  'basically',
  'literally',
  'obviously',
  'honestly',
  'actually'
]);

function byFirstWord(phrases: readonly string[]): Map<string, string[][]> {
  const found = new Map<string, string[][]>();
  for (const phrase of phrases) {
    const words = phrase.split(' ');
    const first = words[0] ?? '';
    found.set(first, [...(found.get(first) ?? []), words]);
  }
  return found;
}

/** Words after or before which a phrase is no filler but means what it says. */
const MEANT: Record<string, { after?: RegExp; before?: RegExp }> = {
  'you know': {
    before: /^(?:do|did|if|as|when|what|that|how|let|don't|didn't|once|sure)$/,
    after:
      /^(?:what|how|that|the|if|why|where|it|whether|which|who|when|about|this|your|a|exactly)$/
  },
  'kind of': {
    before:
      /^(?:a|the|this|that|what|which|some|any|every|each|one|same|of|another|other|different)$/
  },
  'sort of': {
    before:
      /^(?:a|the|this|that|what|which|some|any|every|each|one|same|of|another|other|different)$/
  },
  'i mean': { before: /^(?:what|that|and|which|if)$/, after: /^(?:it|by|the|that)$/ },
  'you can see that': { before: /^(?:so|that|if|until|where|when|then|until)$/ },
  'a little bit of': { before: /./ },
  'if you like': { after: /^(?!$)/, before: /^(?:so|and|but|that|because|or)$/ }
};
/** A head that joins: "so that", "now and then", "right hand", "well beyond". */
const JOINED: Record<string, RegExp> = {
  so: /^(?:that|much|many|far|long|often|little|few|is|are|do|does|did|will)$/,
  now: /^(?:and)$/,
  right: /^(?!so$|now$|then$|okay$|let's$|we$|you$|i$)/,
  well: /^(?:beyond|before|after|over|under|below|above|worn|made|done|known)$/,
  yeah: /^$/,
  and: /^(?:yet)$/
};

/** Colloquial spellings and what is written for them. */
export const WRITTEN_FOR: Readonly<Record<string, string>> = {
  gonna: 'going to',
  wanna: 'want to',
  gotta: 'have to',
  kinda: 'rather',
  lemme: 'let me',
  "'cause": 'because',
  cos: 'because',
  cuz: 'because'
};

/**
 * A spoken sentence as one would write it: turns of speech taken out, the rest word for word. Only
 * capitals, marks and colloquial spellings change. Sentences that are only speech are left out.
 * @param isKept it is written whatever it says
 */
export function writeSentence(talk: Talk, index: number, isKept = false): Written {
  const sentence = talk.sentences[index];
  if (!sentence) return { leftOut: 'fragment' };
  const words: WrittenWord[] = [];
  for (let at = sentence.from; at < sentence.to; at++) {
    words.push({ text: talk.words[at]?.text ?? '', at });
  }
  const said = talk.plain.slice(sentence.from, sentence.to).join(' ');
  const reason = speechOnly(said);
  if (reason)
    return isKept ? { words: finish(words, words.at(-1)?.text ?? '') } : { leftOut: reason };
  const isEnglish = talk.language.code === 'en';
  let kept = cutInside(talk, trimHead(talk, words));
  if (isEnglish) kept = withoutSmallWords(talk, withoutRestarts(talk, kept));
  // What was cut may leave another opening of speech at the head.
  kept = trimHead(talk, kept);
  kept = trimTail(talk, kept);
  const why = isKept ? null : unfit(talk, kept);
  return why ? { leftOut: why } : { words: finish(kept, words.at(-1)?.text ?? '') };
}

/** Why what is left of a sentence cannot be written. */
function unfit(talk: Talk, kept: readonly WrittenWord[]): LeftOutReason | null {
  const left = kept.map((w) => talk.plain[w.at]).join(' ');
  if (SMALL_TALK.test(left)) return 'small-talk';
  if (POINTING.test(left) && kept.length < 14) return 'pointing';
  const isShort = talk.language.code === 'en' && kept.length < 4 && !hasVerb(talk, kept);
  return kept.length < 3 || isShort ? 'fragment' : null;
}

function speechOnly(said: string): LeftOutReason | null {
  if (SMALL_TALK.test(said)) return 'small-talk';
  const length = said.split(' ').length;
  if (CALL.test(said)) return 'call';
  if (PARTING.test(said) && length < 30) return 'greeting';
  if (GREETING.test(said) && length < 15 && !(length > 7 && PURPOSE.test(said))) return 'greeting';
  if (GREETED.test(said) && length < 18) return 'greeting';
  return null;
}

const hasVerb = (talk: Talk, words: readonly WrittenWord[]): boolean =>
  words.some((w) => /^(?:VERB|AUX)$/.test(talk.tags[w.at] ?? ''));

/** A word in lower case without its marks. */
const plainAt = (talk: Talk, words: readonly WrittenWord[], i: number): string =>
  talk.plain[words[i]?.at ?? -1] ?? '';

const startsWith = (
  talk: Talk,
  words: readonly WrittenWord[],
  at: number,
  phrase: readonly string[]
): boolean => phrase.every((word, k) => plainAt(talk, words, at + k) === word);

function trimHead(talk: Talk, words: WrittenWord[]): WrittenWord[] {
  let kept = words;
  for (let again = true; again && kept.length > 3;) {
    again = false;
    for (const phrase of HEADS) {
      if (!startsWith(talk, kept, 0, phrase)) continue;
      const next = plainAt(talk, kept, phrase.length);
      const isApart = /[,.!?…]$/.test(kept[phrase.length - 1]?.text ?? '');
      if (phrase.length === 1 && !isApart && JOINED[phrase[0] ?? '']?.test(next)) continue;
      if (kept.length - phrase.length < 2) continue;
      kept = kept.slice(phrase.length);
      again = true;
      break;
    }
  }
  return kept;
}

function cutInside(talk: Talk, words: WrittenWord[]): WrittenWord[] {
  const kept: WrittenWord[] = [];
  for (let i = 0; i < words.length; i++) {
    const phrase = INSIDE.get(plainAt(talk, words, i))?.find((p) => startsWith(talk, words, i, p));
    const word = words[i];
    if (!word) continue;
    const meant = phrase && MEANT[phrase.join(' ')];
    const before = plainAt(talk, kept, kept.length - 1);
    const after = plainAt(talk, words, i + (phrase?.length ?? 0));
    if (!phrase || (meant?.before?.test(before) ?? false) || (meant?.after?.test(after) ?? false)) {
      kept.push(word);
      continue;
    }
    const mark = /[.!?…;:]+$/.exec(words[i + phrase.length - 1]?.text ?? '')?.[0];
    const last = kept.at(-1);
    if (last && mark && !/[.!?…;:]$/.test(last.text)) {
      kept[kept.length - 1] = { ...last, text: last.text.replace(/,$/, '') + mark };
    }
    i += phrase.length - 1;
  }
  return kept;
}

/** Small words of speech, which go where commas stand around them. */
const BETWEEN_COMMAS = /^(?:like|okay|ok|right|yeah|see|well|say|so|now|anyway|alright|also)$/;
/** What follows "just" where it is needed. */
const JUST_NEEDED =
  /^(?:as|about|above|after|before|below|beyond|behind|enough|inside|like|outside|over|past|right|short|under|when|where|in|now|then|because|one|two|three|four|five|six|the|a|an|\d.*)$/;

function withoutSmallWords(talk: Talk, words: readonly WrittenWord[]): WrittenWord[] {
  return words.filter((word, i) => {
    if (i === 0 || i === words.length - 1) return true;
    const said = plainAt(talk, words, i);
    const before = words[i - 1]?.text ?? '';
    if (BETWEEN_COMMAS.test(said) && word.text.endsWith(',') && before.endsWith(',')) return false;
    return !(
      said === 'just' &&
      !/\W$/.test(word.text) &&
      !JUST_NEEDED.test(plainAt(talk, words, i + 1)) &&
      !/^(?:not|only|is|was|it's|that's|had|i've|you've)$/.test(plainAt(talk, words, i - 1))
    );
  });
}

const TAILS: readonly string[][] = [
  'you know what i mean',
  'you know',
  'or whatever',
  'as well right'
].map((phrase) => phrase.split(' '));
const AFTER_COMMA = /^(?:right|okay|ok|yeah|huh|see|anyway|though)$/;
const TAG_QUESTION =
  /^(?:isn't|doesn't|don't|aren't|won't|can't|wasn't|didn't|is|does|can|do) (?:it|they|you|he|she|we)$/;

function trimTail(talk: Talk, words: WrittenWord[]): WrittenWord[] {
  let kept = words;
  for (const phrase of TAILS) {
    const from = kept.length - phrase.length;
    if (from > 3 && startsWith(talk, kept, from, phrase)) kept = kept.slice(0, from);
  }
  const comma = (back: number) => /,$/.test(kept[kept.length - 1 - back]?.text ?? '');
  if (kept.length > 4 && comma(1) && AFTER_COMMA.test(plainAt(talk, kept, kept.length - 1))) {
    kept = kept.slice(0, -1);
  }
  const tail = kept
    .slice(-2)
    .map((w) => bare(w.text))
    .join(' ');
  if (kept.length > 5 && comma(2) && TAG_QUESTION.test(tail)) kept = kept.slice(0, -2);
  return kept;
}

function finish(words: WrittenWord[], lastSaid: string): WrittenWord[] {
  const isCut = words.at(-1)?.text !== lastSaid;
  return words.map(({ text, at }, i) => {
    let shown = text;
    const written = WRITTEN_FOR[bare(shown)];
    if (written) shown = shown.replace(/^[\p{L}'’]+/u, written);
    if (i === 0) shown = shown.replace(/\p{L}/u, (c) => c.toUpperCase()).replace(/^[–—-]+\s*/, '');
    if (i === words.length - 1 && !/[.!?…][”"’')]*$/.test(shown)) {
      shown = shown.replace(/[,;:–—-]+$/, '');
      const mark = /[?!]/.exec(isCut ? '' : lastSaid)?.[0] ?? '.';
      shown += mark;
    }
    return { text: shown, at };
  });
}
