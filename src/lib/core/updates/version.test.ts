import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { newUpdateDraft, type UpdateDraft } from './draft.ts';
import { countText } from './limits.ts';
import { updateLimitsSchema } from './placeLimits.ts';
import type { UpdateSource } from './source.ts';
import { versionFor, type VersionPlace } from './version.ts';

const NOW = '2026-05-01T10:00:00.000Z';
const source: UpdateSource = {
  title: 'Retting flax',
  kind: 'post',
  language: 'en',
  link: 'https://notebook.example/a',
  blocks: [
    { kind: 'paragraph', text: 'Flax is laid in rows on the grass, and the dew does the work.' },
    { kind: 'paragraph', text: 'The rows are turned every four days until the fibre comes loose.' }
  ]
};
const picture = { url: 'https://notebook.example/a.png', alt: 'Rows of flax' };
const place = (limits: object, hashtags: string[] = []): VersionPlace => ({
  id: 'n',
  link: 'https://notebook.example/a?utm_source=n',
  hashtags,
  picture,
  limits: updateLimitsSchema.parse({ text: 500, ...limits })
});
const draftOf = (change: Partial<UpdateDraft>): UpdateDraft => ({
  ...newUpdateDraft('item', NOW),
  ...change
});
const version = (
  change: Partial<UpdateDraft>,
  to: VersionPlace,
  shown: typeof picture | null = picture
) => versionFor(source, draftOf(change), { ...to, picture: shown }, NOW);
const kinds = (v: ReturnType<typeof version>) => v.problems.map((p) => p.kind);

test('a place gets a text of its own, its hashtags counted and its link in it', () => {
  const made = version({}, place({ hashtags: 2 }, ['#Flax', '#Dew', '#Field']));
  assert.deepEqual(made.payload.hashtags, ['#Flax', '#Dew']);
  assert.match(made.payload.text, /utm_source=n$/);
  assert.equal(made.length, countText(`${made.payload.text} #Flax #Dew`));
  assert.deepEqual(made.problems, []);
});

test('where there is a button and a title, link and title are not in the text', () => {
  const made = version({}, place({ hasButton: true, title: 100 }));
  assert.ok(!made.payload.text.includes('http') && !made.payload.text.includes('Retting flax'));
  assert.deepEqual(made.payload.button, { label: 'Read it', url: place({}).link });
  assert.ok(made.payload.hasTitle);
});

test('a common text is cut for a place that takes less, and keeps its link', () => {
  const text = 'We laid the flax in rows. The dew came every night. '.repeat(6);
  const made = version({ text }, place({ text: 140 }));
  assert.ok(made.isCut && made.length <= 140);
  assert.match(made.payload.text, /\n\nhttps:\/\/notebook\.example\/a\?utm_source=n$/);
  assert.ok(!version({ text: 'Short.' }, place({})).isCut);
});

test('what was written for one place stands as it is, and is reported when it is too long', () => {
  const made = version({ own: { n: { text: 'x'.repeat(510), hashtags: ['#a'] } } }, place({}));
  assert.equal(made.payload.text.length, 510);
  assert.deepEqual(kinds(made), ['too-long', 'too-many-hashtags']);
});

test('pictures: needed, not taken, and never without a text alternative', () => {
  assert.deepEqual(kinds(version({}, place({ picture: 'required' }), null)), ['picture-needed']);
  assert.deepEqual(kinds(version({}, place({}), { ...picture, alt: ' ' })), [
    'picture-without-text'
  ]);
  assert.equal(version({}, place({ picture: 'none' })).payload.picture, null);
  assert.equal(version({ shown: 'nothing' }, place({})).payload.picture, null);
  // A place that needs one gets it all the same.
  assert.deepEqual(
    version({ shown: 'nothing' }, place({ picture: 'required' })).payload.picture,
    picture
  );
});

test('polls and quizzes are held against the limits of the place', () => {
  const option = (text: string, right = false) => ({ text, right });
  const limits = { poll: { question: 30, option: 10, most: 3 }, hasQuiz: true };
  const ask = (form: 'poll' | 'quiz', question: string, options: ReturnType<typeof option>[]) =>
    version({ form, [form]: { question, options, why: 'So it says.' } }, place(limits));
  const poll = ask('poll', 'Cotton or linen?', [option('Cotton', true), option('Linen')]);
  assert.deepEqual(poll.problems, []);
  assert.equal(poll.payload.closes, '2026-05-04T10:00:00.000Z');
  assert.ok(poll.payload.options.every((o) => !o.right) && poll.payload.why === '');
  assert.deepEqual(kinds(ask('quiz', 'Cotton?', [option('a'), option('b')])), ['not-one-right']);
  assert.deepEqual(
    kinds(
      ask('poll', 'q'.repeat(31), [option('a'), option('A'), option(''), option('b'.repeat(11))])
    ),
    ['question-long', 'too-many-options', 'option-empty', 'option-long', 'options-alike']
  );
  assert.deepEqual(kinds(version({ form: 'poll' }, place({}))), ['no-polls-here']);
  assert.deepEqual(kinds(version({ form: 'quiz' }, place({ ...limits, hasQuiz: false }))), [
    'no-quizzes-here'
  ]);
  assert.deepEqual(kinds(version({ form: 'poll' }, place(limits))), ['no-text']);
});

test('whatever is proposed or cut is within the limit', () => {
  fc.assert(
    fc.property(
      fc.option(fc.string({ unit: 'grapheme', maxLength: 400 })),
      fc.record({
        text: fc.integer({ min: 60, max: 600 }),
        hashtags: fc.nat(5),
        hasButton: fc.boolean()
      }),
      fc.constantFrom(null, 23),
      (text, limits, linkWeight) => {
        const tags = ['#Flax', '#Dew', '#Rows', '#Grass', '#Fibre'].slice(0, 2);
        const made = version({ text }, place({ ...limits, linkWeight }, tags));
        assert.ok(made.length <= made.limit, `${made.length} of ${made.limit}`);
      }
    )
  );
});

const clip = { id: 'own:c', name: 'rows.webm', type: 'video/webm', seconds: 20, bytes: 2_000_000 };
const TAKES = { clip: { seconds: 45, bytes: 5_000_000, types: ['video/webm'] } };

test('a clip stands for a picture where clips are taken, and is reported where it does not fit', () => {
  const made = version({ shown: 'clip', clip }, place({ ...TAKES, picture: 'required' }));
  assert.deepEqual(made.problems, []);
  assert.equal(made.payload.picture, null);
  assert.deepEqual(made.payload.clip, {
    url: 'own:c',
    alt: 'Retting flax',
    seconds: 20,
    type: 'video/webm'
  });
  const kindsOf = (change: object, limits: object) =>
    kinds(version({ shown: 'clip', clip: { ...clip, ...change } }, place(limits)));
  assert.deepEqual(kindsOf({}, {}), ['no-clips-here']);
  assert.deepEqual(kindsOf({ seconds: 46, bytes: 6_000_000 }, TAKES), ['clip-long', 'clip-large']);
  assert.deepEqual(kindsOf({ type: 'video/mp4' }, TAKES), ['clip-type']);
  assert.deepEqual(kinds(version({ shown: 'clip' }, place(TAKES))), ['clip-missing']);
  assert.deepEqual(kinds(version({ shown: 'clip', clip, alt: ' ' }, place(TAKES))), [
    'picture-without-text'
  ]);
});

test('a text that is too long becomes a thread only where there are threads', () => {
  const text = 'We laid the flax in rows. The dew came every night. '.repeat(12).trim();
  const told = version({ text, inParts: true }, place({ text: 200, hasThreads: true }));
  assert.ok(!told.isCut && told.more.length >= 3);
  assert.match(told.payload.text, /\(1\/\d\)$/);
  assert.ok([told.payload.text, ...told.more].every((part) => countText(part) <= 200));
  assert.match(told.more.at(-1) ?? '', /utm_source=n \(\d\/\d\)$/);
  assert.ok(version({ text, inParts: true }, place({ text: 200 })).isCut);
  assert.ok(version({ text }, place({ text: 200, hasThreads: true })).isCut);
  const own = version(
    { inParts: true, own: { n: { text, hashtags: null } } },
    place({ text: 200, hasThreads: true })
  );
  assert.deepEqual(own.problems, []);
});
