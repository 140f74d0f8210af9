import { env, InferenceSession, Tensor } from 'onnxruntime-web/wasm';
import { alignWords } from '$lib/core/audio/align/alignWords.ts';
import { CEPSTRA_RATE } from '$lib/core/audio/align/cepstra.ts';
import { PieceResampler } from '$lib/core/audio/resample.ts';
import { fromInt16 } from '$lib/core/audio/speech.ts';
import { batches, phonemeIds, type VoiceFile } from '$lib/core/narration/voiceFile.ts';
import type { EspeakEngine } from './espeak.ts';
import { finishSpeech } from './finish.ts';
import { SpeechError, type Speech } from './speech.ts';

/** A voice of the user's own, loaded. */
export interface OnnxVoice {
  /** @param speed 1 is the usual speed of the voice @throws SpeechError */
  say(spoken: string, speed: number): Promise<Speech>;
  close(): Promise<void>;
}

/** Tells the runtime where its program is, before the first voice is loaded. */
export function useRuntime(program: string | ArrayBuffer): void {
  // One thread: the workers that speak are the others.
  env.wasm.numThreads = 1;
  if (typeof program === 'string') env.wasm.wasmPaths = { wasm: program };
  else env.wasm.wasmBinary = program;
}

const pieces = new PieceResampler();

/**
 * Loads a voice in ONNX form.
 * @param espeak tells the phonemes it says, and helps to find its words
 * @throws where the network cannot be loaded
 */
export async function loadOnnxVoice(
  model: Uint8Array,
  file: VoiceFile,
  espeak: EspeakEngine
): Promise<OnnxVoice> {
  const session = await InferenceSession.create(model, { executionProviders: ['wasm'] });
  const { audio, inference, num_speakers: speakers } = file;
  const rate = audio.sample_rate;

  const run = async (phonemes: string, speed: number): Promise<Float32Array> => {
    const ids = phonemeIds(phonemes, file);
    const { noise_scale, length_scale, noise_w } = inference;
    const long = (values: number[], shape: number[]) =>
      new Tensor('int64', BigInt64Array.from(values, BigInt), shape);
    const fed: Record<string, Tensor> = {
      input: long(ids, [1, ids.length]),
      input_lengths: long([ids.length], [1]),
      scales: new Tensor('float32', [noise_scale, length_scale / speed, noise_w], [3])
    };
    if (speakers > 1) fed.sid = long([0], [1]);
    const told = await session.run(fed);
    const [output] = Object.values(told);
    if (!(output?.data instanceof Float32Array)) throw new Error('no sound');
    return output.data;
  };

  return {
    async say(spoken, speed) {
      const clauses = espeak.phonemes(spoken, file.espeak.voice);
      if (clauses.length === 0) throw new SpeechError('silent', spoken);
      const parts: Float32Array[] = [];
      try {
        for (const batch of batches(clauses)) parts.push(await run(batch, speed));
      } catch (error) {
        throw new SpeechError('engine-failed', spoken, String(error));
      }
      const all = new Float32Array(parts.reduce((sum, p) => sum + p.length, 0));
      let at = 0;
      for (const part of parts) {
        all.set(
          part.map((s) => Math.max(-1, Math.min(1, s))),
          at
        );
        at += part.length;
      }
      const speech = finishSpeech(all, rate, spoken);
      return { ...speech, words: await wordsOf(speech, spoken) };
    },
    close: () => session.release()
  };

  /** The network does not tell its words: eSpeak NG, which it has its phonemes from, does. */
  async function wordsOf({ samples }: Speech, spoken: string): Promise<number[]> {
    const said = await espeak.say(spoken, file.espeak.voice, 1).catch(() => null);
    if (!said) return [];
    const near = pieces.resample(fromInt16(samples), rate, CEPSTRA_RATE).slice();
    const voice = pieces.resample(fromInt16(said.samples), said.rate, CEPSTRA_RATE);
    return alignWords(near, [{ samples: voice, words: said.words }]).words;
  }
}
