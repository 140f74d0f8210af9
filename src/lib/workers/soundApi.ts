import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { makeBed, type BedName } from '$lib/core/audio/synth/beds.ts';
import { interleave } from '$lib/core/audio/wav.ts';
import { getMedia, saveMedia } from '$lib/data/media.ts';
import { encodeSound, type Encoding } from '$lib/video/encode.ts';
import { finishSound, type SoundPlan } from '$lib/video/soundOf.ts';
import { writeWav } from '$lib/video/wavFile.ts';
import { Stop } from '$lib/video/stop.ts';

const stop = new Stop();
/** Milliseconds between two reports. */
const TELL_EVERY = 250;

export const soundApi = {
  /** Mixes and levels the sound of a video and encodes it into a file of its own. */
  async encode(
    plan: SoundPlan,
    names: { scratch: string; file: string },
    encoding: Encoding,
    told: (seconds: number) => void
  ): Promise<void> {
    stop.reset();
    let reportedAt = 0;
    const goOn = (at: number) => {
      stop.check();
      if (performance.now() - reportedAt < TELL_EVERY) return;
      reportedAt = performance.now();
      told(at);
    };
    const sound = await finishSound(plan, names.scratch, (at) => goOn(at / 2));
    try {
      const { channels } = sound;
      const { seconds } = plan;
      await encodeSound(names.file, { channels, blocks: sound.blocks(), seconds }, encoding, (at) =>
        goOn((seconds + at) / 2)
      );
    } finally {
      sound.close();
    }
  },

  /** The same as a WAV file. */
  async wav(plan: SoundPlan, names: { scratch: string; file: string }): Promise<void> {
    stop.reset();
    const sound = await finishSound(plan, names.scratch, () => stop.check());
    try {
      await writeWav(names.file, sound, plan.seconds);
    } finally {
      sound.close();
    }
  },

  /** Started before it is needed. */
  ready: (): void => {},

  /** Makes a bed of music and keeps it as a sound like those of the user's own. @returns its name */
  async makeBed(bed: BedName, title: string): Promise<string> {
    const id = `bed:${bed}`;
    if (await getMedia(id)) return id;
    const sides = makeBed(bed);
    const seconds = sides[0].length / SAMPLE_RATE;
    await saveMedia({ id, name: title, blob: new Blob([interleave(sides)]), seconds, channels: 2 });
    return id;
  },

  stop: () => stop.ask()
};

export type SoundApi = typeof soundApi;
