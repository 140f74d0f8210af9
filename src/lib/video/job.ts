import type { Chapter } from '$lib/core/chapters/chapter.ts';
import type { WordTimedCue } from '$lib/core/captions/webvtt.ts';
import { spokenSeconds } from '$lib/core/narration/duration.ts';
import { captionsOf } from '$lib/core/narration/captions.ts';
import { narrationChapters } from '$lib/core/narration/chapters.ts';
import { FRAMES, type FrameName, type Resolution } from '$lib/core/narration/frames.ts';
import type { Measure } from '$lib/core/narration/fit.ts';
import { layOutScene } from '$lib/core/narration/layout/layOut.ts';
import type { SceneLayout } from '$lib/core/narration/layout/mark.ts';
import { lightsOf, type Light } from '$lib/core/narration/layout/wordLights.ts';
import type { ScenePlan } from '$lib/core/narration/moment.ts';
import type { SpokenLine } from '$lib/core/narration/line.ts';
import type { Scene } from '$lib/core/narration/scenes.ts';
import { soundCues, type SoundCue } from '$lib/core/narration/soundCues.ts';
import type { Style } from '$lib/core/narration/styles.ts';
import { setToLength, type Pauses, type TimeLine } from '$lib/core/narration/timeLine.ts';
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
  /** Seconds that were asked for, or null. */
  target: number | null;
  /** BCP 47, and the speed of the voice. */
  language: string;
  speed: number;
  /** Names of kept clips, or empty. */
  before: string;
  after: string;
  music: string;
  musicLevel: number;
  /** Whether short sounds come with the scenes. */
  sounds: boolean;
}

/** A video as it is planned: the same for the preview and for the file. */
export interface Plan {
  /** As they are shown: a picture that is missing gives way to its words. */
  scenes: Scene[];
  layouts: SceneLayout[];
  /** Words that light up as they are said, by scene. */
  lights: Light[][];
  /** Of the scenes alone: it begins after the clip in front. */
  timeLine: TimeLine;
  /** Short sounds, in seconds of the time line. */
  sounds: SoundCue[];
  /** Seconds of the clips of the user's own, 0 where there is none. */
  before: number;
  after: number;
}

/** What is seen in a scene of a plan. */
export const scenePlan = ({ layouts, timeLine, lights }: Plan, index: number): ScenePlan | null => {
  const [layout, timed] = [layouts[index], timeLine.scenes[index]];
  return layout && timed ? { layout, timed, lights: lights[index] ?? [] } : null;
};

/** Seconds of the whole video, clips and all. */
export const lengthOf = ({ before, timeLine, after }: Plan): number =>
  before + timeLine.duration + after;

/** A picture that cannot be had is told in words. */
const withoutPicture = (scene: Scene): Scene =>
  scene.lines.length > 0
    ? { ...scene, kind: 'statement', picture: null, second: null }
    : {
        ...scene,
        kind: 'statement',
        lines: [
          { id: `${scene.id}-alt`, text: scene.picture?.alt || '…', spoken: '', source: null }
        ],
        picture: null,
        second: null
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
  const { style } = production;
  // Who speaks is shown on the first card after the title.
  const speaker = style.lowerThird.name ? scenes.findIndex((s) => s.kind !== 'title') : -1;
  const layouts = scenes.map((scene, i) =>
    layOutScene(scene, frame, style, measure, i === speaker)
  );
  const spoken = await readSpoken(scenes, production);
  const timeLine = setToLength(scenes, spoken, layouts, production.pauses, production.target);
  const [before, after] = [
    await clipSeconds(production.before),
    await clipSeconds(production.after)
  ];
  const lights = timeLine.scenes.map(({ lines }) =>
    style.wordLights ? lines.flatMap((line) => lightsOf(line, frame, style, measure)) : []
  );
  const sounds = production.sounds ? soundCues(scenes, timeLine) : [];
  return { scenes, layouts, lights, timeLine, sounds, before, after };
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
export function tracksOf(plan: Plan): { captions: WordTimedCue[]; chapters: Chapter[] } {
  const { before, scenes, timeLine } = plan;
  const captions = captionsOf(timeLine).map((cue) => ({
    ...cue,
    start: cue.start + before,
    end: cue.end + before,
    words: cue.words.map((t) => t + before)
  }));
  const chapters = narrationChapters(scenes, timeLine).map((chapter, i) => ({
    ...chapter,
    start: i === 0 ? 0 : chapter.start + before
  }));
  return { captions, chapters };
}
