import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { CaptionError, parseWebVtt } from './webvtt.ts';

test('cues with settings, identifiers, notes, spans and entities', () => {
  const cues = parseWebVtt(`\uFEFFWEBVTT - talk\r
X-TIMESTAMP-MAP=LOCAL:00:00\r
\r
NOTE not
a cue

STYLE
::cue { color: red }

intro
00:01.500 --> 00:04.000 align:start position:10%
<v Isolde>A <b>twill</b> &amp; a <00:00:02.000><c.yellow>tabby</c></v>
second line

01:00:00.000 --> 01:00:01.000
late
00:00:05.000 --> 00:00:04.000
backwards`);
  assert.deepEqual(cues, [
    { start: 1.5, end: 4, text: 'A twill & a tabby\nsecond line' },
    { start: 3600, end: 3601, text: 'late' }
  ]);
});

test('a file of another kind is refused with its line', () => {
  assert.throws(
    () => parseWebVtt('1\n00:00:01,000 --> 00:00:02,000\nx'),
    (error) => error instanceof CaptionError && error.line === 1
  );
});

test('any text after the head gives cues that end after they start', () => {
  const line = fc.constantFrom(
    '00:01.000 --> 00:02.000',
    '99:99 --> x',
    '',
    '<i>',
    'word',
    '-->',
    '00:00:03.000 --> 00:00:02.000'
  );
  fc.assert(
    fc.property(fc.array(line), (lines) => {
      for (const cue of parseWebVtt(`WEBVTT\n${lines.join('\n')}`)) assert.ok(cue.end > cue.start);
    })
  );
});
