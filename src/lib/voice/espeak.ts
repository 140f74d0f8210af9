import loadEspeak, { type EspeakWorker } from '@echogarden/espeak-ng-emscripten';
import { fromInt16 } from '$lib/core/audio/speech.ts';
import { finishSpeech } from './finish.ts';
import { SpeechError, type Engine } from './speech.ts';

/** Words a minute at the usual speed, and the least and most that the engine takes. */
const USUAL_RATE = 160;
const [SLOWEST, FASTEST] = [80, 400];

/** An engine that also tells how a text is pronounced. */
export interface EspeakEngine extends Engine {
  /**
   * The phonemes of a text in IPA, clause by clause, with spaces between words and the mark that ends a clause.
   * @throws SpeechError
   */
  phonemes(text: string, voice: string): string[];
}

/** Marks that end a clause, as voices know them; not those within a number. */
const ENDS = /[.,;:!?…](?=[^\p{L}\p{N}]|$)/u;

/**
 * The eSpeak NG engine: a hundred languages, with the time of each word.
 * @param data its dictionaries and voices
 */
export async function espeakEngine(data: ArrayBuffer): Promise<EspeakEngine> {
  const program = await loadEspeak({ getPreloadedPackage: () => data });
  const speaker: EspeakWorker = new program.eSpeakNGWorker();
  const choose = (voice: string, text: string) => {
    if (speaker.set_voice(voice) !== 0) throw new SpeechError('no-such-voice', text, voice);
  };
  return {
    async say(spoken, voice, speed) {
      choose(voice, spoken);
      speaker.rate = Math.round(Math.min(FASTEST, Math.max(SLOWEST, USUAL_RATE * speed)));
      const pieces: Int16Array[] = [];
      const words: number[] = [];
      speaker.synthesize(spoken, (samples, events) => {
        if (samples) pieces.push(samples.slice());
        for (const event of events)
          if (event.type === 'word') words.push(event.audio_position / 1000);
        return false;
      });
      const all = new Int16Array(pieces.reduce((sum, p) => sum + p.length, 0));
      let at = 0;
      for (const piece of pieces) {
        all.set(piece, at);
        at += piece.length;
      }
      return finishSpeech(fromInt16(all), speaker.samplerate, spoken, words);
    },

    phonemes(text, voice) {
      choose(voice, text);
      speaker.rate = FASTEST;
      const letters = [...text];
      /** Each word with its phonemes, and where it ends in the text. */
      const words: { phones: string; end: number }[] = [];
      speaker.synthesize(text, (_, events) => {
        for (const { type, id, text_position, word_length } of events)
          if (type === 'word') words.push({ phones: '', end: text_position - 1 + word_length });
          else if (type === 'phoneme' && typeof id === 'string' && words.length > 0)
            words.at(-1)!.phones += id.replace(/\p{Cc}/gu, '');
        return false;
      });
      const clauses: string[] = [];
      let clause: string[] = [];
      for (const [i, { phones, end }] of words.entries()) {
        if (phones) clause.push(phones);
        const isLast = i === words.length - 1;
        const next = words[i + 1]?.end ?? letters.length;
        const after = letters.slice(isLast ? -3 : end, next).join('');
        const mark = (isLast ? after : after.match(/^\P{L}*/u)?.[0])?.match(ENDS)?.[0];
        if ((!mark && !isLast) || clause.length === 0) continue;
        clauses.push(`${clause.join(' ')}${mark === '…' ? '.' : (mark ?? '')}`);
        clause = [];
      }
      return clauses;
    }
  };
}
