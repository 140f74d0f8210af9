import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { interleave, wavHead } from '$lib/core/audio/wav.ts';
import { writeFile } from './files.ts';
import type { FinishedSound } from './soundOf.ts';

/** Writes finished sound into a WAV file, as a stream. */
export async function writeWav(name: string, sound: FinishedSound, seconds: number): Promise<void> {
  const stream = await writeFile(name);
  try {
    await stream.write(wavHead(Math.round(seconds * SAMPLE_RATE), sound.channels, SAMPLE_RATE));
    for await (const block of sound.blocks()) await stream.write(interleave(block));
  } finally {
    await stream.close();
  }
}
