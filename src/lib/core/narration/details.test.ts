import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { anItem } from '../testing.ts';
import {
  checkDetails,
  DESCRIPTION_TEMPLATE,
  fillDescription,
  fittingTags,
  isHeldBack,
  postFields,
  tagsLength,
  USUAL_LIMITS,
  videoDetailsSchema
} from './details.ts';

const post = anItem({
  id: 'p',
  kind: 'post',
  title: 'Flax',
  url: 'https://blog.example/flax',
  summary: 'A field that flowers until noon.',
  author: 'Isolde'
});
const fields = (chapters: { start: number; title: string }[] = []) =>
  postFields({
    post,
    chapters,
    now: '2026-11-25T10:00:00Z',
    blog: { title: 'Notebook', url: 'https://blog.example/' },
    channel: { title: 'Loomworks', url: 'https://channel.example/' }
  });
const details = videoDetailsSchema.parse({
  title: 'Flax',
  description: DESCRIPTION_TEMPLATE,
  tags: ['flax'],
  category: '',
  language: 'en',
  visibility: 'public',
  on: '',
  placeIds: ['c'],
  embeds: true
});
const check = (changes: object, description = 'https://blog.example/flax') =>
  checkDetails(
    { ...details, ...changes },
    { text: description, problems: [] },
    USUAL_LIMITS,
    '2026-11-25T10:00'
  ).map((f) => (f.kind === 'too-long' ? `${f.kind} ${f.what} ${f.length}` : f.kind));

test('a description: the link first, one wording of several, chapters, credit; the same each time', () => {
  const chapters = [
    { start: 0, title: 'Flax' },
    { start: 65, title: 'Retting' }
  ];
  const { text, problems } = fillDescription(DESCRIPTION_TEMPLATE, fields(chapters));
  const lines = text.split('\n');
  assert.equal(lines[0], 'https://blog.example/flax');
  assert.match(text, /0:00 Flax\n1:05 Retting/);
  assert.match(text, /Text: Isolde$/);
  assert.match(text, /A field that flowers until noon\./);
  assert.doesNotMatch(text, /[{}|]|\n\n\n/);
  assert.deepEqual(
    problems.filter((p) => p.kind !== 'empty-field'),
    []
  );
  assert.equal(fillDescription(DESCRIPTION_TEMPLATE, fields(chapters)).text, text);
  assert.doesNotMatch(fillDescription(DESCRIPTION_TEMPLATE, fields()).text, /0:00/);
});

test('what is over a limit or missing is reported and held back', () => {
  assert.deepEqual(check({}), []);
  assert.deepEqual(check({ title: 'x'.repeat(101) }), ['too-long title 101']);
  assert.deepEqual(check({ title: '🧵'.repeat(100) }), []);
  assert.deepEqual(check({ tags: ['x'.repeat(249), 'y'.repeat(250)] }), ['too-long tags 501']);
  assert.deepEqual(check({}, `https://a.example ${'x'.repeat(5000)}`), [
    'too-long description 5018'
  ]);
  assert.deepEqual(check({ title: ' ', placeIds: [] }), ['no-title', 'no-channel']);
  assert.deepEqual(check({ visibility: 'dated' }), ['no-date']);
  assert.deepEqual(check({ visibility: 'dated', on: '2026-11-25T09:00' }), ['past-date']);
  assert.deepEqual(check({ title: 'a < b' }), ['angle-brackets']);
  assert.equal(isHeldBack([{ kind: 'no-link' }]), false);
  assert.equal(isHeldBack([{ kind: 'no-title' }]), true);
});

test('tags are cut to what the limit takes, each once, never inside one', () => {
  fc.assert(
    fc.property(
      fc.array(fc.string({ maxLength: 30 })),
      fc.integer({ min: 0, max: 120 }),
      (tags, limit) => {
        const kept = fittingTags(tags, limit);
        assert.ok(tagsLength(kept) <= limit || kept.length === 0);
        assert.equal(new Set(kept.map((k) => k.toLowerCase())).size, kept.length);
      }
    )
  );
  assert.deepEqual(fittingTags(['Warp', 'warp', ' a,b ', '<x>'], 500), ['Warp', 'a b', 'x']);
});
