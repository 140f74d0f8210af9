import type { Remote } from 'comlink';
import type { VoiceChoice } from '$lib/core/narration/voices.ts';
import { speechKey } from '$lib/core/model/ids.ts';
import { findAllSpeech } from '$lib/data/speech.ts';
import { launch, MEDIA_PATIENCE } from './launch.ts';
import type { Said, VoiceApi } from './voiceApi.ts';

/** Two sentences are said at a time. */
const AT_ONCE = 2;
const voices = Array.from({ length: AT_ONCE }, (_, n) =>
  launch<VoiceApi>(
    () =>
      new Worker(new URL('./voice.worker.ts', import.meta.url), {
        type: 'module',
        name: `voice ${n}`
      }),
    // A long recording is laid along its script in one go.
    { patience: MEDIA_PATIENCE }
  )
);

/** One of the workers that speak, for what is not said sentence by sentence. */
export const voiceWorker = (): Remote<VoiceApi> => voices[0]!();

/** Gives back what the engines hold, unless one of them is speaking. They start anew when needed. */
export function restVoices(): void {
  if (underWay.size > 0) return;
  for (const voice of voices) voice.end();
}

/** Has an engine loaded before the first sentence. */
export function readyVoices(engine: VoiceChoice['engine']): void {
  for (const voice of voices) void voice().ready(engine);
}

/** What is being said just now, so that no sentence is said twice at a time. */
const underWay = new Map<string, Promise<Said>>();

function say(
  worker: Remote<VoiceApi>,
  spoken: string,
  voice: VoiceChoice,
  today: string
): Promise<Said> {
  const name = speechKey(voice, spoken);
  let said = underWay.get(name);
  if (!said) {
    said = worker.say(spoken, { ...voice }, today).finally(() => underWay.delete(name));
    underWay.set(name, said);
  }
  return said;
}

/**
 * Says sentences, those first that come first.
 * @param onProgress called after each with how many are done
 * @returns what became of each, in their order
 */
export async function sayAll(
  spoken: readonly string[],
  voice: VoiceChoice,
  signal: AbortSignal,
  onProgress: (done: number) => void = () => {}
): Promise<Said[]> {
  const today = new Date().toISOString().slice(0, 10);
  const said: Said[] = [];
  const keys = spoken.map((h) => speechKey(voice, h));
  // What is kept needs no voice, and no worker to be started for it.
  const kept = await findAllSpeech(keys, today);
  const missing: number[] = [];
  for (const [at, key] of keys.entries()) {
    const seconds = kept.get(key);
    if (seconds === undefined) missing.push(at);
    else said[at] = { key, seconds, problem: null };
  }
  let [next, done] = [0, spoken.length - missing.length];
  if (done > 0) onProgress(done);
  const work = async (worker: Remote<VoiceApi>) => {
    while (next < missing.length) {
      signal.throwIfAborted();
      const at = missing[next++]!;
      said[at] = await say(worker, spoken[at] ?? '', voice, today);
      onProgress(++done);
    }
  };
  await Promise.all(voices.slice(0, missing.length).map((start) => work(start())));
  return said;
}
