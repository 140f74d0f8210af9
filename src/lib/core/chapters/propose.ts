import { ANAPHORA, CONNECTIVES } from '../language/english.ts';
import type { Talk } from '../language/talk.ts';
import type { Chapter } from './chapter.ts';
import { findParts, type PartWeights } from './parts.ts';
import { signpostOdds } from './signposts.ts';
import { titleParts } from './titles.ts';
import { pointOf } from './topicSpace.ts';

export interface ProposedChapters {
  chapters: Chapter[];
  /** How strongly the talk turns at each sentence: `t` in seconds, `value` from 0 to 1. */
  curve: { t: number; value: number }[];
}

/** Shortest chapter in seconds, and fewest in a list, that players of chapter lists take. */
export const MIN_SECONDS = 10;
export const MIN_CHAPTERS = 3;

export const WEIGHTS: PartWeights = {
  lexical: 2,
  topical: 0.06,
  spread: 1,
  axes: 24,
  concentration: 725,
  ownRate: 0.05
};
/** What signposts, pauses (a factor of e of the usual one) and leaning on the sentence before count. */
export const SIGNS = { post: 5, pause: 4, mostPause: 2.5, leaning: 1.2, cost: 1.2 };
/** How strictly chapters keep to the usual length, shorter and longer. */
export const STRICT = { short: 10, long: 0.5 };

/** Seconds of a usual chapter: longer videos have more chapters, and longer ones. */
export function usualLength(duration: number): number {
  const minutes = Math.max(0.5, duration / 60);
  return duration / Math.max(MIN_CHAPTERS, 2.9 * minutes ** 0.42);
}

/**
 * Proposes chapters where the talk turns: signposts, pauses and a fall in cohesion, weighed
 * together with a sensible length. The first begins at 0; none is shorter than ten seconds; there
 * are at least three wherever the talk has room for them.
 * @param duration seconds of the video; at least up to the last word is taken
 * @param count number of chapters, where it is given
 */
export function proposeChapters(talk: Talk, duration = 0, count?: number): ProposedChapters {
  const { sentences } = talk;
  const n = sentences.length;
  if (n === 0) return { chapters: [], curve: [] };
  const length = Math.max(duration, sentences.at(-1)?.end ?? 0);
  const isEnglish = talk.language.code === 'en';
  const bare = sentences.map(({ from, to }) => talk.plain.slice(from, to).filter(Boolean));
  const pauses = pauseOdds(talk);
  const begins = sentences.map((_, i) => {
    const head = bare[i]?.[0] ?? '';
    const dependsOnPrevious =
      isEnglish && (ANAPHORA.has(head) || (CONNECTIVES.has(head) && head !== 'so'));
    const signs = isEnglish
      ? SIGNS.post * signpostOdds(bare[i]?.join(' ') ?? '', bare[i - 1]?.join(' ') ?? '')
      : 0;
    return (
      signs + SIGNS.pause * (pauses[i] ?? 0) - (dependsOnPrevious ? SIGNS.leaning : 0) - SIGNS.cost
    );
  });
  const startOf = (i: number) => (i === 0 ? 0 : i === n ? length : (sentences[i]?.start ?? 0));
  const usual = count ? length / count : usualLength(length);
  const longest = count || n < 60 ? n : unitsWithin(talk, Math.max(3 * usual, 120));
  const most = count ? Math.min(count, Math.floor(length / MIN_SECONDS)) : 0;
  const search = {
    weights: WEIGHTS,
    begins,
    length: (from: number, to: number) => {
      const seconds = startOf(to) - startOf(from);
      if (seconds < MIN_SECONDS && n > 1) return -60;
      const off = Math.log(seconds / usual);
      return -(off < 0 ? STRICT.short : STRICT.long) * off * off;
    },
    most: longest
  };
  const units = bare.map((words, i) => ({
    stems: talk.stems[i] ?? [],
    point: isEnglish ? pointOf(words) : null
  }));
  let parts = findParts(units, most > 0 ? { ...search, count: most } : search);
  const room = Math.min(MIN_CHAPTERS, Math.floor(length / MIN_SECONDS), n);
  if (!count && parts.starts.length < room) {
    parts = { ...parts, starts: findParts(units, { ...search, count: room, most: n }).starts };
  }
  const kept = longEnough(parts.starts, startOf, n);
  const titles = titleParts(talk, kept);
  return {
    chapters: kept.map((i, k) => ({ start: startOf(i), title: titles[k] ?? '' })),
    curve: sentences.map((sentence, i) => ({
      t: sentence.start,
      value: i === 0 ? 0 : (parts.turns[i] ?? 0)
    }))
  };
}

/** Leaves out starts that would make a chapter too short. */
function longEnough(
  starts: readonly number[],
  startOf: (i: number) => number,
  n: number
): number[] {
  const kept: number[] = [];
  for (const i of starts) {
    const before = kept.at(-1);
    if (before === undefined || startOf(i) - startOf(before) >= MIN_SECONDS) kept.push(i);
  }
  const last = kept.at(-1) ?? 0;
  if (kept.length > 1 && startOf(n) - startOf(last) < MIN_SECONDS) kept.pop();
  return kept;
}

/** How much longer than usual it is quiet before each sentence, as a logarithm. */
function pauseOdds({ sentences }: Talk): number[] {
  const gaps = sentences.map((s, i) => (i === 0 ? 0 : s.start - (sentences[i - 1]?.end ?? 0)));
  const sorted = [...gaps].sort((a, b) => a - b);
  const usual = Math.max(0.3, sorted[sorted.length >> 1] ?? 0);
  return gaps.map((gap) => Math.min(SIGNS.mostPause, Math.max(0, Math.log(gap / usual || 1))));
}

function unitsWithin({ sentences }: Talk, seconds: number): number {
  let most = 1;
  for (let from = 0, to = 0; from < sentences.length; from++) {
    while (
      to < sentences.length &&
      (sentences[to]?.end ?? 0) - (sentences[from]?.start ?? 0) < seconds
    )
      to++;
    most = Math.max(most, to - from);
  }
  return most;
}
