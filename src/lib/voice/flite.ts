import { ConsoleStdout, File, OpenFile, PreopenDirectory, WASI } from '@bjorn3/browser_wasi_shim';
import { readWav } from '$lib/core/audio/wav.ts';
import { finishSpeech } from './finish.ts';
import { readPhones, soundsByWord, wordStarts, type Phone } from './phones.ts';
import { ReusedFile } from './reusedFile.ts';
import { SpeechError, type Engine } from './speech.ts';

/** Letters that take no accent apart. */
const PLAIN: Readonly<Record<string, string>> = {
  ß: 'ss',
  æ: 'ae',
  Æ: 'Ae',
  œ: 'oe',
  Œ: 'Oe',
  ø: 'o',
  Ø: 'O',
  ł: 'l',
  Ł: 'L',
  đ: 'd',
  '’': "'",
  '‘': "'",
  '“': '',
  '”': '',
  '–': ',',
  '—': ',',
  '…': '.'
};

/** The letters that flite knows: those of English, without accents. */
const toAscii = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\x20-\x7e]/gu, (c) => PLAIN[c] ?? ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** Stretch at which words are said that are only to be spelt: their sounds are the same, and it takes no time. */
const QUICK = 0.05;
/** Bytes of half a minute. */
const USUAL_SIZE = 2 ** 20;

/** A program in its memory, and that memory as it was before it ran. */
interface Begun {
  instance: { exports: { memory: WebAssembly.Memory; _start: () => unknown } };
  before: Uint8Array;
}

/**
 * The flite engine: English voices. It is a program for WASI that says one text and ends. Its
 * memory is put back for the next one: to begin it anew each time would leave tens of megabytes
 * behind for every sentence.
 */
export function fliteEngine(program: WebAssembly.Module): Engine {
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
    return { instance, before: new Uint8Array(instance.exports.memory.buffer).slice() };
  };
  /** Lets the program say a text. @returns the sounds that it says it with; what it wrote is in the file */
  const run = async (text: string, voice: string, stretch: number): Promise<Phone[]> => {
    begun ??= await begin();
    const { instance, before } = begun;
    const memory = new Uint8Array(instance.exports.memory.buffer);
    memory.set(before);
    memory.fill(0, before.length);
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
  /** The sounds of words by themselves, by voice and word: each is asked for once. */
  const known = new Map<string, readonly string[]>();
  const soundsOf = async (words: readonly string[], voice: string) => {
    const name = (word: string) => `${voice} ${word.toLowerCase()}`;
    const missing = [...new Set(words)].filter((word) => !known.has(name(word)));
    if (missing.length > 0) {
      const said = soundsByWord(await run(`${missing.join(', ')}.`, voice, QUICK));
      if (said.length !== missing.length) return null;
      for (const [i, word] of missing.entries()) known.set(name(word), said[i]!);
    }
    return words.map((word) => known.get(name(word)) ?? []);
  };
  return {
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
        const words = text.split(/\s+/).map((word) => word.replace(/[^\p{L}\p{N}'-]/gu, ''));
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
