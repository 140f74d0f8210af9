import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { CaptionError } from './cue.ts';
import { parseWebVtt, writeWebVtt } from './webvtt.ts';

test('cues with settings, regions, identifiers, notes, voices, stamps and entities', () => {
  const { cues, unreadable } = parseWebVtt(`\uFEFFWEBVTT - talk\r
X-TIMESTAMP-MAP=LOCAL:00:00\r
\r
NOTE not
a cue --> at all

REGION
id:one
width:40%

STYLE
::cue { color: red }

intro
00:01.500 --> 00:04.000 align:start position:10%
<v.loud Isolde>A <b>twill</b> &amp; a <00:00:02.000><c.yellow>tabby</c></v>
second line

01:00:00.000 --> 01:00:01.000
<ruby>糸<rt>ito</rt></ruby> &#x26; &lrm;late
00:00:05.000 --> 00:00:04.000
backwards

00:xx --> 00:06.000
lost`);
  assert.deepEqual(cues, [
    {
      start: 1.5,
      end: 4,
      text: 'A twill & a tabby\nsecond line',
      speaker: 'Isolde',
      stamps: [{ at: 2, offset: 12 }]
    },
    { start: 3600, end: 3601, text: '糸 (ito) & \u200elate' },
    { start: 5, end: 4, text: 'backwards' }
  ]);
  assert.deepEqual(unreadable, [24]);
});

test('a line with only a space is no end of a cue, unless times follow', () => {
  const { cues } = parseWebVtt(
    'WEBVTT\n\n00:00.080 --> 00:02.000\n \nso<00:00.480><c> today</c>\n\n00:02.000 --> 00:03.000\nwe wind\n \n2\n00:03.000 --> 00:04.000\na warp'
  );
  assert.deepEqual(
    cues.map((c) => c.text.trim()),
    ['so today', 'we wind', 'a warp']
  );
});

test('a file of another kind is refused with its line', () => {
  assert.throws(
    () => parseWebVtt('1\n00:00:01,000 --> 00:00:02,000\nx'),
    (error) => error instanceof CaptionError && error.line === 1
  );
});

test('a time is read as the very number that was written', () => {
  const [cue] = parseWebVtt('WEBVTT\n\n00:01.348 --> 01:00:04.600\na').cues;
  assert.deepEqual([cue?.start, cue?.end], [1.348, 3604.6]);
});

test('what is written reads the same again', () => {
  const cue = fc.record({
    start: fc.integer({ min: 0, max: 9_000_000 }).map((ms) => ms / 1000),
    end: fc.integer({ min: 0, max: 9_000_000 }).map((ms) => ms / 1000),
    text: fc
      .array(fc.constantFrom('a', '<b>', '&amp;', '>', 'twill', '&', '\u00e4'), { minLength: 1 })
      .map((words) => words.join(' '))
  });
  fc.assert(
    fc.property(fc.array(cue), (cues) => {
      assert.deepEqual(
        parseWebVtt(writeWebVtt(cues)).cues,
        cues.map((c) => ({ ...c }))
      );
    })
  );
});

test('no text after the head makes it fail', () => {
  const line = fc.constantFrom(
    ...['00:01.000 --> 00:02.000', '99:99 --> x', '', '<i>', '<', '&#99999999;', 'word', '-->'],
    'NOTE'
  );
  fc.assert(
    fc.property(fc.array(line), (lines) => {
      for (const cue of parseWebVtt(`WEBVTT\n${lines.join('\n')}`).cues)
        assert.ok(Number.isFinite(cue.start) && Number.isFinite(cue.end));
    })
  );
});
