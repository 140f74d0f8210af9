import { equalise, inRoom, type Band } from '$lib/core/audio/equaliser.ts';
import { fromInt16, softenEnds, toInt16 } from '$lib/core/audio/speech.ts';
import type { EngineName, VoiceTone } from '$lib/core/narration/voices.ts';
import type { Speech } from './speech.ts';

/**
 * What brings the voices that ship nearer to the long-term average spectrum of speech (Byrne et al. 1994),
 * found by measuring them in thirds of an octave: eSpeak has little below 250 Hz and much from 1 to 4 kHz.
 */
const BALANCE: Readonly<Record<string, readonly Band[]>> = {
  espeak: [
    { shape: 'low-shelf', at: 260, decibels: 7 },
    { shape: 'peak', at: 1100, decibels: -4.5 },
    { shape: 'peak', at: 2900, decibels: -5.5 }
  ],
  'flite slt': [
    { shape: 'peak', at: 180, decibels: -5 },
    { shape: 'peak', at: 1800, decibels: 2.5 },
    { shape: 'high-shelf', at: 6000, decibels: -3 }
  ],
  'flite rms': [
    { shape: 'low-shelf', at: 220, decibels: -4 },
    { shape: 'peak', at: 1100, decibels: 8 },
    { shape: 'high-shelf', at: 3000, decibels: -7.5 }
  ],
  'flite awb': [
    { shape: 'low-shelf', at: 250, decibels: -4 },
    { shape: 'peak', at: 2600, decibels: -5 },
    { shape: 'high-shelf', at: 5200, decibels: 7 }
  ]
};

const powerOf = (samples: Float32Array): number =>
  samples.reduce((sum, s) => sum + s * s, 0) / (samples.length || 1);
const HIGHEST = 0.98;

/** A sentence in the tone that is wanted, as loud as it was. */
export function inTone(speech: Speech, engine: EngineName, voice: string, tone: VoiceTone): Speech {
  if (tone === 'plain') return speech;
  const { samples: said, rate } = speech;
  const samples = fromInt16(said);
  const before = powerOf(samples);
  equalise(samples, rate, BALANCE[engine] ?? BALANCE[`${engine} ${voice}`] ?? []);
  const heard = tone === 'room' ? inRoom(samples, rate) : samples;
  const peak = heard.reduce((top, s) => Math.max(top, Math.abs(s)), 0);
  const after = (powerOf(heard) * heard.length) / (samples.length || 1);
  const gain = Math.min(Math.sqrt(before / (after || 1)), HIGHEST / (peak || 1));
  for (let i = 0; i < heard.length; i++) heard[i]! *= gain;
  return { ...speech, samples: toInt16(softenEnds(heard, rate)) };
}
