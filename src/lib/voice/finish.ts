import { softenEnds, spokenRange, toInt16 } from '$lib/core/audio/speech.ts';
import { SpeechError, type Speech } from './speech.ts';

/** A voice that says less than this for a word has said nothing. */
const MIN_A_WORD = 0.03;

/** Takes the silence around a sentence away; changes the samples given. @throws SpeechError when there is nothing else */
export function finishSpeech(
  samples: Float32Array,
  rate: number,
  text: string,
  words: number[] = []
): Speech {
  const { from, to } = spokenRange(samples, rate);
  const spoken = softenEnds(samples.subarray(from, to), rate);
  const count = text.split(/\s+/).filter(Boolean).length;
  const isSilent = !spoken.some((s) => Math.abs(s) > 0.01);
  if (isSilent || spoken.length / rate < MIN_A_WORD * Math.min(count, 20))
    throw new SpeechError('silent', text);
  const lead = from / rate;
  return { samples: toInt16(spoken), rate, words: words.map((w) => Math.max(0, w - lead)) };
}
