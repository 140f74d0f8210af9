import { ConsoleStdout, File, OpenFile, PreopenDirectory, WASI } from '@bjorn3/browser_wasi_shim';
import { readWav } from '$lib/core/audio/wav.ts';
import { finishSpeech } from './finish.ts';
import { readPhones, soundsByWord, wordStarts, type Phone } from './phones.ts';
import { toAscii, wordsOf } from './plainText.ts';
import { ReusedFile } from './reusedFile.ts';
import { SpeechError, type Engine } from './speech.ts';

/** Stretch at which words are said that are only to be spelt: their sounds are the same, and it takes no time. */
const QUICK = 0.05;
/** Bytes of half a minute. */
const USUAL_SIZE = 2 ** 20;

/** The sounds of words by themselves, by word. */
export type WordSounds = ReadonlyMap<string, readonly string[]>;

/** Words that are asked for together: one that cannot be told apart costs those beside it. */
const WORDS_AT_ONCE = 20;

export interface FliteEngine extends Engine {
  /** Finds the sounds of words by themselves, which tell when each is said in a sentence. */
  learn(words: readonly string[], voice: string): Promise<WordSounds>;
  /** Takes over what another engine has learnt. */
  know(sounds: WordSounds, voice: string): void;
}

/**
 * Where the constants of the program end, in bytes of its memory: its first segment of data, all of its
 * voices. Nothing writes there.
 */
export const CONSTANTS_END = 17_087_080;

/** A program in its memory, and what of that memory it writes to, as it was before it ran. */
interface Begun {
  instance: { exports: { memory: WebAssembly.Memory; _start: () => unknown } };
  before: Uint8Array;
}

/**
 * The flite engine: English voices. It is a program for WASI that says one text and ends. Its
 * memory is put back for the next one: to begin it anew each time would leave tens of megabytes
 * behind for every sentence.
 */
export function fliteEngine(program: WebAssembly.Module): FliteEngine {
  let begun: Begun | null = null;
  let wasi: WASI;
  const file = new ReusedFile(USUAL_SIZE);
  /** The program calls whatever run it is in. */
  const imports = new Proxy({} as Record<string, (...values: unknown[]) => unknown>, {
    get:
      (_, name: string) =>
      (...values: unknown[]) =>
        wasi.wasiImport[name]?.(...values)
  });
  const begin = async (): Promise<Begun> => {
    const named = Object.fromEntries(
      WebAssembly.Module.imports(program).map(({ name }) => [name, imports[name]])
    );
    const instance = (await WebAssembly.instantiate(program, {
      wasi_snapshot_preview1: named as WebAssembly.ModuleImports
    })) as unknown as Begun['instance'];
    return {
      instance,
      before: new Uint8Array(instance.exports.memory.buffer).slice(CONSTANTS_END)
    };
  };
  /** Lets the program say a text. @returns the sounds that it says it with; what it wrote is in the file */
  const run = async (text: string, voice: string, stretch: number): Promise<Phone[]> => {
    begun ??= await begin();
    const { instance, before } = begun;
    const memory = new Uint8Array(instance.exports.memory.buffer);
    memory.set(before, CONSTANTS_END);
    memory.fill(0, CONSTANTS_END + before.length);
    file.empty();
    const folder = new PreopenDirectory('/', new Map([['said.wav', file]]));
    const lines: string[] = [];
    const told = ConsoleStdout.lineBuffered((line) => lines.push(line));
    const quiet = ConsoleStdout.lineBuffered(() => {});
    wasi = new WASI(
      ['flite', '-psdur', '-voice', voice, '--setf', `duration_stretch=${stretch.toFixed(3)}`]
        // Two spaces, so that no text can be taken for an option or for a file's name.
        .concat(['-t', `  ${text}`, '-o', '/said.wav']),
      [],
      [new OpenFile(new File([])), told, quiet, folder],
      { debug: false }
    );
    // An end other than by coming back leaves its stack as it was: then it is begun anew.
    const isDone = wasi.start(instance) === 0;
    if (!isDone) begun = null;
    return readPhones(lines.join(' '));
  };
  /** Each word is asked for once. */
  const known = new Map<string, Map<string, readonly string[]>>();
  const knownOf = (voice: string) => {
    const of = known.get(voice) ?? new Map<string, readonly string[]>();
    known.set(voice, of);
    return of;
  };
  const ask = async (words: readonly string[], voice: string) => {
    try {
      const said = soundsByWord(await run(`${words.join(', ')}.`, voice, QUICK));
      if (said.length !== words.length) return;
      for (const [i, word] of words.entries()) knownOf(voice).set(word, said[i]!);
    } catch {
      // A sentence can be said without the times of its words.
      begun = null;
    }
  };
  const soundsOf = async (words: readonly string[], voice: string) => {
    const missing = [...new Set(words)].filter((word) => !knownOf(voice).has(word));
    if (missing.length > 0) await ask(missing, voice);
    const sounds = words.map((word) => knownOf(voice).get(word));
    return sounds.every((s) => s !== undefined) ? sounds : null;
  };
  return {
    async learn(words, voice) {
      const missing = words.filter((word) => !knownOf(voice).has(word));
      for (let at = 0; at < missing.length; at += WORDS_AT_ONCE)
        await ask(missing.slice(at, at + WORDS_AT_ONCE), voice);
      const learnt = new Map<string, readonly string[]>();
      for (const word of words) {
        const sounds = knownOf(voice).get(word);
        if (sounds) learnt.set(word, sounds);
      }
      return learnt;
    },
    know(sounds, voice) {
      for (const [word, of] of sounds) knownOf(voice).set(word, of);
    },
    async say(spoken, voice, speed) {
      const text = toAscii(spoken);
      // Half of the letters lost is another script, not an accent.
      const letters = (t: string) => t.match(/\p{L}/gu)?.length ?? 0;
      if (letters(text) === 0 || letters(text) < letters(spoken.normalize('NFC')) / 2)
        throw new SpeechError('other-script', spoken);
      try {
        const phones = await run(text, voice, 1 / speed);
        if (file.written.length === 0) throw new SpeechError('engine-failed', spoken);
        const { samples, rate } = readWav(file.written);
        // Its memory is used again for the words.
        const words = wordsOf(text);
        const sounds = words.every(Boolean) ? await soundsOf(words, voice) : null;
        return finishSpeech(samples, rate, text, sounds ? wordStarts(phones, sounds) : []);
      } catch (error) {
        if (error instanceof SpeechError) throw error;
        begun = null;
        throw new SpeechError('engine-failed', spoken, String(error));
      }
    }
  };
}
