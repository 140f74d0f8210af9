import { arePair } from '../emphasis.ts';
import { gistOf } from './gist.ts';
import { readSentence, type ReadSentence, type Word } from './sentence.ts';

/** One of two things that are told beside each other. */
export interface Side {
  /** What it is about. */
  label: string;
  point: string;
}

/** Words of a label at most. */
const LABEL = 4;
const POINT_WORDS = 12;

/**
 * Two sentences of one build, such as "Dark means …" and "Light means …", as two columns.
 * @returns null where they are no pair, or name no two things
 */
export function comparisonOf(
  a: ReadSentence,
  b: ReadSentence,
  language: string
): [Side, Side] | null {
  if (!a.known || !arePair(a.text, b.text)) return null;
  const verb = sharedVerb(a.words, b.words);
  const sides = [a, b].map((sentence, i) => sideOf(sentence, verb ? verb[i]! : 0, language));
  const [left, right] = sides;
  if (!left?.point || !right?.point) return null;
  const isNamed = ({ label }: Side) =>
    label !== '' &&
    !a.known!.doers.has(label.toLowerCase()) &&
    !/^(?:here|there|this|that)$/i.test(label);
  return isNamed(left) && isNamed(right) ? [left, right] : null;
}

/** One sentence that tells of two things: "An empty dent is a bright line and a crowded one is a dark line". */
export function halvesOf({ text, words, known }: ReadSentence): [string, string] | null {
  if (!known) return null;
  const joints = words.flatMap(({ plain, from }, i) =>
    i > 2 &&
    i < words.length - 3 &&
    JOINTS.has(plain) &&
    isClause(words.slice(0, i)) &&
    isClause(words.slice(i + 1))
      ? [{ from, behind: words[i + 1]!.from }]
      : []
  );
  const [joint] = joints;
  if (!joint || joints.length > 1) return null;
  const halves: [string, string] = [
    text.slice(0, joint.from).replace(/(?<![,;\s])[,;\s]+$/, ''),
    text.slice(joint.behind)
  ];
  return arePair(...halves) ? halves : null;
}
const JOINTS: ReadonlySet<string> = new Set([
  'and',
  'but',
  'while',
  'whereas',
  'und',
  'aber',
  'während'
]);
const isClause = (words: readonly Word[]): boolean =>
  words.some((w) => /^(?:VERB|AUX)$/.test(w.tag));

/** Where the word that both build on stands in each: the first that both have, behind what differs. */
function sharedVerb(a: readonly Word[], b: readonly Word[]): [number, number] | null {
  for (let i = 1; i <= LABEL && i < a.length - 1; i++)
    for (let k = 1; k <= LABEL && k < b.length - 1; k++)
      if (a[i]!.plain === b[k]!.plain && (/^(?:VERB|AUX)$/.test(a[i]!.tag) || (i === 1 && k === 1)))
        if (a.slice(0, i).some((w) => !b.slice(0, k).some((o) => o.plain === w.plain)))
          return [i, k];
  return null;
}

/** To whom something is done tells nothing without what is done: "gave us sore shoulders". */
const WHOM = /^(?:me|us|you|him|her|them|it|mich|mir|uns|dich|dir|euch|ihn|ihm|ihr|ihnen|sich)$/;

function sideOf({ text, words, known }: ReadSentence, verb: number, language: string): Side {
  const shown = (from: number, to: number) =>
    text
      .slice(words[from]?.from ?? 0, words[to - 1]?.to ?? 0)
      .replace(/(?<![,;:.])[,;:.]+$/, '')
      .replace(/^\p{Ll}/u, (c) => c.toUpperCase());
  const lead = known?.leads.exec(text)?.[0].length ?? 0;
  const first = Math.max(
    0,
    words.findIndex((w) => w.from >= lead)
  );
  const label = verb > first ? shown(first, verb) : '';
  const isToWhom = WHOM.test(words[verb + 1]?.plain ?? '');
  const rest = verb > first ? words.slice(isToWhom ? verb : verb + 1) : words.slice(first);
  // "means that you have to …": what joins is left out.
  const begin = known?.heads.has(rest[0]?.plain ?? '') ? 1 : 0;
  const told = text.slice(rest[begin]?.from ?? 0);
  const point = gistOf(readSentence(told, language), POINT_WORDS)
    .map((p) => p.text)
    .join(' · ');
  return { label, point };
}
