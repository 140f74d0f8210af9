import type { Cue } from '../world/speech.ts';

const TIMES = /^((?:\d+:)?\d{2}:\d{2}\.\d{3}) --> ((?:\d+:)?\d{2}:\d{2}\.\d{3})/;
const seconds = (stamp: string): number =>
  stamp.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);

/** The cues of a plain WebVTT file. What cannot be read is passed over. */
export function readWebVtt(text: string): Cue[] {
  return text
    .replace(/\r\n?/g, '\n')
    .split(/\n{2,}/)
    .flatMap((block) => {
      const lines = block.split('\n');
      const at = lines.findIndex((line) => TIMES.test(line));
      const [, start, end] = TIMES.exec(lines[at] ?? '') ?? [];
      const said = lines
        .slice(at + 1)
        .join('\n')
        .replace(/<[^<>]*>/g, '')
        .replaceAll('&lt;', '<')
        .replaceAll('&gt;', '>')
        .replaceAll('&amp;', '&')
        .trim();
      return start && end && said ? [{ start: seconds(start), end: seconds(end), text: said }] : [];
    });
}
