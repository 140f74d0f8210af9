import type { Talk } from '../language/talk.ts';
import { bare } from '../captions/words.ts';
import { likeness, opening, textOf, type Candidate } from './candidate.ts';
import type { WrittenWord } from './spoken.ts';

const AIM =
  /\b(?:today|this video|this post|going to (?:show|make|learn|talk|look|wind|build|teach|walk)|i(?:'ll| will) show|how to|we're going to|we are going to|in this|heute|zeige)\b/;

/** Two or three sentences that together tell most of the subject, one of them from the beginning. */
export function pickSummary(
  talk: Talk,
  candidates: readonly Candidate[],
  subject: readonly string[]
): Candidate[] {
  const fit = candidates.filter(
    (c) =>
      c.words.length >= 7 &&
      c.words.length <= 32 &&
      !c.dependsOnPrevious &&
      !/\?$/.test(c.words.at(-1)?.text ?? '')
  );
  const total = talk.sentences.length || 1;
  const opening = fit
    .filter((c) => c.index < Math.max(6, total * 0.15))
    .map((c) => ({
      c,
      score: c.score + (AIM.test(textOf(c.words).toLowerCase()) ? 0.8 : 0) - c.index / total
    }))
    .sort((a, b) => b.score - a.score)[0]?.c;
  const picked = opening ? [opening] : [];
  const covered = new Set(picked.flatMap((c) => [...c.stems]));
  const weight = new Map(subject.map((stem, rank) => [stem, 1 / (1 + rank / 4)]));
  const wanted = talk.words.length > 220 ? 3 : 2;
  while (picked.length < wanted) {
    const next = fit
      .filter((c) => !picked.includes(c) && picked.every((p) => likeness(p.stems, c.stems) < 0.4))
      .map((c) => {
        const news = [...c.stems].reduce(
          (sum, s) => sum + (covered.has(s) ? 0.2 : 1) * (weight.get(s) ?? 0.05),
          0
        );
        return { c, score: news / Math.sqrt(6 + c.words.length) + 0.3 * c.score };
      })
      .sort((a, b) => b.score - a.score)[0]?.c;
    if (!next) break;
    picked.push(next);
    for (const stem of next.stems) covered.add(stem);
  }
  return picked.sort((a, b) => a.index - b.index);
}

const ADVICE =
  /\b(?:never|always|must|should|don't|do not|need to|have to|has to|important|the rule|the trick|because|so that|instead|better|make sure|only)\b/;

/** Sentences of advice that stand on their own, from all over the talk. */
export function pickTakeaways(
  talk: Talk,
  candidates: readonly Candidate[],
  used: ReadonlySet<number>
): Candidate[] {
  const fit = candidates
    .filter(
      (c) =>
        !used.has(c.index) && !c.dependsOnPrevious && c.words.length >= 6 && c.words.length <= 24
    )
    .filter((c) => !/\?$/.test(c.words.at(-1)?.text ?? ''))
    .map((c) => {
      const isImperative =
        /^VERB$/.test(talk.tags[c.words[0]?.at ?? -1] ?? '') &&
        !/(?:ed|ing|s)$/.test(bare(c.words[0]?.text ?? ''));
      const bonus =
        (ADVICE.test(textOf(c.words).toLowerCase()) ? 0.4 : 0) + (isImperative ? 0.25 : 0);
      return { c, score: c.score + bonus };
    })
    .sort((a, b) => b.score - a.score);
  const picked: Candidate[] = [];
  const most = Math.min(5, Math.max(2, Math.round(talk.words.length / 160)));
  for (const { c } of fit) {
    if (picked.length >= most) break;
    const inChapter = picked.filter((p) => p.chapter === c.chapter).length;
    if (inChapter >= Math.max(1, Math.ceil(most / 4))) continue;
    if (picked.some((p) => likeness(p.stems, c.stems) > 0.35 || sameOpening(p.words, c.words)))
      continue;
    picked.push(c);
  }
  return picked.sort((a, b) => a.index - b.index);
}

/** A short sentence with a turn in it. */
export function pickQuote(
  talk: Talk,
  candidates: readonly Candidate[],
  used: ReadonlySet<number>
): Candidate | null {
  const fit = candidates
    .filter(
      (c) =>
        !used.has(c.index) && !c.dependsOnPrevious && c.words.length >= 6 && c.words.length <= 22
    )
    .map((c) => {
      const text = textOf(c.words).toLowerCase();
      const turn =
        /\b(?:but|not|never|than|without|only|nothing|everybody|nobody|half|whole)\b/.test(text)
          ? 0.4
          : 0;
      return { c, score: c.score + turn - (/\?$/.test(text) ? 0.5 : 0) };
    })
    .sort((a, b) => b.score - a.score);
  return fit[0]?.c ?? null;
}

const sameOpening = (a: readonly WrittenWord[], b: readonly WrittenWord[]): boolean =>
  opening(a) === opening(b);
