import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { textBlocks } from '../markup/textBlocks.ts';
import { cutText } from './cut.ts';
import { asHashtag, hashtags } from './hashtags.ts';
import { countText, graphemesOf } from './limits.ts';
import { LINK_TAG_PATTERN, tagLink } from './linkTags.ts';
import { shortText } from './shortText.ts';
import { plainSentence, type UpdateSource } from './source.ts';
import { keyTerms } from './terms.ts';
import { threadOf } from './thread.ts';

const POST = `<h1>Retting flax in the dew</h1>
<p>Flax is laid in rows on the grass and left to the dew. The dew and the fungi eat the glue
that holds the fibre to the stalk [1]. This takes three to six weeks.</p>
<h2>Turning</h2>
<p>Turn the rows every four days. Flax that is retted too long loses its strength, and flax that is
retted too short will not break.</p><p>So we look at it every morning.</p>`;
const source: UpdateSource = {
  title: 'Retting flax in the dew',
  kind: 'post',
  language: 'en',
  link: 'https://notebook.example/retting-flax',
  blocks: textBlocks(POST)
};

/** Texts as people write them in many scripts: families of emoji, marks, right to left, no spaces. */
const anyText = fc
  .array(
    fc.oneof(
      fc.constantFrom(
        ...['👩‍👩‍👧‍👦', '🏳️‍🌈', '👍🏽', 'e\u0301', 'ก็', 'क्षि', 'שָׁלוֹם', 'مرحبا', '織物', '경사', 'ß', '🇨🇭'],
        ...[
          'warp',
          'and',
          'weft.',
          'Why?',
          '(so)',
          '“said”',
          'http',
          '#',
          '@',
          '…',
          '.',
          '!',
          '\n\n',
          '—'
        ],
        ...[
          'https://x.example/a?b=c',
          'Donaudampfschifffahrtsgesellschaftskapitän',
          '\u200f',
          '\u200d'
        ]
      ),
      fc.string({ unit: 'grapheme', maxLength: 12 })
    ),
    { maxLength: 60 }
  )
  .chain((parts) => fc.constantFrom(' ', '', '  ').map((joint) => parts.join(joint)));

test('2,000 texts in many scripts never break a limit nor a grapheme', () => {
  fc.assert(
    fc.property(anyText, fc.integer({ min: 1, max: 160 }), (text, limit) => {
      const cut = cutText(text, limit);
      assert.ok(countText(cut) <= limit, `${countText(cut)} of ${limit}`);
      // What is left are whole graphemes of the text, in their order, and at most an ellipsis.
      const whole = graphemesOf(text.trim());
      const isBeginning = (kept: string) =>
        whole.slice(0, graphemesOf(kept).length).join('') === kept;
      assert.ok(isBeginning(cut) || (cut.endsWith('…') && isBeginning(cut.slice(0, -1))), cut);
    }),
    { numRuns: 2000 }
  );
});

test('the parts of a thread are within the limit and lose no word', () => {
  fc.assert(
    fc.property(anyText, fc.integer({ min: 40, max: 300 }), (text, limit) => {
      const parts = threadOf(text, limit);
      for (const part of parts) assert.ok(countText(part) <= limit);
      const bare = (t: string) => t.replace(/\s+/gu, '');
      const joined = parts.map((p) => (parts.length > 1 ? p.replace(/ \(\d+\/\d+\)$/, '') : p));
      assert.equal(bare(joined.join('')), bare(text));
    }),
    { numRuns: 300 }
  );
  const numbered = threadOf(`${'The shuttle goes over two threads. '.repeat(12)}`, 100);
  assert.match(numbered[1] ?? '', /^The shuttle .*threads\. \(2\/\d\)$/);
});

test('links count as much as the place says', () => {
  assert.equal(countText('See https://notebook.example/a-very-long-address.', 23), 4 + 23 + 1);
  assert.equal(countText('See https://x.example/a', null), 23);
  assert.equal(countText('👩‍👩‍👧‍👦 e\u0301'), 3);
});

test('a mark that joins a full stop is not cut from it', () => {
  assert.equal(cutText('So.\u200d next', 4), 'So.\u200d…');
});

test('a text is cut at the end of a sentence, else after a word', () => {
  const text =
    'Flax is laid on the grass. The dew eats the glue that holds the fibre to the stalk.';
  assert.equal(cutText(text, 40), 'Flax is laid on the grass.');
  assert.equal(cutText(text, 22), 'Flax is laid on the…');
  assert.equal(cutText('https://notebook.example/long', 12), '');
  assert.equal(cutText(text, 500), text);
});

test('a short text has title, telling sentences and the link, each sentence of the item', () => {
  const made = shortText(source, { limit: 500 });
  const [title, body, end] = made.text.split('\n\n');
  assert.equal(title, source.title);
  assert.match(end ?? '', / https:\/\/notebook\.example\/retting-flax$/);
  const plain = source.blocks.map((b) => plainSentence(b.text)).join(' ');
  assert.ok(plain.includes((body ?? '').split(/(?<=\.) /)[0] ?? '?'));
  assert.ok(!/\[1\]|^This|^So /m.test(body ?? ''));
  assert.equal(made.length, countText(made.text));
  assert.ok(made.from.every((f) => source.blocks[f.block]?.kind === 'paragraph'));
});

test('manners differ by rule, and the same seed gives the same words', () => {
  const texts = (['plain', 'warm', 'brisk'] as const).map(
    (manner) => shortText(source, { limit: 400, manner, seed: 'a' }).text
  );
  assert.equal(new Set(texts).size, 3);
  assert.ok((texts[2]?.length ?? 0) < (texts[0]?.length ?? 0));
  const seeds = Array.from(
    { length: 12 },
    (_, i) => shortText(source, { limit: 400, manner: 'warm', seed: `${i}` }).text
  );
  assert.ok(new Set(seeds).size > 3);
  assert.equal(shortText(source, { limit: 400, manner: 'warm', seed: '3' }).text, seeds[3]);
});

test('whatever the item and the limit, a short text is within it and keeps its link whole', () => {
  fc.assert(
    fc.property(
      anyText,
      fc.array(anyText, { maxLength: 5 }),
      fc.integer({ min: 5, max: 600 }),
      fc.constantFrom('plain', 'warm', 'brisk'),
      fc.constantFrom(null, 23),
      (title, paragraphs, limit, manner, linkWeight) => {
        const blocks = paragraphs.map((text) => ({ kind: 'paragraph' as const, text }));
        const { text } = shortText({ ...source, title, blocks }, { limit, manner, linkWeight });
        assert.ok(countText(text, linkWeight) <= limit);
        assert.ok(text === '' || text.includes(source.link));
      }
    ),
    { numRuns: 200 }
  );
});

test('hashtags: own first, used before unused, none banned, none twice', () => {
  const uses = new Map([
    ['flax', 120],
    ['dewretting', 3]
  ]);
  const tags = hashtags(['stalk', 'dew retting', 'Flax', 'flax', 'glue'], {
    most: 4,
    style: 'capitals',
    uses,
    own: ['#Wrenfold', 'flax'],
    banned: ['GLUE']
  });
  assert.deepEqual(
    tags.map((t) => [t.tag, t.uses]),
    [
      ['#Wrenfold', 0],
      ['#flax', 120],
      ['#DewRetting', 3],
      ['#stalk', 0]
    ]
  );
  assert.equal(asHashtag('2026', 'joined'), '');
  assert.equal(asHashtag('Kette & Schuss', 'capitals'), '#KetteSchuss');
  fc.assert(
    fc.property(fc.array(anyText, { maxLength: 8 }), fc.nat(10), (phrases, most) => {
      const made = hashtags(phrases, { most, style: 'joined' });
      assert.ok(made.length <= most);
      for (const { tag } of made) assert.match(tag, /^#[\p{L}\p{M}\p{N}_]+$/u);
      assert.equal(new Set(made.map((t) => t.tag.toLowerCase())).size, made.length);
    })
  );
});

test('key terms are what the text is about', () => {
  const terms = keyTerms(
    source.blocks.map((b) => b.text),
    'en'
  ).map((t) => t.term);
  assert.ok(terms.slice(0, 4).includes('flax'), terms.join(', '));
  assert.ok(!terms.some((t) => /\b(?:the|long|every)\b/.test(t)));
});

test('link tags follow the pattern, and what the address had stays', () => {
  const fields = {
    place: { name: 'Short Notes', kind: 'notes' },
    item: { slug: 'retting-flax', kind: 'post' },
    update: { kind: 'text' }
  };
  const tagged = new URL(
    tagLink('https://x.example/a?b=1&utm_source=old#c', LINK_TAG_PATTERN, fields).url
  );
  assert.equal(tagged.searchParams.get('b'), '1');
  assert.equal(tagged.searchParams.get('utm_source'), 'short-notes');
  assert.equal(tagged.searchParams.get('utm_campaign'), 'retting-flax');
  assert.equal(tagged.hash, '#c');
  const bad = tagLink('https://x.example/', 'utm_source={{ place.nam }}', fields);
  assert.equal(bad.problems[0]?.kind, 'unknown-field');
  // A value cannot bring a tag of its own.
  const sly = tagLink('https://x.example/', 'a={{ place.name }}', {
    ...fields,
    place: { name: 'x&b=2', kind: '' }
  });
  assert.equal(new URL(sly.url).searchParams.get('b'), null);
});
