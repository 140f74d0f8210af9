import { fitToLength } from './plain.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { CaptionError } from './cue.ts';
import { cuesFromSentences } from './fromSentences.ts';
import { formatOf, readCaptions } from './read.ts';
import { parseSrt, writeSrt } from './srt.ts';
import { readTimestamp, writeTimestamp } from './timestamp.ts';

test('SRT with its usual faults', () => {
  const { cues, unreadable } = parseSrt(`1
00:00:01,000 --> 00:00:02,500
{\\an8}<i>Wind</i> a warp

00:00:03.5 -> 0:00:04
no number, a short arrow
3
00:00:05, 000 --> 00:00:06,000
no blank line before

with a blank line inside

4
00:00:xx,000 --> 00:00:08,000
lost

5
00:00:09,000 --> 00:00:10,000
2
`);
  assert.deepEqual(
    cues.map((c) => [c.start, c.end, c.text]),
    [
      [1, 2.5, 'Wind a warp'],
      [3.5, 4, 'no number, a short arrow'],
      [5, 6, 'no blank line before\nwith a blank line inside'],
      [9, 10, '2']
    ]
  );
  assert.deepEqual(unreadable, [14]);
});

test('SRT is written as it is read', () => {
  const cues = [
    { start: 1.25, end: 3, text: 'One\ntwo' },
    { start: 3661.004, end: 3662, text: 'Three' }
  ];
  assert.deepEqual(parseSrt(writeSrt(cues)).cues, cues);
});

test('plain text with times, and without', () => {
  const timed = readCaptions('0:00\nWind the warp.\n0:05 Tie it.\n(0:09) - Chain it.');
  assert.deepEqual(
    timed.cues.map((c) => [c.start, c.text]),
    [
      [0, 'Wind the warp.'],
      [5, 'Tie it.'],
      [9, 'Chain it.']
    ]
  );
  assert.ok(timed.isTimed);
  const untimed = readCaptions('One two three four five.\nAt 10:30 we wind.');
  assert.equal(untimed.isTimed, false);
  assert.deepEqual(
    untimed.cues.map((c) => [c.start, c.end]),
    [
      [0, 2],
      [2, 3.6]
    ]
  );
});

test('what a file is shows in its first lines; without words it is refused', () => {
  assert.equal(formatOf('\uFEFFWEBVTT\n'), 'vtt');
  assert.equal(formatOf('1\n00:00:01,000 --> 00:00:02,000\nx'), 'srt');
  assert.equal(formatOf('Wind the warp --> then stop'), 'txt');
  for (const empty of ['', 'WEBVTT\n\n00:01.000 --> 00:02.000\n♪', '  \n '])
    assert.throws(() => readCaptions(empty), CaptionError);
});

test('times there and back', () => {
  for (const bad of ['', '1', '1:99', '-1:00', 'a:00']) assert.equal(readTimestamp(bad), null);
  assert.equal(readTimestamp('1:02:03.4'), 3723.4);
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 400_000_000 }), (ms) => {
      assert.ok(Math.abs((readTimestamp(writeTimestamp(ms / 1000)) ?? -1) - ms / 1000) < 1e-6);
      assert.ok(Math.abs((readTimestamp(writeTimestamp(ms / 1000, ',')) ?? -1) - ms / 1000) < 1e-6);
    })
  );
});

test('sentences as captions: two lines of 42 characters, no word lost, times rising', () => {
  const word = fc.constantFrom('the', 'warp', 'selvedge', 'a', 'countermarch', 'is');
  fc.assert(
    fc.property(
      fc.array(fc.array(word, { minLength: 1, maxLength: 40 }), { maxLength: 6 }),
      (texts) => {
        const words = texts.flat().map((text, i) => ({ text, start: i, end: i + 1, cue: 0 }));
        let from = 0;
        const sentences = texts.map((t) => {
          const to = from + t.length;
          const sentence = { text: t.join(' '), start: from, end: to, from, to };
          from = to;
          return sentence;
        });
        const cues = cuesFromSentences({ sentences, words });
        for (const [i, cue] of cues.entries()) {
          const lines = cue.text.split('\n');
          assert.ok(lines.length <= 2 && lines.every((line) => line.length <= 42));
          assert.ok(cue.end > cue.start && cue.start >= (cues[i - 1]?.end ?? 0));
        }
        assert.equal(cues.map((c) => c.text.replace('\n', ' ')).join(' '), texts.flat().join(' '));
      }
    )
  );
});

test('a picture that is given as captions is refused by what is in it', () => {
  const png = '\u0089PNG\r\n\u001a\n\u0000\u0000\u0000\rIHDR with some words in it';
  assert.throws(() => readCaptions(png), /no text/);
  assert.doesNotThrow(() => readCaptions('Gr\ufffd\ufffde aus der Werkstatt'));
});

test('a text without times is spread over its video, and keeps its order', () => {
  const { cues, isTimed } = readCaptions('First we wind the warp.\n\nThen we thread it.');
  assert.equal(isTimed, false);
  const spread = fitToLength(cues, 60);
  assert.ok(Math.abs((spread.at(-1)?.end ?? 0) - 60) < 1e-9);
  assert.ok(spread.every((c, i) => c.start >= (spread[i - 1]?.end ?? 0)));
  assert.deepEqual(fitToLength(cues, 0), cues);
});
