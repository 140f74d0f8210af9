import type { Chapter } from '$lib/core/chapters/chapter.ts';
import type { Cue } from '$lib/core/captions/cue.ts';
import { spokenSeconds } from '$lib/core/narration/duration.ts';
import { captionsOf } from '$lib/core/narration/captions.ts';
import { narrationChapters } from '$lib/core/narration/chapters.ts';
import { FRAMES, type FrameName, type Resolution } from '$lib/core/narration/frames.ts';
import type { Measure } from '$lib/core/narration/fit.ts';
import { layOutScene, type SceneLayout } from '$lib/core/narration/layout.ts';
import type { Scene } from '$lib/core/narration/scenes.ts';
import type { Style } from '$lib/core/narration/styles.ts';
import {
  setInTime,
  type Pauses,
  type SpokenLine,
  type TimeLine
} from '$lib/core/narration/timeLine.ts';
import { getMedia } from '$lib/data/media.ts';
import { getSpeechOf } from '$lib/data/speech.ts';

/** What of a narration decides how its video looks and sounds. */
export interface Production {
  scenes: Scene[];
  frame: FrameName;
  resolution: Resolution;
  style: Style;
  pauses: Pauses;
  /** Name of the kept speech of each line, by line id; a line without is shown for as long as it would take. */
  speech: Map<string, string>;
  /** BCP 47, and the speed of the voice. */
  language: string;
  speed: number;
  /** Names of kept clips, or empty. */
  before: string;
  after: string;
  music: string;
  musicLevel: number;
}

/** A video as it is planned: the same for the preview and for the file. */
export interface Plan {
  /** As they are shown: a picture that is missing gives way to its words. */
  scenes: Scene[];
  layouts: SceneLayout[];
  /** Of the scenes alone: it begins after the clip in front. */
  timeLine: TimeLine;
  /** Seconds of the clips of the user's own, 0 where there is none. */
  before: number;
  after: number;
}

/** Seconds of the whole video, clips and all. */
export const lengthOf = ({ before, timeLine, after }: Plan): number =>
  before + timeLine.duration + after;

/** A picture that cannot be had is told in words. */
const withoutPicture = (scene: Scene): Scene =>
  scene.lines.length > 0
    ? { ...scene, kind: 'sentence', picture: null }
    : {
        ...scene,
        kind: 'sentence',
        lines: [
          { id: `${scene.id}-alt`, text: scene.picture?.alt || '…', spoken: '', source: null }
        ],
        picture: null
      };

/** Lays a video out in the frame and in time. */
export async function planVideo(
  production: Production,
  measure: Measure,
  hasPicture: (url: string) => boolean
): Promise<Plan> {
  const scenes = production.scenes.map((scene) =>
    scene.picture && !hasPicture(scene.picture.url) ? withoutPicture(scene) : scene
  );
  const frame = FRAMES[production.frame];
  const layouts = scenes.map((scene) => layOutScene(scene, frame, production.style, measure));
  const spoken = await readSpoken(scenes, production);
  const timeLine = setInTime(scenes, spoken, layouts, production.pauses);
  const [before, after] = [
    await clipSeconds(production.before),
    await clipSeconds(production.after)
  ];
  return { scenes, layouts, timeLine, before, after };
}

const clipSeconds = async (name: string): Promise<number> =>
  name ? ((await getMedia(name))?.seconds ?? 0) : 0;

async function readSpoken(
  scenes: readonly Scene[],
  { speech, language, speed }: Production
): Promise<Map<string, SpokenLine>> {
  const spoken = new Map<string, SpokenLine>();
  for (const scene of scenes) {
    const lines = scene.lines.filter((l) => l.spoken);
    if (scene.recording) {
      const seconds = (await getMedia(scene.recording))?.seconds ?? 0;
      // One recording for several lines: each has its share by its length.
      const letters = lines.reduce((sum, l) => sum + l.text.length, 0) || 1;
      for (const line of lines)
        spoken.set(line.id, { seconds: (seconds * line.text.length) / letters, words: [] });
      continue;
    }
    const keys = lines.map((l) => speech.get(l.id) ?? '');
    const kept = await getSpeechOf(keys);
    for (const [i, line] of lines.entries()) {
      const said = kept[i];
      spoken.set(line.id, {
        seconds: said ? said.seconds : spokenSeconds(line.spoken, language, speed),
        words: said?.words ?? []
      });
    }
  }
  return spoken;
}

/** Captions and chapters of a planned video, moved by the length of the clip in front of it. */
export function tracksOf(plan: Plan): { captions: Cue[]; chapters: Chapter[] } {
  const { before, scenes, timeLine } = plan;
  const captions = captionsOf(timeLine).map((cue) => ({
    ...cue,
    start: cue.start + before,
    end: cue.end + before
  }));
  const chapters = narrationChapters(scenes, timeLine).map((chapter, i) => ({
    ...chapter,
    start: i === 0 ? 0 : chapter.start + before
  }));
  return { captions, chapters };
}
