import { usualRate } from '../text/vectors.ts';
import { POSSESSIVE } from '../lang/en/titles.ts';
import type { Talk } from '../text/talk.ts';
import { isContentWord } from '../text/terms.ts';
import { chance, score, type Scorer } from '../text/scorer.ts';
import {
  capital,
  shownTitle,
  TITLE_WORDS,
  titleCandidates,
  type TitleCandidate
} from './titleCandidates.ts';
import { countTerms, termFeatures, type TermCounts } from './termFeatures.ts';
import SHIPPED_TITLES from './titles.weights.json' with { type: 'json' };

/** How a phrase is weighed as a title beside what its words tell. */
const FORM = {
  /** An act with its object tells more of a part than a thing. */
  act: 0.25,
  question: 0.1,
  /** A number, and a word that is somebody's. */
  counted: 0.7,
  owned: 0.3,
  /** A word beyond four. */
  long: 0.08,
  /** Little words that join, other than "of". */
  loose: 0.2,
  /** Two things in one title. */
  joined: 0.3
};
/** Things that are tried together, the best first, and words of each at most. */
const JOIN = { of: 24, words: 3 };

/**
 * A title for each part, of 2 to 6 of the speaker's own words, or two things joined by "and": the words
 * that an editor would most likely have in it; none used twice. A part without any is called by its first content words.
 * @param starts index of each part's first sentence
 * @param scorer tells how likely a word of a part is in its title, in English
 */
export function titleParts(
  talk: Talk,
  starts: readonly number[],
  scorer: Scorer = SHIPPED_TITLES
): string[] {
  const parts = starts.map((from, k) => ({ from, to: starts[k + 1] ?? talk.sentences.length }));
  const counts = countTerms(talk, parts);
  const isEnglish = talk.language.code === 'en';
  const taken = new Set<string>();
  return parts
    .map((part, k) => {
      const odds = isEnglish
        ? new Map(
            [...termFeatures(talk, parts, k, counts)].map(([stem, f]) => [
              stem,
              chance(score(scorer, f))
            ])
          )
        : null;
      const ranked = titleCandidates(talk, part.from, part.to, odds ? 1 : TITLE_WORDS.least)
        .map((c) => ({
          ...c,
          score: odds ? titleScore(talk, c, odds) : tellingOf(c, counts, k)
        }))
        .sort((a, b) => b.score - a.score || a.from - b.from);
      const chosen = ranked.find((c) => isWhole(talk, c) && !isInside(c.stems, taken));
      if (!chosen) return firstWords(talk, part.from, part.to);
      const pair = odds && bestPair(talk, ranked, odds);
      if (pair && pair.score > chosen.score && !isInside(pair.stems, taken)) {
        taken.add([...pair.stems].sort().join(' '));
        return pair.title;
      }
      taken.add([...chosen.stems].sort().join(' '));
      return shownTitle(talk, chosen);
    })
    .map((title, k, all) => {
      const before = all.slice(0, k).filter((other) => other === title).length;
      return before > 0 ? `${title} (${before + 1})` : title;
    });
}

/** Whether a phrase has two words at least beside its article: one alone is only a part of a title. */
const isWhole = (talk: Talk, { from, to }: TitleCandidate): boolean =>
  to - from - (talk.tags[from] === 'DET' ? 1 : 0) >= TITLE_WORDS.least;

/** Two things of a part as one title ("Alum and cream of tartar"), in the order in which they are said. */
function bestPair(
  talk: Talk,
  ranked: readonly (TitleCandidate & { score: number })[],
  odds: ReadonlyMap<string, number>
): { title: string; stems: string[]; score: number } | null {
  const things = ranked
    .filter(
      ({ kind, from, to }) =>
        kind === 'thing' && to - from <= JOIN.words && !talk.plain.slice(from, to).includes('and')
    )
    .slice(0, JOIN.of)
    .sort((a, b) => a.from - b.from);
  let best: { title: string; stems: string[]; score: number } | null = null;
  for (const [i, first] of things.entries())
    for (const second of things.slice(i + 1)) {
      if (second.stems.some((stem) => first.stems.includes(stem))) continue;
      const stems = [...first.stems, ...second.stems];
      const score =
        titleScore(talk, { ...first, stems }, odds) +
        titleScore(talk, { ...second, stems }, odds) -
        Math.log(chanceOfAny(stems, odds) + 1e-4) -
        FORM.joined;
      if (best && score <= best.score) continue;
      best = {
        title: capital(`${thingOf(talk, first)} and ${thingOf(talk, second)}`),
        stems,
        score
      };
    }
  return best;
}

/** A thing as it is shown inside a title: without its article, small unless it is a name. */
function thingOf(talk: Talk, { from, to }: TitleCandidate): string {
  const first = talk.tags[from] === 'DET' ? from + 1 : from;
  const words = talk.words
    .slice(first, to)
    .map((w) => w.text.replace(/^[("“]+|(?<![,;:.!?…"”)])[,;:.!?…"”)]+$/g, ''));
  const isHeadOfSentence = talk.sentences.some((s) => s.from === first);
  if (isHeadOfSentence && talk.tags[first] !== 'PROPN') words[0] = (words[0] ?? '').toLowerCase();
  return words.join(' ');
}

const chanceOfAny = (stems: Iterable<string>, odds: ReadonlyMap<string, number>): number =>
  1 - [...new Set(stems)].reduce((product, stem) => product * (1 - (odds.get(stem) ?? 0)), 1);

/** Log of the chance that one of its words at least is in the editor's title, and what its form is worth. */
function titleScore(
  talk: Talk,
  { from, to, stems, kind }: TitleCandidate,
  odds: ReadonlyMap<string, number>
): number {
  const distinct = [...new Set(stems)];
  // A word that tells nothing takes from a title.
  const idle = distinct.filter((stem) => (odds.get(stem) ?? 0) < 0.02).length;
  const words = talk.plain.slice(from, to);
  const tags = talk.tags.slice(from, to);
  return (
    Math.log(chanceOfAny(distinct, odds) + 1e-4) -
    0.15 * idle +
    (kind === 'act' ? FORM.act : kind === 'question' ? FORM.question : 0) -
    FORM.counted * tags.filter((tag) => tag === 'NUM').length -
    FORM.owned * words.filter((w) => POSSESSIVE.has(w)).length -
    FORM.loose * tags.filter((tag, i) => tag === 'ADP' && i > 1 && words[i] !== 'of').length -
    FORM.long * Math.max(0, words.length - 4)
  );
}

/** How much more a phrase's words are said in a part than elsewhere. */
function tellingOf({ stems }: TitleCandidate, { parts, total }: TermCounts, k: number): number {
  const distinct = [...new Set(stems)];
  const each = distinct.map((stem) => {
    const here = parts[k]?.get(stem) ?? 0;
    return here > 1 ? (here * here) / (total.get(stem) ?? 1) : 0.2;
  });
  return each.reduce((a, b) => a + b, 0) / Math.sqrt(distinct.length + 0.6);
}

/** The phrases that a whole talk is most about, best first; none holds another. */
export function titlePhrases(talk: Talk, most: number): string[] {
  const { total } = countTerms(talk, []);
  const said = new Map<string, { candidate: TitleCandidate; count: number }>();
  for (const candidate of titleCandidates(talk, 0, talk.sentences.length)) {
    if (candidate.kind === 'question') continue;
    const key = candidate.stems.join(' ');
    const known = said.get(key);
    if (known) known.count++;
    else said.set(key, { candidate, count: 1 });
  }
  const taken = new Set<string>();
  const phrases: string[] = [];
  const ranked = [...said.values()]
    .map(({ candidate, count }) => ({
      candidate,
      score: count * 0.5 + phraseScore(talk, candidate, total)
    }))
    .sort((a, b) => b.score - a.score);
  for (const { candidate } of ranked) {
    if (phrases.length >= most) break;
    if (isInside(candidate.stems, taken)) continue;
    taken.add([...candidate.stems].sort().join(' '));
    phrases.push(shownTitle(talk, candidate));
  }
  return phrases;
}

const isInside = (stems: readonly string[], taken: ReadonlySet<string>): boolean =>
  [...taken].some((key) => {
    const other = key.split(' ');
    return other.every((s) => stems.includes(s)) || stems.every((s) => other.includes(s));
  });

function phraseScore(
  talk: Talk,
  { from, to, stems, kind }: TitleCandidate,
  total: ReadonlyMap<string, number>
): number {
  const distinct = [...new Set(stems)];
  const sum = distinct.reduce((all, stem) => all + Math.sqrt(total.get(stem) ?? 0), 0);
  const rare = distinct.filter((stem) => usualRate(stem) < 0.05).length;
  const words = talk.plain.slice(from, to);
  const tags = talk.tags.slice(from, to);
  // "the fold for that reason" is part of a sentence; "the first half of the stitch" is a thing.
  const loose = tags.filter((tag, i) => tag === 'ADP' && words[i] !== 'of').length;
  const counted = tags.filter((tag) => tag === 'NUM').length;
  return (
    sum / Math.sqrt(distinct.length + 0.6) +
    (kind === 'act' ? 0.45 : 0) +
    0.15 * rare -
    0.9 * loose -
    0.5 * counted -
    (words.length > 4 ? 0.4 : 0)
  );
}

function firstWords(talk: Talk, from: number, to: number): string {
  for (let s = from; s < to; s++) {
    const { from: first = 0, to: last = 0 } = talk.sentences[s] ?? {};
    const words = talk.plain.slice(first, last);
    const at = words.findIndex((w) => isContentWord(w, talk.language));
    if (at >= 0) return capital(words.slice(at, at + 4).join(' '));
  }
  return capital(
    talk.plain
      .slice(talk.sentences[from]?.from ?? 0)
      .slice(0, 4)
      .join(' ')
  );
}
