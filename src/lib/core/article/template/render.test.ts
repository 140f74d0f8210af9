import assert from 'node:assert/strict';
import { test } from 'node:test';
import { writeHtml } from '../../markup/html.ts';
import { bodyOf, withoutMarks } from './render.ts';

test('figures that are compared are a table, whose cells know their seconds on the desk only', () => {
  const row = { name: 'Wool', value: 'Ten minutes', start: 2, end: 4, from: 1 };
  const html = writeHtml(bodyOf([{ kind: 'table', rows: [row] }])[0]!);
  assert.equal(
    html,
    '<table><tbody><tr><th scope="row"><p data-start="2.00" data-end="4.00">Wool</p></th>' +
      '<td><p data-start="2.00" data-end="4.00">Ten minutes</p></td></tr></tbody></table>'
  );
  assert.equal(
    withoutMarks(html),
    '<table><tbody><tr><th scope="row">Wool</th><td>Ten minutes</td></tr></tbody></table>'
  );
});

test('a cell with several paragraphs keeps them', () => {
  const html = '<table><tbody><tr><td><p>One</p><p>Two</p></td></tr></tbody></table>';
  assert.equal(withoutMarks(html), html);
});
