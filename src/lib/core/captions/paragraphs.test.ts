import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { toParagraphs, withoutRolling } from './paragraphs.ts';

const cue = (start: number, text: string, length = 2) => ({ start, end: start + length, text });

test('rolling captions are said once', () => {
  const cues = [
    cue(0, 'so today I want'),
    cue(2, 'so today I want\nto talk about'),
    cue(4, 'to talk about\nselvedges'),
    cue(6, 'selvedges', 1)
  ];
  assert.equal(
    withoutRolling(cues)
      .map((c) => c.text)
      .join(' '),
    'so today I want to talk about selvedges'
  );
});

test('a line that is really said twice stays', () => {
  const cues = [cue(0, 'over and under'), cue(5, 'over and under')];
  assert.equal(withoutRolling(cues).length, 2);
});

test('paragraphs begin at given times and after long pauses', () => {
  const cues = [cue(0, 'One.'), cue(2, 'Two.'), cue(4.2, 'Three.'), cue(20, 'Four.')];
  assert.deepEqual(
    toParagraphs(cues, [0, 4]).map((p) => [p.start, p.end, p.text]),
    [
      [0, 4, 'One. Two.'],
      [4.2, 6.2, 'Three.'],
      [20, 22, 'Four.']
    ]
  );
});

test('no word is lost, times rise, and none is longer than it may be', () => {
  const words = fc.array(fc.constantFrom('warp', 'weft.', 'reed', 'shed!', 'heddle'), {
    minLength: 1,
    maxLength: 12
  });
  fc.assert(
    fc.property(
      fc.array(fc.tuple(words, fc.double({ min: 0, max: 6, noNaN: true })), { maxLength: 60 }),
      (rows) => {
        let at = 0;
        const cues = rows.map(([w, pause], i) => {
          at += pause;
          const made = { start: at, end: at + 1, text: `${i} ${w.join(' ')}` };
          at += 1;
          return made;
        });
        const paragraphs = toParagraphs(cues);
        assert.equal(paragraphs.map((p) => p.text).join(' '), cues.map((c) => c.text).join(' '));
        for (const [i, p] of paragraphs.entries()) {
          assert.ok(p.end > p.start && p.start >= (paragraphs[i - 1]?.end ?? 0));
          assert.ok(p.text.length < 1000);
        }
      }
    )
  );
});
