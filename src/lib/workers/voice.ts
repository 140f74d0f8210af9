import type { Remote } from 'comlink';
import type { VoiceChoice } from '$lib/core/narration/voices.ts';
import { speechKey } from '$lib/core/model/ids.ts';
import { toAscii, wordsOf } from '$lib/voice/plainText.ts';
import { findAllSpeech } from '$lib/data/speech.ts';
import { launch, MEDIA_PATIENCE } from './launch.ts';
import type { Said, VoiceApi } from './voiceApi.ts';

/** Two sentences are said at a time. */
const AT_ONCE = 2;
/** Sentences that a voice is given at a time: they are kept together. Files of the user's own may take seconds for each. */
const TOGETHER: Readonly<Record<VoiceChoice['engine'], number>> = { flite: 4, espeak: 4, file: 1 };
/** From so many sentences on it is worth while to begin with their words. */
const MANY = 8;
const voices = Array.from({ length: AT_ONCE }, (_, n) =>
  launch<VoiceApi>(
    () =>
      new Worker(new URL('./voice.worker.ts', import.meta.url), {
        type: 'module',
        name: `voice ${n}`
      }),
    // A sentence of a large voice may take long on a slow machine.
    { patience: MEDIA_PATIENCE }
  )
);

/** One of the workers that speak, for what is not said sentence by sentence. */
export const voiceWorker = (): Remote<VoiceApi> => voices[0]!();

/** Gives back what the engines hold, unless one of them is at work. They start anew when needed. */
export function restVoices(): void {
  if (voices.some((voice) => voice.isBusy())) return;
  for (const voice of voices) voice.end();
}

/** Has an engine loaded before the first sentence. What cannot be loaded says so when it is to speak. */
export async function readyVoices(engine: VoiceChoice['engine']): Promise<void> {
  await loadVoices(engine).catch(() => {});
}

async function loadVoices(engine: VoiceChoice['engine']): Promise<void> {
  const [first, ...others] = voices.map((start) => start());
  if (engine === 'flite' && first) {
    const program = await first.programOfFlite().catch(() => null);
    if (program) await Promise.all(others.map((voice) => voice.useFlite(program)));
  }
  await Promise.all(voices.map((start) => start().ready(engine)));
}

/**
 * Each of the voices asks for its share of the words, rather than every voice for all of them. What does
 * not come of it is asked for with its sentence.
 */
async function learnWords(texts: readonly string[], { voice }: VoiceChoice): Promise<void> {
  const words = new Set(texts.flatMap((text) => wordsOf(toAscii(text))));
  words.delete('');
  const learnt = await Promise.all(
    voices.map((start, n) =>
      start().learn(
        [...words].filter((_, i) => i % voices.length === n),
        voice
      )
    )
  );
  await Promise.all(
    voices.flatMap((start, n) =>
      learnt.filter((_, other) => other !== n).map((sounds) => start().know(sounds, voice))
    )
  );
}

/** What is being said just now, so that no sentence is said twice at a time. */
const underWay = new Map<string, Promise<Said>>();

async function say(
  worker: Remote<VoiceApi>,
  spoken: readonly string[],
  voice: VoiceChoice,
  today: string
): Promise<Said[]> {
  const keys = spoken.map((text) => speechKey(voice, text));
  const fresh = new Map(spoken.map((text, i) => [keys[i]!, text]));
  for (const key of underWay.keys()) fresh.delete(key);
  if (fresh.size > 0) {
    const together = worker.say([...fresh.values()], { ...voice }, today);
    for (const [i, key] of [...fresh.keys()].entries())
      underWay.set(
        key,
        together.then((said) => said[i]!).finally(() => underWay.delete(key))
      );
  }
  return Promise.all(keys.map((key) => underWay.get(key)!));
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
  // Between two sentences the engines may have been given back.
  const work = async (start: () => Remote<VoiceApi>) => {
    while (next < missing.length) {
      signal.throwIfAborted();
      const places = missing.slice(next, (next += TOGETHER[voice.engine]));
      const texts = places.map((at) => spoken[at] ?? '');
      for (const [i, one] of (await say(start(), texts, voice, today)).entries())
        said[places[i]!] = one;
      onProgress((done += places.length));
    }
  };
  if (missing.length >= MANY) {
    await readyVoices(voice.engine);
    if (voice.engine === 'flite') {
      const texts = missing.map((at) => spoken[at] ?? '');
      await learnWords(texts, voice).catch(() => {});
    }
  }
  await Promise.all(voices.slice(0, missing.length).map(work));
  return said;
}
