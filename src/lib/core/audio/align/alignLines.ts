import type { Cepstra } from './cepstra.ts';
import { meanDistance, secondsAlong, warp } from './warp.ts';

/** A line of a script as a voice says it, in seconds of the whole. */
export interface SaidLine {
  start: number;
  end: number;
}

/** Where a line is read in a recording. */
export interface FoundLine {
  /** Seconds; a little silence stays on both sides. */
  from: number;
  to: number;
  /** It takes much longer, or much less long, than it should: something else may have been read. */
  isDoubtful: boolean;
}

/** Seconds that a reading may run ahead of, or behind, an even pace: a share of the whole within bounds. */
const reachOf = (seconds: number): number => Math.min(120, Math.max(15, 0.2 * seconds));
/** The shortest pause, in seconds. */
const SHORTEST = 0.1;
/** Seconds of silence that stay around a line. */
const MARGIN = 0.08;
/** Where between the quietest and the loudest a pause ends. */
const PAUSE_LEVEL = 0.35;
/** Paces, of that of the middle line, beyond which a line is doubtful. */
const [SHORT, LONG] = [0.55, 1.8];

/**
 * Finds the lines of a script in a recording of them, as published forced aligners do that need no trained
 * model: a synthetic voice says the script, both sounds are laid along each other, and the ends of its
 * lines, whose seconds are known, lead to those of the recording. Each is moved into the pause beside it.
 * @param script the lines as a voice says them, one after the other
 * @returns one for each line, in order, without overlap; and how unlike both sounds are: of several voices that
 *   say the script, the nearest finds the lines best
 */
export function alignLines(
  recording: Cepstra,
  script: Cepstra,
  lines: readonly SaidLine[]
): { lines: FoundLine[]; distance: number } {
  const whole = recording.count * recording.hop;
  const path = warp(script, recording, reachOf(whole));
  const pauses = pausesOf(recording);
  const there = (seconds: number) => secondsAlong(path, script, recording, seconds);
  const speech = edgesOf(pauses, whole);
  const about = lines
    .slice(0, -1)
    .map((line, i) => (there(line.end) + there(lines[i + 1]!.start)) / 2);
  const gaps = choosePauses(pauses, about, lines, speech);
  const found = lines.map((_, i) => ({
    from: i === 0 ? speech.from : gaps[i - 1]!.to,
    to: i === lines.length - 1 ? speech.to : gaps[i]!.from
  }));
  const isOdd = oddPaces(found, lines);
  const kept = found.map(({ from, to }, i) => ({
    from: Math.max(0, from - MARGIN, i > 0 ? (from + found[i - 1]!.to) / 2 : 0),
    to: Math.min(whole, to + MARGIN, i < found.length - 1 ? (to + found[i + 1]!.from) / 2 : whole),
    isDoubtful: isOdd[i]!
  }));
  return { lines: kept, distance: meanDistance(path) };
}

function oddPaces(found: readonly Pause[], lines: readonly SaidLine[]): boolean[] {
  const paces = found.map((f, i) => paceOf(f, lines[i]!));
  const usual = middleOf(paces);
  return paces.map((pace) => pace < SHORT * usual || pace > LONG * usual);
}

const middleOf = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[values.length >> 1] ?? 0;
const paceOf = ({ from, to }: Pause, { start, end }: SaidLine): number =>
  (to - from) / Math.max(0.1, end - start);

interface Pause {
  from: number;
  to: number;
}

/** Stretches in which nobody speaks. */
function pausesOf({ levels, hop, count }: Cepstra): Pause[] {
  const sorted = levels.toSorted();
  const quiet = sorted[Math.floor(count * 0.05)] ?? 0;
  const loud = sorted[Math.floor(count * 0.9)] ?? 0;
  const limit = quiet + PAUSE_LEVEL * (loud - quiet);
  const pauses: Pause[] = [];
  let from = -1;
  for (let i = 0; i <= count; i++) {
    const isQuiet = i < count && levels[i]! < limit;
    if (isQuiet && from < 0) from = i;
    if (!isQuiet && from >= 0) {
      if ((i - from) * hop >= SHORTEST) pauses.push({ from: from * hop, to: i * hop });
      from = -1;
    }
  }
  return pauses;
}

/** Seconds around where a line seems to end in which its pause is looked for. */
const AROUND = 8;
/** What a second between a pause and where it was expected costs, and the longest pause saves. */
const AWAY_COST = 1.2;
const FARTHEST = 3;
const PAUSE_WORTH = 1.5;
/** Seconds from which on a pause is as good as any. */
const ENOUGH_PAUSE = 0.5;
/** What it costs to end a line where nobody pauses. */
const NO_PAUSE_COST = 1.5;
/** How much the pace of a line strays from that of all, as a logarithm; seconds that short lines stray besides. */
const STRAY = 0.16;
const STRAY_SECONDS = 0.15;
/** A line of a very odd length costs no more than this: something else may have been said. */
const DEAREST = 12;

/**
 * Chooses the pause after each line but the last, all of them together: near where the line seems to end, long,
 * and so that each line takes about as long as it should.
 */
function choosePauses(
  pauses: readonly Pause[],
  about: readonly number[],
  lines: readonly SaidLine[],
  speech: Pause
): Pause[] {
  const expected = lines.map(({ start, end }) => end - start);
  const inner = pauses.filter((p) => p.from > speech.from && p.to < speech.to);
  const spoken =
    speech.to - speech.from - inner.reduce((sum, p) => sum + Math.max(0, p.to - p.from - 0.2), 0);
  const pace = spoken / (expected.reduce((sum, e) => sum + e, 0) || 1);
  const lengthCost = (seconds: number, line: number) => {
    const usual = pace * expected[line]!;
    if (seconds <= 0) return Infinity;
    const away = Math.log(seconds / usual) / (STRAY + STRAY_SECONDS / usual);
    return Math.min(DEAREST, (away * away) / 2);
  };
  interface Choice {
    gap: Pause;
    cost: number;
    before: Choice | null;
  }
  let choices: Choice[] = [{ gap: { from: speech.from, to: speech.from }, cost: 0, before: null }];
  for (const [i, seconds] of about.entries()) {
    const near = inner.filter((p) => p.to > seconds - AROUND && p.from < seconds + AROUND);
    const gaps = near.map((gap) => {
      const away = Math.max(0, gap.from - seconds, seconds - gap.to);
      const worth = Math.min(1, (gap.to - gap.from) / ENOUGH_PAUSE) * PAUSE_WORTH;
      return { gap, own: Math.min(FARTHEST, AWAY_COST * away) - worth };
    });
    gaps.push({ gap: { from: seconds, to: seconds }, own: NO_PAUSE_COST });
    choices = gaps.map(({ gap, own }) => {
      let best: Choice = { gap, cost: Infinity, before: choices[0] ?? null };
      for (const before of choices) {
        const cost = before.cost + own + lengthCost(gap.from - before.gap.to, i);
        if (cost < best.cost) best = { gap, cost, before };
      }
      return best;
    });
  }
  const last = lines.length - 1;
  let end: Choice | null = null;
  let least = Infinity;
  for (const choice of choices) {
    const cost = choice.cost + lengthCost(speech.to - choice.gap.to, last);
    if (cost < least || !end) [end, least] = [choice, cost];
  }
  const chosen: Pause[] = [];
  for (let choice = end; choice?.before; choice = choice.before) chosen.unshift(choice.gap);
  // Where nothing fitted, the order still holds.
  for (const [i, gap] of chosen.entries()) {
    const least = chosen[i - 1]?.to ?? speech.from;
    if (gap.from < least) chosen[i] = { from: least, to: Math.max(least, gap.to) };
  }
  return chosen;
}

/** Where speech begins and ends in the whole. */
function edgesOf(pauses: readonly Pause[], whole: number): { from: number; to: number } {
  const [first, last] = [pauses[0], pauses.at(-1)];
  return {
    from: first && first.from < 0.05 ? first.to : 0,
    to: last && last.to > whole - 0.05 ? last.from : whole
  };
}
