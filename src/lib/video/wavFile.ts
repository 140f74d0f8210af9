import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { interleave, wavHead } from '$lib/core/audio/wav.ts';
import { writeWhole } from './files.ts';
import type { FinishedSound } from './soundOf.ts';

/** Writes finished sound into a WAV file, as a stream. */
export async function writeWav(name: string, sound: FinishedSound, seconds: number): Promise<void> {
  await writeWhole(name, async (file) => {
    await file.write(wavHead(Math.round(seconds * SAMPLE_RATE), sound.channels, SAMPLE_RATE));
    for await (const block of sound.blocks()) await file.write(interleave(block));
  });
}
