/**
 * Makes the clips of the demo world: `node --import tsx hosts/world/make-clips.ts`. Needs
 * Debian's ffmpeg and fonts-dejavu-core. Each clip is a cloth that grows as the talk goes on,
 * with the chapter and the time written on it, so that a picture tells where it was taken.
 */
import { once } from 'node:events';
import { mkdirSync, statSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { Resvg } from '@resvg/resvg-js';
import { clock } from '../channel/pages.ts';
import { clothSvg } from './drawdown.ts';
import { worldVideosAt, type Video } from './world.ts';

/** Seconds that one frame stands. */
const HOLD = 2;

async function make(video: Video, path: string): Promise<void> {
  const ffmpeg = spawn(
    'ffmpeg',
    [
      ...['-y', '-loglevel', 'error', '-f', 'image2pipe', '-framerate', `1/${HOLD}`, '-i', '-'],
      ...['-c:v', 'libvpx-vp9', '-b:v', '0', '-crf', '48', '-g', '10', '-row-mt', '1'],
      ...['-deadline', 'good', '-cpu-used', '5', '-pix_fmt', 'yuv420p', '-r', `1/${HOLD}`],
      ...['-fflags', '+bitexact', '-flags:v', '+bitexact', '-t', String(video.duration), path]
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

const folder = fileURLToPath(new URL('./clips/', import.meta.url));
mkdirSync(folder, { recursive: true });
const only = process.argv.slice(2);
for (const video of worldVideosAt(0, '')) {
  if (only.length && !only.includes(video.id)) continue;
  const path = `${folder}${video.id}.webm`;
  await make(video, path);
  console.log(
    `${video.id}: ${clock(video.duration)}, ${Math.round(statSync(path).size / 1024)} KB`
  );
}
