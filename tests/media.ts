import { execFileSync, spawnSync } from 'node:child_process';

export interface Probed {
  streams: { codec_name: string; codec_type: string; width?: number; height?: number }[];
  /** Seconds. */
  duration: number;
  tags: Record<string, string>;
  /** Second at which each begins, and its title. */
  chapters: [start: number, title: string][];
}

/** What ffprobe reads in a file. */
export function probe(path: string): Probed {
  const said = execFileSync(
    'ffprobe',
    ['-v', 'error', '-show_streams', '-show_format', '-show_chapters', '-of', 'json', path],
    { encoding: 'utf8' }
  );
  const { streams, format, chapters } = JSON.parse(said) as {
    streams: Probed['streams'];
    chapters: { start_time: string; tags: { title: string } }[];
    format: { duration: string; tags?: Record<string, string> };
  };
  return {
    streams,
    duration: Number(format.duration),
    tags: format.tags ?? {},
    chapters: chapters.map((c) => [Number(c.start_time), c.tags.title])
  };
}

/** Times of the frames, in seconds. */
export const frameTimes = (path: string): number[] =>
  execFileSync(
    'ffprobe',
    [
      '-v',
      'error',
      '-select_streams',
      'v',
      '-show_entries',
      'packet=pts_time',
      '-of',
      'csv=p=0',
      path
    ],
    { encoding: 'utf8' }
  )
    .split('\n')
    .map((line) => Number.parseFloat(line))
    .filter(Number.isFinite);

function filter(path: string, audio: string): string {
  return spawnSync('ffmpeg', ['-hide_banner', '-i', path, '-af', audio, '-f', 'null', '-'], {
    encoding: 'utf8'
  }).stderr;
}

/** Loudness by EBU R 128: LUFS and dBTP. */
export function loudness(path: string): { lufs: number; peak: number } {
  const said = filter(path, 'ebur128=peak=true');
  const summary = said.slice(said.lastIndexOf('Summary'));
  return {
    lufs: Number(/I:\s+(-?[\d.]+) LUFS/.exec(summary)?.[1]),
    peak: Number(/Peak:\s+(-?[\d.]+) dBFS/.exec(summary)?.[1])
  };
}

/** When sound begins after a silence, in seconds. */
export const soundStarts = (path: string): number[] =>
  [...filter(path, 'silencedetect=noise=-42dB:d=0.15').matchAll(/silence_end: ([\d.]+)/g)].map(
    (m) => Number(m[1])
  );

/** A file made by ffmpeg. */
export function makeMedia(path: string, ...options: string[]): void {
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...options, path]);
}
