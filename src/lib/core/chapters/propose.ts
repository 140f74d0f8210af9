import type { Talk } from '../text/talk.ts';
import { score, type Scorer } from '../text/scorer.ts';
import type { Chapter } from './chapter.ts';
import { findParts, type PartWeights } from './parts.ts';
import { titleParts } from './titles.ts';
import { pointOf } from './topicSpace.ts';
import { turnFeatures } from './turnFeatures.ts';
import SHIPPED_TURNS from './turns.weights.json' with { type: 'json' };

export interface ProposedChapters {
  chapters: Chapter[];
  /** How strongly the talk turns at each sentence: `t` in seconds, `value` from 0 to 1. */
  curve: { t: number; value: number }[];
}

/** Shortest chapter in seconds, and fewest in a list, that players of chapter lists take. */
export const MIN_SECONDS = 10;
export const MIN_CHAPTERS = 3;

/** What is weighed, and how: fitted to editors' chapters of unscripted talks. */
export interface ChapterWeights extends PartWeights {
  /** What the scorer of turns counts, and what any chapter costs. */
  turn: number;
  cost: number;
  /** How strictly chapters keep to the usual length, shorter and longer. */
  short: number;
  long: number;
  /** Seconds of a usual chapter in a video of twelve minutes, and how it grows with the length. */
  usual: number;
  growth: number;
}

export const ENGLISH: ChapterWeights = {
  lexical: 2,
  topical: 0.054,
  spread: 1,
  axes: 24,
  concentration: 725,
  ownRate: 0.05,
  turn: 3.45,
  cost: -10.6,
  short: 11.6,
  long: 0.4,
  usual: 69,
  growth: 0.5
};
/** Where the language has no scorer, silence and cohesion alone tell. */
const OTHER: ChapterWeights = { ...ENGLISH, topical: 0, turn: 4, cost: 1.2, short: 10, usual: 85 };
/** A silence counts up to this factor of e of the usual one. */
const MOST_SILENCE = 2.5;
const MINUTES_12 = 720;

/**
 * Proposes chapters where the talk turns: what was learned of how editors' chapters begin, silences
 * and a fall in cohesion, weighed together with a sensible length. The first begins at 0; none is shorter than ten seconds; there
 * are at least three wherever the talk has room for them.
 * @param duration seconds of the video; at least up to the last word is taken
 * @param count number of chapters, where it is given
 * @param turns tells how likely a chapter begins with a sentence, in English
 */
export function proposeChapters(
  talk: Talk,
  duration = 0,
  count?: number,
  turns: Scorer = SHIPPED_TURNS
): ProposedChapters {
  const { sentences } = talk;
  const n = sentences.length;
  if (n === 0) return { chapters: [], curve: [] };
  const length = Math.max(duration, sentences.at(-1)?.end ?? 0);
  const isEnglish = talk.language.code === 'en';
  const weights = isEnglish ? ENGLISH : OTHER;
  const bare = sentences.map(({ from, to }) => talk.plain.slice(from, to).filter(Boolean));
  const points = isEnglish ? bare.map(pointOf) : null;
  const odds = points
    ? turnFeatures(talk, points).map((features) => score(turns, features))
    : silenceOdds(talk);
  const startOf = (i: number) => (i === 0 ? 0 : i === n ? length : (sentences[i]?.start ?? 0));
  const usual = count
    ? length / count
    : weights.usual * (Math.max(length, 60) / MINUTES_12) ** weights.growth;
  const longest = count || n < 60 ? n : unitsWithin(talk, Math.max(4 * usual, 120));
  const most = count ? Math.min(count, Math.floor(length / MIN_SECONDS)) : 0;
  const search = {
    weights,
    begins: odds.map((x) => weights.turn * x - weights.cost),
    length: (from: number, to: number) => {
      const seconds = startOf(to) - startOf(from);
      if (seconds < MIN_SECONDS && n > 1) return -60;
      const off = Math.log(seconds / usual);
      return -(off < 0 ? weights.short : weights.long) * off * off;
    },
    most: longest
  };
  const units = bare.map((_, i) => ({
    stems: talk.stems[i] ?? [],
    point: points?.[i] ?? null
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
function silenceOdds({ sentences }: Talk): number[] {
  const gaps = sentences.map((s, i) => (i === 0 ? 0 : s.start - (sentences[i - 1]?.end ?? 0)));
  const sorted = [...gaps].sort((a, b) => a - b);
  const usual = Math.max(0.3, sorted[sorted.length >> 1] ?? 0);
  return gaps.map((gap) => Math.min(MOST_SILENCE, Math.max(0, Math.log(gap / usual || 1))));
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
