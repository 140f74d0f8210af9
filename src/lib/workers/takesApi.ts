import { v4 } from 'uuid';
import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import type { MediaProblem } from '$lib/core/narration/narration.ts';
import { keepSpeeches, secondsOf, TAKE } from '$lib/data/speech.ts';
import { keepSound, mediaProblem, readKeptSound, type KeptSound } from '$lib/video/ownMedia.ts';
import {
  cepstraOfRecording,
  findLines,
  referenceVoices,
  speechOfTake,
  type Take
} from '$lib/voice/readAloud.ts';
import { engineOf } from './engines.ts';

/** A sentence that was read by the user, as it is kept; null where nothing is heard. */
export type KeptTake = { key: string; seconds: number; isDoubtful: boolean } | null;

/** What became of a recording of several sentences. */
export type KeptRecording =
  { takes: KeptTake[]; problem: null } | { takes: []; problem: MediaProblem };

async function keepTake(take: Take, today: string, isDoubtful = false): Promise<KeptTake> {
  const knows = referenceVoices(take.language).length > 0;
  const read = await speechOfTake(take, knows ? await engineOf('espeak') : null);
  if (!read) return null;
  const key = `${TAKE}${v4()}`;
  await keepSpeeches(new Map([[key, read.speech]]), today);
  return { key, seconds: secondsOf(read.speech), isDoubtful: isDoubtful || read.isDoubtful };
}

/** Seconds in front of a line from which its noise is known. */
const LEAD = 0.5;

/** Part of a kept sound as one channel. */
async function readMono(kept: KeptSound, from: number, count: number): Promise<Float32Array> {
  const [one, other] = await readKeptSound(kept, from, count);
  if (!one) return new Float32Array();
  return other ? one.map((s, i) => (s + other[i]!) / 2) : one;
}

/** What the user reads instead of the voice. */
export const takesApi = {
  /** Keeps a sentence that the user read aloud. */
  keepTake: (take: Take, today: string): Promise<KeptTake> => keepTake(take, today),

  /**
   * Finds sentences in a recording of all of them and keeps each.
   * @param told given a share of the work, between 0 and 1; ends the work by failing
   */
  async keepRecording(
    file: Blob,
    spoken: string[],
    { language, isDenoised }: Pick<Take, 'language' | 'isDenoised'>,
    today: string,
    told: (share: number) => void | Promise<void>
  ): Promise<KeptRecording> {
    if (referenceVoices(language).length === 0)
      return { takes: [], problem: { kind: 'no-voice', language } };
    try {
      const kept = await keepSound(file);
      const length = Math.floor(kept.blob.size / (2 * kept.channels));
      await told(0.1);
      const recording = await cepstraOfRecording((at, n) => readMono(kept, at, n), length);
      const espeak = await engineOf('espeak');
      const found = await findLines(recording, spoken, language, espeak, (share) =>
        told(0.2 + 0.3 * share)
      );
      const takes: KeptTake[] = [];
      for (const [i, { from, to, isDoubtful }] of found.entries()) {
        const start = Math.round(from * SAMPLE_RATE);
        const lead = Math.min(start, Math.round(LEAD * SAMPLE_RATE));
        const count = Math.round(to * SAMPLE_RATE) - start + lead;
        const samples = await readMono(kept, start - lead, count);
        const take = { samples, spoken: spoken[i] ?? '', language, isDenoised, lead };
        takes.push(await keepTake(take, today, isDoubtful));
        await told(0.5 + (0.5 * (i + 1)) / found.length);
      }
      return { takes, problem: null };
    } catch (error) {
      return { takes: [], problem: mediaProblem(error) };
    }
  }
};

export type TakesApi = typeof takesApi;
