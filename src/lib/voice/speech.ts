/** One sentence as it was said: without silence around it, its ends softened. */
export interface Speech {
  samples: Int16Array<ArrayBuffer>;
  /** Samples a second. */
  rate: number;
  /** When each word begins, in seconds; empty where the engine does not tell. */
  words: number[];
}

/** Why a text could not be said. */
export type SpeechProblem =
  /** The engine has no sounds for this script. */
  | 'other-script'
  | 'no-such-voice'
  /** It said nothing at all. */
  | 'silent'
  | 'engine-failed';

export class SpeechError extends Error {
  constructor(
    readonly kind: SpeechProblem,
    readonly text: string,
    detail = ''
  ) {
    super(detail || kind);
  }
}

/** What says a text. One engine says one text at a time. */
export interface Engine {
  /**
   * @param speed 1 is the usual speed of the voice
   * @throws SpeechError
   */
  say(spoken: string, voice: string, speed: number): Promise<Speech>;
}
