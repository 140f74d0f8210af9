import assert from 'node:assert/strict';
import { test } from 'node:test';
import { readCaptions } from './read.ts';
import { tidyCaptions } from './tidy.ts';

const at = (seconds: number): string => `00:00:${seconds.toFixed(3).padStart(6, '0')}`;

/** Forty-eight words of one pace in lines of eight, each with its own time, silent after some. */
function stamped(silentAfter: ReadonlySet<number>): string {
  let t = 0;
  const words = Array.from({ length: 48 }, (_, i) => {
    const start = t;
    t += 0.3 + (silentAfter.has(i) ? 1 : 0);
    return { text: 'warp', start };
  });
  const lines: string[] = [];
  for (let i = 0; i < words.length; i += 8) {
    const line = words.slice(i, i + 8);
    const end = words[i + 8]?.start ?? t;
    const text = line
      .map(({ text, start }, k) => (k > 0 ? `<${at(start)}><c>${text}${i + k}</c>` : `${text}${i}`))
      .join(' ');
    lines.push(`${at(line[0]?.start ?? 0)} --> ${at(end)}\n${text}\n`);
  }
  return `WEBVTT\n\n${lines.join('\n')}`;
}

test('where every word has its own time, a silence is seen after the word that it follows', () => {
  const silent = new Set([5, 7, 30]);
  const { words } = tidyCaptions(readCaptions(stamped(silent), 'vtt'));
  assert.equal(words.length, 48);
  const gaps = words.flatMap((word, i) =>
    (words[i + 1]?.start ?? word.end) - word.end > 0.5 ? [i] : []
  );
  assert.deepEqual(gaps, [...silent]);
});

test('where only cues have times, words stay as long as their share of the cue', () => {
  const { words } = tidyCaptions(
    readCaptions('WEBVTT\n\n00:00.000 --> 00:04.000\nwind the warp on\n', 'vtt')
  );
  for (const [i, word] of words.entries()) if (i > 0) assert.equal(word.start, words[i - 1]?.end);
});
