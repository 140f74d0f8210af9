import type { SceneLayout } from './layout/mark.ts';
import { BREATH, LEAD, MIN_CAPTION, READABLE, TAIL, type SpokenLine } from './line.ts';
import { isHeading, type Scene } from './scenes.ts';
import { wordTimes } from './wordTimes.ts';

export interface Pauses {
  /** Seconds between two sentences, and before a part or after a heading. */
  sentence: number;
  part: number;
}
export const USUAL_PAUSES: Pauses = { sentence: 0.35, part: 0.7 };

export interface TimedLine {
  id: string;
  text: string;
  start: number;
  end: number;
  /** When each of its words begins, in seconds of the video. */
  words: number[];
}

export interface TimedScene {
  id: string;
  kind: Scene['kind'];
  start: number;
  end: number;
  lines: TimedLine[];
  /** When what is shown changes, the first at `start`; seconds, in the order of the layout's stages. */
  stages: number[];
}

/** The whole video in seconds. Scenes follow each other without gaps. */
export interface TimeLine {
  duration: number;
  scenes: TimedScene[];
}

/** The least that any card stays. */
const MIN_SCENE = 1.2;
const CAPTION_GAP = 0.04;

/**
 * Scenes and what is said in them, set in time.
 * @param spoken how long each line takes, by line id; a line without a voice is only shown
 * @param layouts one for each scene
 */
export function setInTime(
  scenes: readonly Scene[],
  spoken: ReadonlyMap<string, SpokenLine>,
  layouts: readonly SceneLayout[],
  pauses: Pauses = USUAL_PAUSES
): TimeLine {
  const timed: TimedScene[] = [];
  let at = 0;
  for (const [index, scene] of scenes.entries()) {
    const start = at;
    const isFirst = index === 0;
    const lines: TimedLine[] = [];
    // A heading, a title and a picture are seen a moment before they are spoken of.
    at += isFirst ? LEAD : isSeenFirst(scene) ? pauses.part / 2 : 0;
    for (const line of scene.lines) {
      const said = line.spoken ? spoken.get(line.id) : undefined;
      if (!said) continue;
      const end = at + said.seconds;
      const from = at;
      const words = wordTimes(line, said).map((seconds) => from + seconds);
      lines.push({ id: line.id, text: line.text, start: at, end, words });
      // Not before a reader of the captions has had the time for them.
      const read = at + Math.max(MIN_CAPTION, line.text.length / READABLE) + CAPTION_GAP;
      const isItem = scene.kind === 'list' || scene.kind === 'steps';
      const pause = isItem ? pauses.sentence * 1.3 : pauses.sentence;
      // A recording runs on: there are no pauses between its lines.
      const runsOn = scene.recording !== '' && line !== scene.lines.findLast((l) => l.spoken);
      at = runsOn ? end : Math.max(end + pause, read);
    }
    const isLast = index === scenes.length - 1;
    const next = scenes[index + 1];
    const turns = scene.kind === 'title' || isHeading(scene) || (next && isHeading(next));
    // Whoever reads takes a breath between two paragraphs.
    if (lines.length > 0 && next && !turns && isNewParagraph(scene, next))
      at += pauses.sentence * BREATH;
    if (lines.length > 0) at += turns ? Math.max(0, pauses.part - pauses.sentence) : 0;
    at += scene.hold + (isLast ? TAIL : 0);
    at = Math.max(
      at,
      start + (lines.length > 0 ? MIN_SCENE : Math.max(MIN_SCENE, readingTime(scene)))
    );
    const layout = layouts[index];
    timed.push({
      id: scene.id,
      kind: scene.kind,
      start,
      end: at,
      lines,
      stages: stageTimes(scene, layout, lines, start, at)
    });
  }
  return { duration: at, scenes: timed };
}

function isNewParagraph(scene: Scene, next: Scene): boolean {
  const [last, first] = [scene.lines.at(-1)?.source, next.lines[0]?.source];
  return Boolean(last && first && last.block !== first.block);
}

const isSeenFirst = (scene: Scene): boolean => isHeading(scene) || scene.kind === 'picture';

/** Of a length asked for: how near is near enough, and from where pauses alone can bring it there. */
const NEAR_TARGET = 0.02;
const REACH = 0.18;
/** Shares of the usual pauses that speech still sounds well with. */
const [SHORTEST, LONGEST] = [0.5, 2.4];

/**
 * The same, brought to a length that was asked for by shorter or longer pauses, where they can bring it
 * there. Speech takes a little more or less time than it was reckoned with.
 * @param target seconds, or null
 */
export function setToLength(
  scenes: readonly Scene[],
  spoken: ReadonlyMap<string, SpokenLine>,
  layouts: readonly SceneLayout[],
  pauses: Pauses,
  target: number | null
): TimeLine {
  const at = (share: number) =>
    setInTime(scenes, spoken, layouts, {
      sentence: pauses.sentence * share,
      part: pauses.part * share
    });
  let best = at(1);
  if (target === null || Math.abs(best.duration - target) > REACH * target) return best;
  let [low, high] = [SHORTEST, LONGEST];
  for (
    let round = 0;
    round < 6 && Math.abs(best.duration - target) > NEAR_TARGET * target;
    round++
  ) {
    const middle = (low + high) / 2;
    const tried = at(middle);
    if (tried.duration < target) low = middle;
    else high = middle;
    if (Math.abs(tried.duration - target) < Math.abs(best.duration - target)) best = tried;
  }
  return best;
}

/** Seconds to read a card that nobody reads out. */
const readingTime = (scene: Scene): number =>
  scene.lines.reduce((sum, l) => sum + l.text.length, 0) / READABLE;

function stageTimes(
  scene: Scene,
  layout: SceneLayout | undefined,
  lines: readonly TimedLine[],
  start: number,
  end: number
): number[] {
  let last = start;
  return (layout?.stages ?? []).map((stage, i) => {
    if (i === 0) return start;
    const line = lines.find((l) => l.id === scene.lines[stage.line]?.id);
    const time = line
      ? line.start + (line.end - line.start) * stage.share
      : start + ((end - start) * i) / (layout?.stages.length ?? 1);
    last = Math.min(end, Math.max(last, time));
    return last;
  });
}

/** Which scene and which of its stages is shown at a moment. */
export function shownAt(line: TimeLine, seconds: number): { scene: number; stage: number } {
  let [low, high] = [0, line.scenes.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((line.scenes[middle]?.start ?? 0) <= seconds) low = middle;
    else high = middle - 1;
  }
  const stages = line.scenes[low]?.stages ?? [];
  return {
    scene: low,
    stage: Math.max(
      0,
      stages.findLastIndex((t) => t <= seconds)
    )
  };
}
