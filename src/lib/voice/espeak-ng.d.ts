/** The part of the package that is used; it ships no types of its own. */
declare module '@echogarden/espeak-ng-emscripten' {
  interface EspeakEvent {
    type: string;
    /** Milliseconds. */
    audio_position: number;
    /** Characters, from 1, and of a word its length. */
    text_position: number;
    word_length: number;
    /** Of a phoneme: IPA. */
    id?: string | number;
  }
  export interface EspeakWorker {
    rate: number;
    readonly samplerate: number;
    /** 0 when there is such a voice. */
    set_voice(name: string): number;
    /** The callback stops the engine by returning true. */
    synthesize(
      text: string,
      said: (samples: Int16Array | null, events: EspeakEvent[]) => boolean
    ): void;
  }
  interface Espeak {
    eSpeakNGWorker: new () => EspeakWorker;
  }
  export default function load(options: {
    getPreloadedPackage: (name: string, size: number) => ArrayBuffer;
  }): Promise<Espeak>;
}
