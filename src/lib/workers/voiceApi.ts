import { readVoiceFile, type VoiceFileProblem } from '$lib/core/narration/voiceFile.ts';
import type { EngineName, OwnVoice, VoiceChoice } from '$lib/core/narration/voices.ts';
import { speechKey } from '$lib/core/model/ids.ts';
import { findAllSpeech, keepSpeeches, secondsOf } from '$lib/data/speech.ts';
import type { WordSounds } from '$lib/voice/flite.ts';
import { inTone } from '$lib/voice/tone.ts';
import { SpeechError, type Speech, type SpeechProblem } from '$lib/voice/speech.ts';
import { engineOf, loadVoice, programOfFlite, useFlite } from './engines.ts';

export type Said =
  | { key: string; seconds: number; problem: null }
  | { key: string; seconds: 0; problem: SpeechProblem };

/** What a voice says when it is tried; every language has these figures. */
const TRIED = '1, 2, 3, 4, 5, 6, 7, 8, 9, 10.';

let lastTurn: Promise<unknown> = Promise.resolve();

/**
 * Nothing is said while sentences are being kept: an engine keeps the thread busy, and a transaction that
 * waits for it would hold up those of every other worker.
 */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const done = lastTurn.then(work);
  lastTurn = done.catch(() => {});
  return done;
}

export const voiceApi = {
  /**
   * Loads a voice file and lets it speak.
   * @param settings the text of its JSON file
   */
  async tryVoice(
    model: Blob,
    settings: string
  ): Promise<
    | { voice: Pick<OwnVoice, 'file' | 'pace'>; problem: null }
    | { voice: null; problem: VoiceFileProblem }
  > {
    const { file, problem } = readVoiceFile(settings);
    if (!file) return { voice: null, problem };
    try {
      const voice = await loadVoice(model, file);
      try {
        // The first time, programs are still being made ready.
        await voice.say(TRIED, 1);
        const began = performance.now();
        const { samples, rate } = await voice.say(TRIED, 1);
        const took = (performance.now() - began) / 1000;
        return { voice: { file, pace: samples.length / rate / took }, problem: null };
      } finally {
        await voice.close();
      }
    } catch {
      return { voice: null, problem: 'bad-model' };
    }
  },

  /** Has an engine loaded. One that cannot be loaded says so when it is to speak. */
  async ready(engine: EngineName): Promise<void> {
    await engineOf(engine).catch(() => {});
  },

  programOfFlite,
  useFlite,

  learn: async (words: readonly string[], voice: string): Promise<WordSounds> =>
    (await engineOf('flite')).learn(words, voice),

  know: async (sounds: WordSounds, voice: string): Promise<void> =>
    (await engineOf('flite')).know(sounds, voice),

  /**
   * Says some sentences, but for those that are kept, and keeps them together.
   * @returns what became of each, in their order
   */
  say: (spoken: readonly string[], choice: VoiceChoice, today: string): Promise<Said[]> =>
    inTurn(async () => {
      const results: Said[] = [];
      const kept = new Map<string, Speech>();
      // Said a moment ago for somebody else.
      const known = await findAllSpeech(
        spoken.map((text) => speechKey(choice, text)),
        today
      );
      for (const text of spoken) {
        const key = speechKey(choice, text);
        const seconds = known.get(key);
        if (seconds !== undefined) {
          results.push({ key, seconds, problem: null });
          continue;
        }
        try {
          const speech = await say(text, choice);
          kept.set(key, speech);
          results.push({ key, seconds: secondsOf(speech), problem: null });
        } catch (error) {
          const problem = error instanceof SpeechError ? error.kind : 'engine-failed';
          results.push({ key, seconds: 0, problem });
        }
      }
      if (kept.size > 0) await keepSpeeches(kept, today);
      return results;
    })
};

async function say(text: string, { engine, voice, speed, tone = 'plain' }: VoiceChoice) {
  const plain = await (await engineOf(engine)).say(text, voice, speed);
  return inTone(plain, engine, voice, tone);
}

export type VoiceApi = typeof voiceApi;
