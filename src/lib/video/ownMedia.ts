import { AudioSampleSink, BlobSource, ALL_FORMATS, Input, type InputAudioTrack } from 'mediabunny';
import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import type { MediaProblem } from '$lib/core/narration/narration.ts';
import { Resampler } from '$lib/core/audio/resample.ts';

export class MediaError extends Error {
  constructor(readonly problem: MediaProblem) {
    super(problem.kind);
  }
}

/** What cannot be read at all is no media, whatever the decoder stumbled over. */
export const mediaProblem = (error: unknown): MediaProblem =>
  error instanceof MediaError ? error.problem : { kind: 'not-media' };

export const openMedia = (blob: Blob): Input =>
  new Input({ source: new BlobSource(blob), formats: ALL_FORMATS });

/** The sound track of a file. @throws MediaError */
async function soundOf(input: Input): Promise<InputAudioTrack | null> {
  const track = await input.getPrimaryAudioTrack();
  if (!track) return null;
  if (!(await track.canDecode()))
    throw new MediaError({ kind: 'odd-codec', codec: (await track.getCodec()) ?? '?' });
  return track;
}

/**
 * Looks at a clip that is to stand before or after a video.
 * @returns seconds
 * @throws MediaError
 */
export async function examineClip(blob: Blob): Promise<number> {
  using input = openMedia(blob);
  if (!(await input.canRead())) throw new MediaError({ kind: 'not-media' });
  const video = await input.getPrimaryVideoTrack();
  if (!video) throw new MediaError({ kind: 'no-picture' });
  if (!(await video.canDecode()))
    throw new MediaError({ kind: 'odd-codec', codec: (await video.getCodec()) ?? '?' });
  await soundOf(input);
  // Awaited here: the input is closed when this function returns.
  return await input.computeDuration();
}

/** What a film is, whose file is uploaded as it is. */
export interface ExaminedFilm {
  format: 'webm' | 'mp4';
  audio: 'opus' | 'aac';
  seconds: number;
  width: number;
  height: number;
}

/** Looks at a film. @throws MediaError */
export async function examineFilm(blob: Blob): Promise<ExaminedFilm> {
  using input = openMedia(blob);
  if (!(await input.canRead())) throw new MediaError({ kind: 'not-media' });
  const video = await input.getPrimaryVideoTrack();
  if (!video) throw new MediaError({ kind: 'no-picture' });
  const { mimeType } = await input.getFormat();
  const sound = await input.getPrimaryAudioTrack();
  const codec = await sound?.getCodec();
  return {
    format: /webm|matroska/.test(mimeType) ? 'webm' : 'mp4',
    audio: codec === 'opus' ? 'opus' : 'aac',
    seconds: await input.computeDuration(),
    width: await video.getDisplayWidth(),
    height: await video.getDisplayHeight()
  };
}

/**
 * The sound of a file at 48,000 samples a second, piece by piece, as one or two channels.
 * @throws MediaError
 */
export async function* decodeSound(blob: Blob): AsyncGenerator<Float32Array[]> {
  using input = openMedia(blob);
  if (!(await input.canRead())) throw new MediaError({ kind: 'not-media' });
  const track = await soundOf(input);
  if (!track) throw new MediaError({ kind: 'no-sound' });
  const channels = Math.min(2, await track.getNumberOfChannels());
  let resamplers: Resampler[] | null = null;
  const sink = new AudioSampleSink(track);
  for await (const sample of sink.samples()) {
    const { sampleRate } = sample;
    resamplers ??= Array.from({ length: channels }, () => new Resampler(sampleRate, SAMPLE_RATE));
    const pieces = resamplers.map((resampler, planeIndex) => {
      const bytes = sample.allocationSize({ planeIndex, format: 'f32-planar' });
      const plane = new Float32Array(bytes / 4);
      sample.copyTo(plane, { planeIndex, format: 'f32-planar' });
      return resampler.push(plane);
    });
    sample.close();
    yield pieces;
  }
  if (resamplers) yield resamplers.map((r) => r.flush());
}

/** Sound as it is kept: 16 bits, woven. */
export interface KeptSound {
  blob: Blob;
  channels: number;
  seconds: number;
}

/** @throws MediaError */
export async function keepSound(blob: Blob): Promise<KeptSound> {
  const { interleave } = await import('$lib/core/audio/wav.ts');
  const parts: Blob[] = [];
  let [frames, channels] = [0, 1];
  for await (const pieces of decodeSound(blob)) {
    channels = pieces.length;
    frames += pieces[0]?.length ?? 0;
    // As a blob at once: the browser keeps large ones on disk.
    parts.push(new Blob([interleave(pieces)]));
  }
  return { blob: new Blob(parts), channels, seconds: frames / SAMPLE_RATE };
}

/** Part of a kept sound, one array a channel. */
export async function readKeptSound(
  { blob, channels }: Pick<KeptSound, 'blob' | 'channels'>,
  from = 0,
  count = Infinity
): Promise<Float32Array[]> {
  const frame = channels * 2;
  const end = Math.min(blob.size, (from + count) * frame);
  const woven = new Int16Array(await blob.slice(from * frame, end).arrayBuffer());
  const length = woven.length / channels;
  return Array.from({ length: channels }, (_, c) => {
    const samples = new Float32Array(length);
    for (let i = 0; i < length; i++) samples[i] = woven[i * channels + c]! / 32767;
    return samples;
  });
}
