import { wrap, type Remote } from 'comlink';
import type { VoiceChoice } from '$lib/core/narration/voices.ts';
import { speechKey } from '$lib/core/model/ids.ts';
import { findAllSpeech } from '$lib/data/speech.ts';
import type { Said, VoiceWorker } from './voice.worker.ts';

/** Two sentences are said at a time. */
const AT_ONCE = 2;
let started: { worker: Worker; remote: Remote<VoiceWorker> }[] = [];

function voiceWorker(n: number): Remote<VoiceWorker> {
  const known = started[n];
  if (known) return known.remote;
  const worker = new Worker(new URL('./voice.worker.ts', import.meta.url), {
    type: 'module',
    name: `voice ${n}`
  });
  const remote = wrap<VoiceWorker>(worker);
  started[n] = { worker, remote };
  return remote;
}

/** Gives back what the engines hold, unless one of them is speaking. They start anew when needed. */
export function restVoices(): void {
  if (underWay.size > 0) return;
  for (const { worker } of started) worker.terminate();
  started = [];
}

/** Has an engine loaded before the first sentence. */
export function readyVoices(engine: VoiceChoice['engine']): void {
  for (let n = 0; n < AT_ONCE; n++) void voiceWorker(n).ready(engine);
}

/** What is being said just now, so that no sentence is said twice at a time. */
const underWay = new Map<string, Promise<Said>>();

function say(n: number, heard: string, voice: VoiceChoice, today: string): Promise<Said> {
  const name = JSON.stringify([voice.engine, voice.voice, voice.speed, heard]);
  let said = underWay.get(name);
  if (!said) {
    said = voiceWorker(n)
      .say(heard, { ...voice }, today)
      .finally(() => underWay.delete(name));
    underWay.set(name, said);
  }
  return said;
}

/**
 * Says sentences, those first that come first.
 * @param told called after each with how many are done
 * @returns what became of each, in their order
 */
export async function sayAll(
  heard: readonly string[],
  voice: VoiceChoice,
  signal: AbortSignal,
  told: (done: number) => void = () => {}
): Promise<Said[]> {
  const today = new Date().toISOString().slice(0, 10);
  const said: Said[] = [];
  const keys = heard.map((h) => speechKey(voice.engine, voice.voice, voice.speed, h));
  // What is kept needs no voice, and no worker to be started for it.
  const kept = await findAllSpeech(keys, today);
  const missing: number[] = [];
  for (const [at, key] of keys.entries()) {
    const seconds = kept.get(key);
    if (seconds === undefined) missing.push(at);
    else said[at] = { key, seconds, problem: null };
  }
  let [next, done] = [0, heard.length - missing.length];
  if (done > 0) told(done);
  const work = async (n: number) => {
    while (next < missing.length) {
      signal.throwIfAborted();
      const at = missing[next++]!;
      said[at] = await say(n, heard[at] ?? '', voice, today);
      told(++done);
    }
  };
  const hands = Math.min(AT_ONCE, missing.length);
  await Promise.all(Array.from({ length: hands }, (_, n) => work(n)));
  return said;
}
