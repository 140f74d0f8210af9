import loadEspeak, { type EspeakWorker } from '@echogarden/espeak-ng-emscripten';
import { fromInt16 } from '$lib/core/audio/speech.ts';
import { finishSpeech } from './finish.ts';
import { SpeechError, type Engine } from './speech.ts';

/** Words a minute at the usual speed, and the least and most that the engine takes. */
const USUAL_RATE = 160;
const [SLOWEST, FASTEST] = [80, 400];

/**
 * The eSpeak NG engine: a hundred languages, with the time of each word.
 * @param data its dictionaries and voices
 */
export async function espeakEngine(data: ArrayBuffer): Promise<Engine> {
  const program = await loadEspeak({ getPreloadedPackage: () => data });
  const speaker: EspeakWorker = new program.eSpeakNGWorker();
  return {
    async say(spoken, voice, speed) {
      if (speaker.set_voice(voice) !== 0) throw new SpeechError('no-such-voice', spoken, voice);
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
    }
  };
}
