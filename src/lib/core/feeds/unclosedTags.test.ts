import assert from 'node:assert/strict';
import { test } from 'node:test';
import { hasManyUnclosedTags } from './unclosedTags.ts';

test('what people write has tags that end, or a few that do not', () => {
  for (const xml of [
    '',
    'no markup at all',
    `<feed>${'<entry a="x > y"><title>1 &lt; 2</title></entry>'.repeat(5_000)}</feed>`,
    `<feed><![CDATA[${"<p>don't".repeat(5_000)}]]></feed>`,
    `<feed><!-- ${'<'.repeat(5_000)} --></feed>`,
    `${'<a>'.repeat(1_000)}<b <b <b <b`
  ])
    assert.equal(hasManyUnclosedTags(xml), false, xml.slice(0, 40));
});

test('tags without end are found; one quotation mark that never closes is no trouble', () => {
  assert.equal(hasManyUnclosedTags('<a '.repeat(1_000)), true);
  assert.equal(hasManyUnclosedTags(`<t>${'<a>'.repeat(50)}<a b="${'<a>'.repeat(1_000)}`), false);
});
