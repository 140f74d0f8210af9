import { alignLines, type FoundLine, type SaidLine } from '$lib/core/audio/align/alignLines.ts';
import { alignWords, type Reference } from '$lib/core/audio/align/alignWords.ts';
import { CEPSTRA_RATE, CepstraReader, type Cepstra } from '$lib/core/audio/align/cepstra.ts';
import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { PieceResampler, Resampler } from '$lib/core/audio/resample.ts';
import { fromInt16, toInt16 } from '$lib/core/audio/speech.ts';
import { finishTake } from '$lib/core/audio/take.ts';
import { VOICES } from '$lib/core/narration/voices.ts';
import type { Engine, Speech } from './speech.ts';
import { denoise } from './denoise.ts';

/** Seconds from one row to the next over a whole recording. */
const HOP = 0.04;
/** Seconds of silence between two lines of the script. */
const BETWEEN = 0.3;
/** Voices of one language that a recording is held against: a lower one, and a higher one. */
const VARIANTS = ['', '+f3'];

const pieces = new PieceResampler();

/** The eSpeak voices of a language; none where it does not speak it. */
export function referenceVoices(language: string): string[] {
  const base = language.toLowerCase().split('-')[0];
  const own = VOICES.filter((v) => v.engine === 'espeak');
  const voice =
    own.find((v) => v.language.toLowerCase() === language.toLowerCase()) ??
    own.find((v) => v.language.split('-')[0] === base);
  return voice ? VARIANTS.map((variant) => voice.voice + variant) : [];
}

/** What a person read, and how. */
export interface Take {
  /** One channel of 48,000 samples a second. */
  samples: Float32Array;
  /** As it is said. */
  spoken: string;
  /** BCP 47. */
  language: string;
  /** Whether noise is taken out. */
  isDenoised: boolean;
  /** Samples in front that are not of the sentence: noise is known from them. */
  lead: number;
}

/**
 * A sentence that was read aloud: cleaned, cut, levelled, with the times of its words.
 * @param espeak says it too, for its words to be found
 * @returns null where nothing is heard
 */
export async function speechOfTake(
  take: Take,
  espeak: Engine | null
): Promise<{ speech: Speech; isDoubtful: boolean } | null> {
  const clean = take.isDenoised ? await denoise(take.samples) : take.samples.slice();
  const samples = finishTake(clean.subarray(take.lead));
  if (!samples) return null;
  const near = pieces.resample(samples, SAMPLE_RATE, CEPSTRA_RATE).slice();
  const voices: Reference[] = [];
  for (const voice of espeak ? referenceVoices(take.language) : []) {
    const said = await espeak?.say(take.spoken, voice, 1).catch(() => null);
    if (said) voices.push({ samples: atCepstraRate(said).slice(), words: said.words });
  }
  const { words, isDoubtful } = alignWords(near, voices);
  return { speech: { samples: toInt16(samples), rate: SAMPLE_RATE, words }, isDoubtful };
}

const atCepstraRate = ({ samples, rate }: Speech): Float32Array =>
  pieces.resample(fromInt16(samples), rate, CEPSTRA_RATE);

/** How a recording of any length sounds, from its pieces of 48,000 samples a second. */
export async function cepstraOfRecording(
  read: (from: number, count: number) => Promise<Float32Array>,
  length: number
): Promise<Cepstra> {
  const reader = new CepstraReader(HOP);
  const resampler = new Resampler(SAMPLE_RATE, CEPSTRA_RATE);
  const stretch = 30 * SAMPLE_RATE;
  for (let at = 0; at < length; at += stretch)
    reader.push(resampler.push(await read(at, Math.min(stretch, length - at))));
  return reader.end();
}

/**
 * Finds the lines of a script in a recording of the whole.
 * @param told given the share of the script that was said
 */
export async function findLines(
  recording: Cepstra,
  spoken: readonly string[],
  language: string,
  espeak: Engine,
  told: (share: number) => void | Promise<void>
): Promise<FoundLine[]> {
  const voices = referenceVoices(language);
  let best: { lines: FoundLine[]; distance: number } | null = null;
  for (const [v, voice] of voices.entries()) {
    const reader = new CepstraReader(HOP);
    const lines: SaidLine[] = [];
    let at = 0;
    for (const [i, text] of spoken.entries()) {
      // What the voice cannot say still has its place among the others.
      const speech = await espeak.say(text, voice, 1).catch(() => null);
      const said = speech ? atCepstraRate(speech) : new Float32Array(BETWEEN * CEPSTRA_RATE);
      lines.push({ start: at, end: at + said.length / CEPSTRA_RATE });
      reader.push(said);
      reader.push(new Float32Array(BETWEEN * CEPSTRA_RATE));
      at += said.length / CEPSTRA_RATE + BETWEEN;
      await told((v + (i + 1) / spoken.length) / voices.length);
    }
    const found = alignLines(recording, reader.end(), lines);
    if (!best || found.distance < best.distance) best = found;
  }
  return best?.lines ?? [];
}
