import { ConsoleStdout, File, OpenFile, PreopenDirectory, WASI } from '@bjorn3/browser_wasi_shim';
import { readWav } from '$lib/core/audio/wav.ts';
import { finishSpeech } from './finish.ts';
import { SpeechError, type Engine } from './speech.ts';

/** Letters that take no accent apart. */
const PLAIN: Readonly<Record<string, string>> = {
  ...{ ß: 'ss', æ: 'ae', Æ: 'Ae', œ: 'oe', Œ: 'Oe', ø: 'o', Ø: 'O', ł: 'l', Ł: 'L', đ: 'd' },
  ...{ '’': "'", '‘': "'", '“': '', '”': '', '–': ',', '—': ',', '…': '.' }
};

/** The letters that flite knows: those of English, without accents. */
const toAscii = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\x20-\x7e]/gu, (c) => PLAIN[c] ?? ' ')
    .replace(/\s+/g, ' ')
    .trim();

/**
 * The flite engine: English voices. It is a program for WASI, begun anew for every sentence; its
 * code is compiled once.
 */
export function fliteEngine(program: WebAssembly.Module): Engine {
  return {
    async say(heard, voice, speed) {
      const text = toAscii(heard);
      // Half of the letters lost is another script, not an accent.
      const letters = (t: string) => t.match(/\p{L}/gu)?.length ?? 0;
      if (letters(text) === 0 || letters(text) < letters(heard.normalize('NFC')) / 2)
        throw new SpeechError('other-script', heard);
      const folder = new PreopenDirectory('/', new Map());
      const quiet = () => ConsoleStdout.lineBuffered(() => {});
      const wasi = new WASI(
        ['flite', '-voice', voice, '--setf', `duration_stretch=${(1 / speed).toFixed(3)}`]
          // Two spaces, so that no text can be taken for an option or for a file's name.
          .concat(['-t', `  ${text}`, '-o', '/said.wav']),
        [],
        [new OpenFile(new File([])), quiet(), quiet(), folder],
        { debug: false }
      );
      const instance = await WebAssembly.instantiate(program, {
        wasi_snapshot_preview1: wasi.wasiImport
      });
      try {
        wasi.start(instance as Parameters<typeof wasi.start>[0]);
      } catch (error) {
        throw new SpeechError('engine-failed', heard, String(error));
      }
      const said = folder.dir.contents.get('said.wav');
      if (!(said instanceof File)) throw new SpeechError('engine-failed', heard);
      const { samples, rate } = readWav(said.data);
      return finishSpeech(samples, rate, text);
    }
  };
}
