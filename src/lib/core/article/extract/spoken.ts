import type { Talk } from '../../text/talk.ts';
import { bare } from '../../text/bare.ts';
import {
  AFTER_COMMA,
  BETWEEN_COMMAS,
  FILLER_PHRASES,
  GREETED,
  HEADS as OPENINGS,
  JOINED,
  JUST_NEEDED,
  MEANT,
  POINTING,
  TAG_QUESTION,
  TAILS as ENDINGS,
  WRITTEN_FOR
} from '../../lang/en/speech.ts';
import { CALL, GREETING, PARTING, PURPOSE, SMALL_TALK } from '../../lang/speech.ts';
import { withoutRestarts } from './restarts.ts';
import { splitRunOns } from './runOns.ts';
import type { LeftOutReason, Written, WrittenWord } from './written.ts';

const inWords = (phrases: readonly string[]): string[][] =>
  phrases.map((phrase) => phrase.split(' '));
const HEADS = inWords(OPENINGS);
const TAILS = inWords(ENDINGS);
/** By their first word. */
const INSIDE = byFirstWord(FILLER_PHRASES);

function byFirstWord(phrases: readonly string[]): Map<string, string[][]> {
  const found = new Map<string, string[][]>();
  for (const phrase of phrases) {
    const words = phrase.split(' ');
    const first = words[0] ?? '';
    found.set(first, [...(found.get(first) ?? []), words]);
  }
  return found;
}

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
  if (why) return { leftOut: why };
  const finished = finish(kept, words.at(-1)?.text ?? '');
  return { words: isEnglish ? splitRunOns(talk, finished) : finished };
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
    const mark = /(?<![.!?…;:])[.!?…;:]+$/.exec(words[i + phrase.length - 1]?.text ?? '')?.[0];
    const last = kept.at(-1);
    if (last && mark && !/[.!?…;:]$/.test(last.text)) {
      kept[kept.length - 1] = { ...last, text: last.text.replace(/,$/, '') + mark };
    }
    i += phrase.length - 1;
  }
  return kept;
}

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
      shown = shown.replace(/(?<![,;:–—-])[,;:–—-]+$/, '');
      const mark = /[?!]/.exec(isCut ? '' : lastSaid)?.[0] ?? '.';
      shown += mark;
    }
    return { text: shown, at };
  });
}
