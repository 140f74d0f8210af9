import { readVoiceFile, type VoiceFileProblem } from '$lib/core/narration/voiceFile.ts';
import type { EngineName, OwnVoice, VoiceChoice } from '$lib/core/narration/voices.ts';
import { speechKey } from '$lib/core/model/ids.ts';
import { findSpeech, keepSpeech } from '$lib/data/speech.ts';
import { inTone } from '$lib/voice/tone.ts';
import { SpeechError, type SpeechProblem } from '$lib/voice/speech.ts';
import { engineOf, loadVoice } from './engines.ts';
import { takesApi } from './takesApi.ts';

export type Said =
  | { key: string; seconds: number; problem: null }
  | { key: string; seconds: 0; problem: SpeechProblem };

/** What a voice says when it is tried; every language has these figures. */
const TRIED = '1, 2, 3, 4, 5, 6, 7, 8, 9, 10.';

export const voiceApi = {
  ...takesApi,

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

  ready: (engine: EngineName): Promise<void> =>
    engineOf(engine).then(
      () => {},
      () => {}
    ),

  /** Says a sentence and keeps it, or finds it kept. */
  async say(spoken: string, choice: VoiceChoice, today: string): Promise<Said> {
    const { engine, voice, speed, tone = 'plain' } = choice;
    const key = speechKey(choice, spoken);
    const kept = await findSpeech(key, today);
    if (kept) return { key, seconds: kept.seconds, problem: null };
    try {
      const plain = await (await engineOf(engine)).say(spoken, voice, speed);
      const said = inTone(plain, engine, voice, tone);
      const { seconds } = await keepSpeech(key, said, today);
      return { key, seconds, problem: null };
    } catch (error) {
      const problem = error instanceof SpeechError ? error.kind : 'engine-failed';
      return { key, seconds: 0, problem };
    }
  }
};

export type VoiceApi = typeof voiceApi;
