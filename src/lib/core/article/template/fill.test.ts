import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { anItem } from '../../testing.ts';
import { fieldsOf, listFields } from './fields.ts';
import { chooseVariants, fill, newBudget } from './fill.ts';

const fields = fieldsOf({
  video: anItem({ id: 'v', kind: 'video', title: 'Warp & <weft>', licence: '', tags: ['a', 'b'] }),
  description: 'First line\nstill first\n\nSecond',
  chapters: [{ start: 0, title: 'Why' }],
  words: 12,
  channel: { title: 'Loomworks', url: 'https://c.example/' },
  blog: { title: 'Notebook', url: 'https://b.example/' },
  now: '2026-06-01T10:00:00.000Z'
});

test('fields are filled, escaped in HTML and plain in text', () => {
  assert.equal(
    fill('<b>{{ video.title }}</b>', fields, 'html', 's').text,
    '<b>Warp &amp; &lt;weft&gt;</b>'
  );
  assert.equal(
    fill('{{ video.title }} {{ transcript.words }}', fields, 'text', 's').text,
    'Warp & <weft> 12'
  );
  assert.equal(fill('{{ video.summary }}', fields, 'text', 's').text, 'First line still first');
});

test('what is wrong with a template is reported as data', () => {
  assert.deepEqual(fill('{{ video.licence }}', fields, 'text', 's').problems, [
    { kind: 'empty-field', path: 'video.licence' }
  ]);
  assert.deepEqual(fill('{{ video.titel }}', fields, 'text', 's').problems, [
    { kind: 'unknown-field', path: 'video.titel' }
  ]);
  const broken = fill('a {{ video.title', fields, 'text', 's');
  assert.equal(broken.problems[0]?.kind, 'syntax');
  assert.equal(broken.text, 'a {{ video.title', 'nothing is lost');
});

test('a template cannot run on for ever nor reach beyond its fields', () => {
  const endless = fill('{% for i in (1..100000000) %}x{% endfor %}', fields, 'text', 's');
  assert.equal(endless.problems[0]?.kind, 'syntax');
  assert.equal(fill('{{ video.constructor }}', fields, 'text', 's').text, '');
  assert.equal(
    fill("{% include '/etc/passwd' %}", fields, 'text', 's').problems[0]?.kind,
    'syntax'
  );
});

test('every field offered exists', () => {
  for (const { path } of listFields(fields)) {
    const { problems } = fill(`{{ ${path} }}`, fields, 'text', 's');
    assert.ok(
      problems.every((p) => p.kind === 'empty-field'),
      path
    );
  }
});

test('variants: the same item gets the same wording, and all are used', () => {
  const template = '{Watch|See|Look} at {{ video.url }} {% if true %}{a|b}{% endif %}';
  fc.assert(
    fc.property(fc.string(), (seed) => {
      const once = chooseVariants(template, seed);
      assert.equal(chooseVariants(template, seed), once);
      assert.match(
        once,
        /^(Watch|See|Look) at \{\{ video\.url \}\} \{% if true %\}[ab]\{% endif %\}$/
      );
    })
  );
  const seen = new Set(
    Array.from({ length: 60 }, (_, i) => chooseVariants('{Watch|See|Look}', `v${i}`))
  );
  assert.deepEqual([...seen].sort(), ['Look', 'See', 'Watch']);
});

test('a variant without its closing brace is a finding; fields and whole variants are none', () => {
  const problems = (text: string) =>
    fill(text, { video: { title: 'Twill' } }, 'text', 's').problems;
  assert.deepEqual(problems('See {this|that'), [
    { kind: 'unclosed-variant', detail: '{this|that' }
  ]);
  assert.equal(problems('{a|b and {c|d}')[0]?.kind, 'unclosed-variant');
  assert.deepEqual(problems('{a|b} {{ video.title }}'), []);
  assert.deepEqual(problems('{{ video.title | upcase }}'), []);
});

test('what repeats without end is told in words', () => {
  const { problems } = fill('{% for i in (1..99999999) %}x{% endfor %}', {}, 'text', 'seed');
  assert.deepEqual(problems, [{ kind: 'syntax', detail: 'it is too long, or repeats too often.' }]);
});

test('a machine that stalls while a wording is filled does not make it wrong', () => {
  let reads = 0;
  const fields = {
    get stalling() {
      const until = performance.now() + (++reads === 2 ? 450 : 0);
      while (performance.now() < until);
      return 'madder';
    },
    name: 'Orla'
  };
  const budget = newBudget();
  const filled = fill('{{ stalling }} by {{ name }}', fields, 'text', 'a', budget);
  assert.deepEqual(filled, { text: 'madder by Orla', problems: [] });
  assert.deepEqual(fill('{{ name }}', fields, 'text', 'a', budget).problems, []);
});
