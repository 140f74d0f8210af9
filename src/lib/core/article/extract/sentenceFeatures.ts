import { bare } from '../../text/bare.ts';
import type { Talk } from '../../text/talk.ts';
import { rankOf } from '../../text/vectors.ts';
import { binned } from '../../text/scorer.ts';

/** What there is to know of each sentence of a talk before it is judged, as names of features. */
export function sentenceFeatures(talk: Talk, subject: readonly string[]): string[][] {
  const n = talk.sentences.length;
  const weight = new Map(subject.map((stem, rank) => [stem, 1 / (1 + rank / 6)]));
  const firstUse = firstUses(talk);
  const own = talk.sentences.map((_, i) => ownFeatures(talk, i, weight, firstUse));
  const told = own.map((features) => [...features].filter((f) => TOLD_OF_NEIGHBOURS.test(f)));
  const heads = talk.sentences.map((_, i) => headOf(talk, i));
  return talk.sentences.map((_, i) => {
    const features = new Set(own[i]);
    for (const [name, at] of [
      ['before', i - 1],
      ['after', i + 1]
    ] as const) {
      if (at < 0 || at >= n) features.add(`${name}:none`);
      else for (const feature of told[at] ?? []) features.add(`${name} ${feature}`);
    }
    features.add(binned('part', i / n, [0.04, 0.1, 0.2, 0.5, 0.8, 0.9, 0.96]));
    if (i < 4) features.add(`first:${i}`);
    if (n - i <= 6) features.add(`last:${n - i}`);
    if (heads[i - 1] === heads[i]) features.add('head:again');
    return [...features];
  });
}

/** Features that a sentence has of those beside it as well. */
const TOLD_OF_NEIGHBOURS = /^(?:long|head|question|number|content|i|you|verb first)/;

function firstUses(talk: Talk): Map<string, number> {
  const first = new Map<string, number>();
  for (const [i, stems] of talk.stems.entries())
    for (const stem of stems) if (!first.has(stem)) first.set(stem, i);
  return first;
}

const headOf = (talk: Talk, i: number): string => {
  const { from, to } = talk.sentences[i] ?? { from: 0, to: 0 };
  return talk.plain.slice(from, Math.min(to, from + 2)).join(' ');
};

function ownFeatures(
  talk: Talk,
  i: number,
  subject: ReadonlyMap<string, number>,
  firstUse: ReadonlyMap<string, number>
): Set<string> {
  const { from, to } = talk.sentences[i] ?? { from: 0, to: 0 };
  const words = talk.plain.slice(from, to).filter(Boolean);
  const tags = talk.tags.slice(from, to);
  const stems = talk.stems[i] ?? [];
  const features = new Set<string>();
  for (const [k, word] of words.entries()) {
    features.add(`word:${word}`);
    if (k > 0) features.add(`pair:${words[k - 1]} ${word}`);
  }
  for (const [k, tag] of tags.entries()) {
    if (k > 1) features.add(`tags:${tags[k - 2]} ${tags[k - 1]} ${tag}`);
  }
  features.add(`head:${words[0] ?? ''}`);
  features.add(`head:${words.slice(0, 2).join(' ')}`);
  features.add(`head tags:${tags.slice(0, 3).join(' ')}`);
  features.add(`end:${words.at(-1) ?? ''}`);
  features.add(binned('long', words.length, [2, 4, 7, 11, 16, 22, 30, 42]));
  const text = talk.words[to - 1]?.text ?? '';
  if (/\?["”’)]*$/.test(text)) features.add('question');
  if (/[.…]{2}/.test(talk.sentences[i]?.text ?? '')) features.add('broken off');
  const numbers = words.filter((w, k) => /\d/.test(w) || tags[k] === 'NUM').length;
  features.add(binned('number', numbers, [0, 1, 2]));
  features.add(binned('content', stems.length / (words.length || 1), [0.1, 0.2, 0.3, 0.4, 0.5]));
  features.add(binned('contents', stems.length, [0, 1, 2, 4, 6, 9, 13]));
  const told = stems.reduce((sum, s) => sum + (subject.get(s) ?? 0), 0);
  features.add(binned('told', told, [0, 0.3, 0.8, 1.5, 2.5, 4]));
  features.add(
    binned('told rate', told / Math.sqrt(words.length || 1), [0, 0.1, 0.2, 0.35, 0.5, 0.8])
  );
  const fresh = stems.filter((s) => firstUse.get(s) === i).length;
  features.add(binned('fresh', fresh, [0, 1, 2, 4]));
  features.add(
    binned('i', words.filter((w) => /^(?:i|me|my|i'm|i've|i'll|i'd)$/.test(w)).length, [0, 1, 2])
  );
  features.add(
    binned(
      'you',
      words.filter((w) => /^(?:you|your|you're|you've|you'll)$/.test(w)).length,
      [0, 1, 2]
    )
  );
  const commas = talk.words.slice(from, to).filter((w) => w.text.endsWith(',')).length;
  features.add(binned('commas', commas / (words.length || 1), [0, 0.05, 0.1, 0.17, 0.25]));
  if (tags[0] === 'VERB') features.add('verb first');
  const ranks = words.map((w) => rankOf(w)).filter((r): r is number => r !== null && r > 300);
  features.add(binned('rare', ranks.length / (words.length || 1), [0, 0.1, 0.2, 0.3, 0.45]));
  let doubled = 0;
  for (let k = 1; k < words.length; k++) if (words[k] === words[k - 1]) doubled++;
  features.add(binned('doubled', doubled, [0, 1]));
  const distinct = new Set(words).size / (words.length || 1);
  features.add(binned('distinct', distinct, [0.6, 0.75, 0.9]));
  if (words.some((w) => bare(w).length > 9)) features.add('long word');
  return features;
}
