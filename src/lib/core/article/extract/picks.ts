import { AIM } from '../../lang/speech.ts';
import type { Talk } from '../../text/talk.ts';
import { likeness, opening, textOf, type Candidate } from './candidate.ts';
import { worth } from './choose.ts';
import type { WrittenWord } from './written.ts';

/** Words that a sentence may have which is to be understood without those around it. */
const ALONE = {
  summary: { least: 7, most: 42 },
  takeaway: { least: 9, most: 54 },
  quote: { least: 6, most: 22 }
};

const standsAlone = (c: Candidate, { least, most }: { least: number; most: number }): boolean =>
  c.words.length >= least && c.words.length <= most && !c.dependsOnPrevious && !c.isQuestion;

/** Share of a talk in which it says what it is about, and fewest sentences looked at. */
const OPENING = { share: 0.15, least: 6 };

/** The sentence that says what is to come; null where none does. */
export function pickAim(talk: Talk, candidates: readonly Candidate[]): Candidate | null {
  const end = Math.max(OPENING.least, talk.sentences.length * OPENING.share);
  const fit = candidates
    .filter((c) => c.index < end && standsAlone(c, ALONE.summary))
    .filter((c) => AIM.test(textOf(c.words).toLowerCase()))
    .sort((a, b) => worth(b) - worth(a));
  return fit[0] ?? null;
}

/** How far the length of a takeaway counts: what is worth taking home is seldom said in a breath. */
const TELLING = 0.5;
const byTakeaway = (a: Candidate, b: Candidate): number => weightOf(b) - weightOf(a);
const weightOf = (c: Candidate): number => c.takeaway * c.must * c.words.length ** TELLING;

/** Words of a talk from which on its summary has three sentences. */
const LONG = 1800;

/** Two or three sentences that tell most of what matters, each about something else. */
export function pickSummary(talk: Talk, candidates: readonly Candidate[]): Candidate[] {
  const wanted = talk.words.length > LONG ? 3 : 2;
  const fit = candidates
    .filter((c) => standsAlone(c, ALONE.summary))
    .sort((a, b) => b.must - a.must);
  return pickApart(fit, wanted, 1).sort((a, b) => a.index - b.index);
}

/** Most takeaways, most of one chapter, and how little one may be doubted. */
const TAKEAWAYS = { most: 4, ofChapter: 2, mostMustNot: 0.1 };
/** Words of a talk for which there is one takeaway. */
const WORDS_FOR_ONE = 400;

/** Sentences that a viewer should take home, from all over the talk. */
export function pickTakeaways(talk: Talk, candidates: readonly Candidate[]): Candidate[] {
  const { most, ofChapter, mostMustNot } = TAKEAWAYS;
  const wanted = Math.min(most, Math.max(2, Math.round(talk.words.length / WORDS_FOR_ONE)));
  const fit = candidates
    .filter((c) => standsAlone(c, ALONE.takeaway) && c.mustNot < mostMustNot)
    .sort(byTakeaway);
  return pickApart(fit, wanted, ofChapter).sort((a, b) => a.index - b.index);
}

/** The first of a ranking that are not alike, no more of one chapter than is given. */
function pickApart(ranked: readonly Candidate[], most: number, ofChapter: number): Candidate[] {
  const picked: Candidate[] = [];
  for (const c of ranked) {
    if (picked.length >= most) break;
    if (picked.filter((p) => p.chapter === c.chapter).length >= ofChapter) continue;
    if (picked.some((p) => likeness(p.stems, c.stems) > 0.35 || sameOpening(p.words, c.words)))
      continue;
    picked.push(c);
  }
  return picked;
}

/** A short sentence with a turn in it. */
export function pickQuote(
  talk: Talk,
  candidates: readonly Candidate[],
  used: ReadonlySet<number>
): Candidate | null {
  const fit = candidates
    .filter((c) => !used.has(c.index) && standsAlone(c, ALONE.quote))
    .map((c) => {
      const text = textOf(c.words).toLowerCase();
      const turn =
        /\b(?:but|not|never|than|without|only|nothing|everybody|nobody|half|whole)\b/.test(text)
          ? 0.2
          : 0;
      return { c, score: worth(c) + turn };
    })
    .sort((a, b) => b.score - a.score);
  return fit[0]?.c ?? null;
}

const sameOpening = (a: readonly WrittenWord[], b: readonly WrittenWord[]): boolean =>
  opening(a) === opening(b);
