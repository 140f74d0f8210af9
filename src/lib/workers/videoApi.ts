import { proxy } from 'comlink';
import { writeWebVtt } from '$lib/core/captions/webvtt.ts';
import type { Chapter } from '$lib/core/chapters/chapter.ts';
import { FRAMES, frameOfShape, pixelsOf } from '$lib/core/narration/frames.ts';
import { layOutScene } from '$lib/core/narration/layout/layOut.ts';
import type { MediaProblem, RenderProblem } from '$lib/core/narration/narration.ts';
import { tellsOfNoRoom } from '$lib/core/model/room.ts';
import type { Format } from '$lib/core/narration/look.ts';
import { picturesIn, sceneSchema } from '$lib/core/narration/scenes.ts';
import type { Style } from '$lib/core/narration/styles.ts';
import { getMedia, mediaIds, saveMedia } from '$lib/data/media.ts';
import { canvasMeasure } from '$lib/video/canvasMeasure.ts';
import {
  encodeClip,
  encodePart,
  mux,
  possibleEncodings,
  type Encoding
} from '$lib/video/encode.ts';
import { readFile, removeOthers } from '$lib/video/files.ts';
import { FramePainter } from '$lib/video/framePainter.ts';
import { loadOwnFont, loadWorkerFonts } from '$lib/video/fonts.ts';
import {
  lengthOf,
  planVideo,
  scenePlan,
  tracksOf,
  type Plan,
  type Production
} from '$lib/video/job.ts';
import {
  examineClip,
  examineFilm,
  type ExaminedFilm,
  keepSound,
  MediaError,
  mediaProblem
} from '$lib/video/ownMedia.ts';
import { paintStill } from '$lib/video/paint.ts';
import { partName } from '$lib/video/partFile.ts';
import { planParts } from '$lib/video/parts.ts';
import { readPictures } from '$lib/video/pictures.ts';
import { soundWorker } from './sound.ts';
import { Stop } from '$lib/video/stop.ts';
import { together } from '$lib/video/together.ts';

export interface Rendered {
  file: string;
  bytes: number;
  seconds: number;
  width: number;
  height: number;
  audio: Encoding['audio'];
  captions: string;
  chapters: Chapter[];
}

export interface RenderJob extends Production {
  /** The post; names of files begin with it. */
  id: string;
  format: Format;
  /** Name of the finished file, and of files of this post that must not go. */
  file: string;
  kept: string[];
  tags: { title: string; comment: string; language: string };
}

/** Parts that are encoded at a time: one is painted while the other waits for its encoder. */
const AT_ONCE = 2;
const stop = new Stop();
/** Milliseconds between two reports. */
const TELL_EVERY = 250;

function problemOf(error: unknown): RenderProblem {
  if (error instanceof Error && error.name === 'Stopped') return { kind: 'stopped' };
  if (error instanceof MediaError) return { kind: 'media', problem: error.problem };
  if (error instanceof Error && tellsOfNoRoom(`${error.name} ${error.message}`))
    return { kind: 'disk-full' };
  return { kind: 'broken', detail: error instanceof Error ? error.message : String(error) };
}

const canvas = new OffscreenCanvas(16, 16);
const context = canvas.getContext('2d');
const measure = context ? canvasMeasure(context) : () => 0;
async function fonts({ font }: Style): Promise<void> {
  const { fonts: set } = self as unknown as { fonts: FontFaceSet };
  await loadWorkerFonts(set);
  if (font) await loadOwnFont(set, font);
}

async function plan(production: Production): Promise<Plan> {
  await fonts(production.style);
  const urls = new Set(await mediaIds());
  return planVideo(production, measure, (url) => urls.has(url));
}

const picturesOf = (job: Production) =>
  readPictures([...picturesIn(job.scenes), ...(job.style.mark ? [job.style.mark] : [])]);

/** A clip before or after, with its sound decoded once and kept. */
async function clipOf(name: string) {
  const kept = name ? await getMedia(name) : undefined;
  if (!kept) return null;
  const seconds = kept.seconds ?? (await examineClip(kept.blob));
  // The plan, the preview and the captions go by the same length.
  if (kept.seconds === null) await saveMedia({ ...kept, seconds });
  const sound = `${name}:sound`;
  if (!(await getMedia(sound))) {
    try {
      const decoded = await keepSound(kept.blob);
      await saveMedia({ id: sound, name: kept.name, ...decoded });
    } catch (error) {
      if (!(error instanceof MediaError && error.problem.kind === 'no-sound')) throw error;
    }
  }
  return { name, blob: kept.blob, seconds, sound };
}

async function make(
  job: RenderJob,
  report: (share: number, step: 'sound' | 'frames' | 'file') => void
): Promise<Rendered> {
  const encodings = await possibleEncodings(pixelsOf(job.frame, job.resolution));
  if (encodings.length === 0) throw new NoEncoder({ kind: 'no-webcodecs' });
  const encoding = encodings.find((e) => e.format === job.format);
  if (!encoding) throw new NoEncoder({ kind: 'no-such-format', format: job.format });
  const [before, after] = [await clipOf(job.before), await clipOf(job.after)];
  const [planned, pictures] = [await plan(job), await picturesOf(job)];
  const offset = planned.before;
  const { duration } = planned.timeLine;
  const seconds = lengthOf(planned);

  let [soundTo, encodedTo, muxedTo, reportedAt] = [0, 0, 0, 0];
  const tell = () => {
    stop.check();
    // A page that draws progress takes time from the work itself.
    if (performance.now() - reportedAt < TELL_EVERY) return;
    reportedAt = performance.now();
    const share = (soundTo * 0.4 + encodedTo * 0.5 + muxedTo * 0.1) / Math.max(1, seconds);
    report(Math.min(0.999, share), muxedTo > 0 ? 'file' : encodedTo > 0 ? 'frames' : 'sound');
  };
  const soundPlan = {
    scenes: planned.scenes,
    timeLine: planned.timeLine,
    speech: job.speech,
    offset,
    seconds,
    music: job.music,
    musicLevel: job.musicLevel,
    sounds: planned.sounds,
    clips: [
      ...(before ? [{ sound: before.sound, at: 0, seconds: before.seconds }] : []),
      ...(after ? [{ sound: after.sound, at: offset + duration, seconds: after.seconds }] : [])
    ]
  };
  const isFinished = async (name: string) => (await readFile(name)) !== null;

  const parts: { name: string; start: number }[] = [];
  const encodeAll = async () => {
    const addClip = async (clip: typeof before, start: number) => {
      if (!clip) return;
      const name = await partName(job.id, { clip: clip.name, encoding });
      parts.push({ name, start });
      if (!(await isFinished(name)))
        await encodeClip(name, clip.blob, encoding, (share) => {
          encodedTo = start + share * clip.seconds;
          tell();
        });
    };
    await addClip(before, 0);
    const plans = planned.scenes.flatMap((_, i) => scenePlan(planned, i) ?? []);
    const waiting = planParts(plans);
    const scale = encoding.width / FRAMES[job.frame].width;
    const { name: look, motion } = job.style;
    const work = async () => {
      const { width, height } = encoding;
      const painter = await FramePainter.create(width, height, pictures, scale);
      for (let part = waiting.shift(); part; part = waiting.shift()) {
        const { scenes, seconds } = part;
        const name = await partName(job.id, { scenes, look, motion, encoding });
        parts.push({ name, start: offset + part.start });
        if (!(await isFinished(name))) {
          let told = 0;
          await encodePart(name, part, job.style, encoding, painter, (at) => {
            encodedTo += at - told;
            told = at;
            tell();
          });
          encodedTo -= told;
        }
        encodedTo += seconds;
        tell();
      }
    };
    encodedTo = offset;
    await together(
      Array.from({ length: AT_ONCE }, () => work),
      () => stop.ask()
    );
    await addClip(after, offset + duration);
    encodedTo = seconds;
  };
  const soundName = await partName(job.id, { ...soundPlan, speech: [...job.speech], encoding });
  const encodeAllSound = async () => {
    if (await isFinished(soundName)) return;
    await soundWorker().encode(
      soundPlan,
      { scratch: `${job.id}-sound`, file: soundName },
      encoding,
      proxy((at) => {
        soundTo = at;
        if (!stop.isAsked) tell();
      })
    );
  };
  // Sound is reckoned in a worker of its own while pictures are encoded here.
  await together([encodeAllSound, encodeAll], () => {
    stop.ask();
    void soundWorker().stop();
  });
  soundTo = seconds;
  const { file } = job;
  const { captions, chapters } = tracksOf(planned);
  await mux({
    name: file,
    encoding,
    // Two are made at a time, and either may be the first.
    parts: parts.toSorted((a, b) => a.start - b.start),
    sound: soundName,
    tags: job.tags,
    chapters,
    seconds,
    goOn: (at) => {
      muxedTo = Math.max(muxedTo, at);
      tell();
    }
  });
  // Parts of earlier versions are of no use any more.
  await removeOthers(job.id, [...parts.map((p) => p.name), soundName, file, ...job.kept]);
  for (const picture of pictures.values()) picture.close();
  return {
    file,
    seconds,
    width: encoding.width,
    height: encoding.height,
    audio: encoding.audio,
    chapters,
    bytes: (await readFile(file))?.size ?? 0,
    captions: writeWebVtt(captions)
  };
}

class NoEncoder extends Error {
  constructor(readonly problem: RenderProblem) {
    super(problem.kind);
  }
}

export const videoApi = {
  /** Started before it is needed, with the worker within it. */
  ready: (): void => void soundWorker().ready(),

  /** How a video would look and run; the very layouts and times that are rendered. */
  plan,

  /** What this browser can write, at the size that is asked for. */
  encodings: ({ frame, resolution }: Pick<Production, 'frame' | 'resolution'>) =>
    possibleEncodings(pixelsOf(frame, resolution)),

  async render(
    job: RenderJob,
    report: (share: number, step: 'sound' | 'frames' | 'file') => void
  ): Promise<{ rendered: Rendered; problem: null } | { rendered: null; problem: RenderProblem }> {
    stop.reset();
    try {
      return { rendered: await make(job, report), problem: null };
    } catch (error) {
      return {
        rendered: null,
        problem: error instanceof NoEncoder ? error.problem : problemOf(error)
      };
    }
  },

  stop(): void {
    stop.ask();
    void soundWorker().stop();
  },

  /** One card as a PNG file. */
  async card(production: Production, scene: number): Promise<Blob> {
    const { width, height } = FRAMES[production.frame];
    const planned = await plan({
      ...production,
      scenes: production.scenes.slice(scene, scene + 1)
    });
    const drawn = new OffscreenCanvas(width, height);
    const surface = drawn.getContext('2d', { alpha: false });
    const marks = planned.layouts[0]?.stages.at(-1)?.marks ?? [];
    if (surface) paintStill(surface, marks, await picturesOf(production));
    return drawn.convertToBlob({ type: 'image/png' });
  },

  /**
   * A quotation as a picture (PNG), drawn as the cards of videos are.
   * @param shape width over height
   */
  async quotation(text: string, by: string, shape: number, style: Style): Promise<Blob> {
    await fonts(style);
    const frame = frameOfShape(shape);
    const line = { id: 'quote', text, spoken: '', source: null };
    const scene = sceneSchema.parse({ id: 'quote', kind: 'quote', lines: [line], small: by });
    const marks = layOutScene(scene, frame, style, measure).stages.at(-1)?.marks ?? [];
    const drawn = new OffscreenCanvas(frame.width, frame.height);
    const surface = drawn.getContext('2d', { alpha: false });
    if (surface) paintStill(surface, marks, await readPictures(style.mark ? [style.mark] : []));
    return drawn.convertToBlob({ type: 'image/png' });
  },

  /** The finished sound as a WAV file of the browser's own. */
  async wav(job: RenderJob): Promise<string> {
    const { scenes, timeLine, sounds } = await plan(job);
    const { speech, music, musicLevel } = job;
    const name = `${job.id}-sound.wav`;
    await soundWorker().wav(
      {
        scenes,
        timeLine,
        speech,
        music,
        musicLevel,
        sounds,
        offset: 0,
        clips: [],
        seconds: timeLine.duration
      },
      { scratch: `${job.id}-sound`, file: name }
    );
    return name;
  },

  /** Takes a sound of the user's own, decoded once. */
  async importSound(
    id: string,
    name: string,
    blob: Blob
  ): Promise<{ problem: MediaProblem | null }> {
    try {
      const kept = await keepSound(blob);
      await saveMedia({ id, name, ...kept });
      return { problem: null };
    } catch (error) {
      return { problem: mediaProblem(error) };
    }
  },

  /** Looks at a film that is to be uploaded as it is. */
  async examineFilm(
    blob: Blob
  ): Promise<{ film: ExaminedFilm; problem: null } | { film: null; problem: MediaProblem }> {
    try {
      return { film: await examineFilm(blob), problem: null };
    } catch (error) {
      return { film: null, problem: mediaProblem(error) };
    }
  },

  /** Takes a clip of the user's own. */
  async importClip(
    id: string,
    name: string,
    blob: Blob
  ): Promise<{ problem: MediaProblem | null }> {
    try {
      const seconds = await examineClip(blob);
      await saveMedia({ id, name, blob, seconds });
      return { problem: null };
    } catch (error) {
      return { problem: mediaProblem(error) };
    }
  }
};

export type VideoApi = typeof videoApi;
