import assert from 'node:assert/strict';
import { test } from 'node:test';
import { renameHeading } from './renameHeading.ts';

test('the heading of a chapter and its line in the list follow its title', () => {
  const html =
    '<ol><li><a href="#"><time>0:00</time></a> Warp &amp; weft</li></ol><h2 data-start="0">Warp &amp; weft</h2><p>Warp &amp; weft</p>';
  assert.equal(
    renameHeading(html, 'Warp & weft', 'The $1 warp'),
    '<ol><li><a href="#"><time>0:00</time></a> The $1 warp</li></ol><h2 data-start="0">The $1 warp</h2><p>Warp &amp; weft</p>'
  );
});

test('a heading that somebody wrote stays', () => {
  const html = '<h2>My own words (1)</h2>';
  assert.equal(renameHeading(html, 'Words (1)', 'Others'), html);
  assert.equal(renameHeading(html, '', 'Others'), html);
});
