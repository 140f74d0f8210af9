import { readFileSync, readdirSync } from 'node:fs';
import { speak, type Speech } from '../../hosts/world/speech.ts';
import type { Cue } from '../../src/lib/core/captions/cue.ts';
import { wordsOfCue } from '../../src/lib/core/captions/words.ts';
import { bare } from '../../src/lib/core/text/bare.ts';

/** One is spoken without stops in its very source, so it has no sentence ends to compare with. */
const ROUGH = 'straight-selvedges';

export interface DemoTalk {
  id: string;
  speech: Speech;
  isEnglish: boolean;
  hasStops: boolean;
  /** Parameters were searched on the first half; figures are reported on the second. */
  half: 'tune' | 'report';
}

/** The talks of the demo world, with the chapter starts that were set when they were written. */
export const demoTalks = (): DemoTalk[] =>
  readdirSync('hosts/world/speech')
    .map((name) => name.replace('.txt', ''))
    .map((id, i) => ({
      id,
      speech: speak(id, id === ROUGH ? 'rough' : 'edited'),
      isEnglish: !id.startsWith('kette'),
      hasStops: id !== ROUGH,
      half: i % 2 === 0 ? 'tune' : 'report'
    }));

/** Captions as a machine makes them: in lower case, without marks. */
export const stripped = (cues: readonly Cue[]): Cue[] =>
  cues.map((cue) => ({
    ...cue,
    text: cue.text.toLowerCase().replace(/[^\p{L}\p{N}\s'’-]/gu, '')
  }));

/** The same words in lines of about six, one right after the other: no pause and no break tells anything. */
export function evenLines(cues: readonly Cue[]): Cue[] {
  const words = cues.flatMap((cue, i) => wordsOfCue(cue, i)).filter((w) => bare(w.text));
  const lines: Cue[] = [];
  for (let i = 0; i < words.length; i += 6) {
    const row = words.slice(i, i + 6);
    lines.push({
      start: row[0]?.start ?? 0,
      end: words[i + 6]?.start ?? row.at(-1)?.end ?? 0,
      text: row.map((w) => w.text).join(' ')
    });
  }
  return lines;
}

/** So many words of spoken how-to, in automatic captions of about six words each. */
export function longCaptions(words: number): Cue[] {
  const folder = 'bin/train/talks';
  const texts = readdirSync(folder).map((name) => readFileSync(`${folder}/${name}`, 'utf8'));
  const all: string[] = [];
  for (let round = 0; all.length < words; round++) {
    for (const text of texts) {
      // Each round is another talk: other numbers and other things are spoken of.
      all.push(
        ...text
          .toLowerCase()
          .replace(/[^\p{L}\p{N}\s'-]/gu, '')
          .split(/\s+/)
          .map((w) => (round > 0 && w.length > 6 ? `${w}${'abcdefgh'[round % 8]}` : w))
      );
    }
  }
  const cues: Cue[] = [];
  for (let i = 0; i < words; i += 6) {
    const row = all.slice(i, Math.min(words, i + 6));
    cues.push({ start: i * 0.4, end: (i + row.length) * 0.4, text: row.join(' ') });
  }
  return cues;
}
