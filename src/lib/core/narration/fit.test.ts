import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { breakLines, fitText, type FitOptions, type Measure } from './fit.ts';

/** Each character is one unit wide, at any size a half of it. */
const even = (text: string): number => [...text].length;
const half: Measure = (text, { size }) => ([...text].length * size) / 2;
const box: FitOptions = {
  width: 400,
  height: 200,
  family: 'serif',
  weight: 400,
  largest: 80,
  smallest: 20,
  lineHeight: 1.25
};

test('lines end at spaces, and after hyphens and dashes', () => {
  assert.deepEqual(breakLines('wind the warp', 9, even), ['wind the', 'warp']);
  assert.deepEqual(breakLines('four-shaft twill', 7, even), ['four-', 'shaft', 'twill']);
});

test('a word that is wider than a line is cut, never inside a character', () => {
  assert.deepEqual(breakLines('aaaaabbbbbcc', 5, even), ['aaaaa', 'bbbbb', 'cc']);
  const family = '👩‍👩‍👧';
  const lines = breakLines(family.repeat(3), 6, even);
  assert.deepEqual(lines, [family, family, family]);
});

test('scripts without spaces are broken between words, and no mark begins a line', () => {
  const lines = breakLines('糸を織機に通します。次に筬を引きます。', 6, even);
  assert.ok(lines.length > 2);
  assert.equal(lines.join(''), '糸を織機に通します。次に筬を引きます。');
  for (const line of lines) assert.doesNotMatch(line, /^[。、]/);
});

test('no line is wider than it may be, and no letter is lost', () => {
  const text = fc.array(fc.stringMatching(/^[a-zäß]{1,14}$/), { minLength: 1, maxLength: 30 });
  fc.assert(
    fc.property(text, fc.integer({ min: 3, max: 30 }), (words, width) => {
      const lines = breakLines(words.join(' '), width, even);
      for (const line of lines) assert.ok(even(line) <= width, line);
      assert.equal(lines.join('').replace(/ /g, ''), words.join(''));
    })
  );
});

test('a short text is set as large as it may be, in lines as even as they can be', () => {
  const short = fitText('Reeds', box, half);
  assert.deepEqual([short.size, short.pages], [80, [['Reeds']]]);
  const two = fitText('one two three four', { ...box, largest: 60 }, half);
  assert.equal(two.pages.length, 1);
  const [first = '', second = ''] = two.pages[0] ?? [];
  assert.ok(Math.abs(first.length - second.length) <= 4, `${first} | ${second}`);
});

test('whatever is set stays in its box, at no size under the floor, with nothing left out', () => {
  const text = fc.array(fc.stringMatching(/^[a-z]{1,24}$/), { minLength: 1, maxLength: 120 });
  fc.assert(
    fc.property(text, (words) => {
      const { size, pages } = fitText(words.join(' '), box, half);
      assert.ok(size >= box.smallest && size <= box.largest);
      for (const lines of pages) {
        assert.ok(lines.length * size * box.lineHeight <= box.height + 1e-9);
        for (const line of lines) assert.ok((line.length * size) / 2 <= box.width);
      }
      assert.equal(pages.flat().join('').replace(/ /g, ''), words.join(''));
      // A page more only where one is not enough at the floor.
      if (pages.length > 1) assert.equal(size, box.smallest);
    }),
    { numRuns: 60 }
  );
});
