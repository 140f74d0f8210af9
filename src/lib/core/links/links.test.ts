import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import fc from 'fast-check';
import { languageOf } from '../text/language.ts';
import { htmlText } from '../text/html.ts';
import { addLinks } from './addLinks.ts';
import { memoryId, remember, type GlossaryEntry, type LinkMemory } from './glossary.ts';
import { proposeLinks } from './propose.ts';
import { Senses } from './sense.ts';
import { glossaryTargets, postTargets } from './targets.ts';

const english = languageOf('en');
const BLOG = 'https://blog.example/';
const anEntry = (word: string, given: Partial<GlossaryEntry> = {}): GlossaryEntry => ({
  id: word,
  words: [word],
  url: `https://words.example/${word.replaceAll(' ', '-')}`,
  about: '',
  isPaid: false,
  changed: '',
  ...given
});
const propose = (html: string, entries: GlossaryEntry[], memories: LinkMemory[] = []) =>
  proposeLinks(html, glossaryTargets(entries, memories, english), english, BLOG);
const words = (html: string, entries: GlossaryEntry[]) => propose(html, entries).map((p) => p.word);

interface JudgedWord {
  word: string;
  about: string;
  here: string[];
  elsewhere: string[];
}
const senses = JSON.parse(readFileSync('bin/bench/linkSenses.json', 'utf8')) as {
  heldOut: JudgedWord[];
};

test('meanings of words that nothing was tuned on are told apart by their neighbours', () => {
  const judged = senses.heldOut.flatMap(({ word, about, here, elsewhere }) => {
    const isClear = (text: string) =>
      new Senses(english).of(word, text, { here: about, elsewhere: '' }).isClear;
    return [...here.map((t) => isClear(t)), ...elsewhere.map((t) => !isClear(t))];
  });
  assert.equal(judged.length, 36);
  assert.ok(judged.filter(Boolean).length >= 34);
});

test('a word is found in any of its forms, once a post, where it stands in a paragraph', () => {
  const html = `<h2>Heddles</h2><p>Two heddles, and another heddle.</p><ul><li>The heddle again.</li></ul>
    <p>A <code>reed hook</code> and the <em>reed hooks</em>.</p>`;
  const found = propose(html, [anEntry('heddle'), anEntry('reed hook')]);
  assert.deepEqual(
    found.map((p) => [p.word, p.sentence]),
    [
      ['heddles', 'Two heddles, and another heddle.'],
      ['reed hooks', 'A reed hook and the reed hooks.']
    ]
  );
});

test('headings, links, captions, quotations, chapters and what is folded away are left alone', () => {
  const html = `<h3>heddle</h3><p><a href="/x">heddle</a></p><figure><figcaption>heddle</figcaption></figure>
    <blockquote><p>heddle</p></blockquote><details><summary>heddle</summary><p>heddle</p></details><pre>heddle</pre>
    <ol><li><time datetime="PT5S">0:05</time> The heddle</li></ol>`;
  assert.deepEqual(words(html, [anEntry('heddle')]), []);
});

test('an address that the post links to already is not proposed again', () => {
  const html = '<p>See <a href="https://words.example/heddle#top">this</a> on the heddle.</p>';
  assert.deepEqual(words(html, [anEntry('heddle')]), []);
});

test('a sentence gets one link, and a short post a few', () => {
  const entries = ['heddle', 'shuttle', 'bobbin', 'raddle', 'niddy'].map((word) => anEntry(word));
  assert.deepEqual(words('<p>A heddle and a shuttle.</p>', entries), ['heddle']);
  const many = entries.map((e) => `<p>One ${e.words[0]} here.</p>`).join('');
  assert.equal(words(many, entries).length, 3);
});

test('where several stand at one place the longer one is taken', () => {
  const entries = [anEntry('heddle'), anEntry('repair heddle')];
  assert.deepEqual(words('<p>Take a repair heddle. Then go on.</p>', entries), ['repair heddle']);
});

test('a meaning that nothing speaks for is proposed as doubtful, after a clear one further on', () => {
  const shed = anEntry('shed', {
    about: 'The gap between warp threads that the shuttle passes through'
  });
  const garden = '<p>The wool is in the shed behind the house.</p>';
  const [doubtful] = propose(garden, [shed]);
  assert.equal(doubtful?.isClear, false);
  const [clear] = propose(`${garden}<p>Throw the shuttle through the open shed.</p>`, [shed]);
  assert.equal(clear?.isClear, true);
  assert.match(clear?.sentence ?? '', /shuttle/);
  assert.deepEqual(clear?.because, ['shuttle']);
});

test('what was declined is not proposed as clear in company like that again', () => {
  const entry = anEntry('draft');
  const of = { word: 'draft', url: entry.url };
  const letter = 'The first draft of the letter went to the editor.';
  const memory = remember(undefined, { ...of, sentence: letter, isLinked: false }, '');
  const again = remember(
    memory,
    { ...of, sentence: 'Copy the draft onto squared paper with its treadling.', isLinked: true },
    ''
  );
  assert.equal(again.id, memoryId('draft', entry.url));
  const clear = (text: string) => propose(`<p>${text}</p>`, [entry], [again])[0]?.isClear;
  assert.equal(clear('My editor liked the second draft of the letter.'), false);
  assert.equal(clear('This draft has a treadling of eight picks on squared paper.'), true);
});

test('own posts are found by what their titles are about, and by no word that many have', () => {
  const post = (title: string, published: string, summary = '') => ({
    url: `${BLOG}${title.toLowerCase().replaceAll(' ', '-')}`,
    title,
    summary,
    tags: [],
    published
  });
  const posts = [
    post('How I sley a reed', '2026-01-01', 'Two ends in each dent, with a hook.'),
    post('Hemstitching on the loom', '2026-02-01', 'A hem that holds when the scarf is cut off.'),
    post('Hemstitching, a second try', '2026-03-01', 'The hem once more.'),
    post('Open days in the studio', '2026-04-01', 'Come and see.')
  ];
  const targets = postTargets(posts, [], english);
  const found = proposeLinks(
    `<p>Then sley the reed with a hook. After that comes the hemstitching of the scarf. We sit in the studio for days.</p>`,
    targets,
    english,
    BLOG
  );
  assert.deepEqual(
    found.map((p) => [p.word, p.title, p.isClear]),
    [
      ['sley', 'How I sley a reed', true],
      ['hemstitching', 'Hemstitching on the loom', true]
    ]
  );
});

test('a paid link says so, to machines and in words of the language', () => {
  const html = '<p data-start="1.00">A <em>repair heddle</em>, and more.</p>';
  const entry = anEntry('repair heddle', { isPaid: true });
  const found = propose(html, [entry]);
  assert.equal(
    addLinks(html, found, 'en').html,
    `<p data-start="1.00">A <em><a href="${entry.url}" rel="sponsored">repair heddle</a> (paid link)</em>, and more.</p>`
  );
  assert.match(addLinks(html, found, 'de').html, /\(bezahlter Link\)/);
});

test('a paragraph that was changed in between gets no link, and nothing is lost', () => {
  const found = propose('<p>A heddle.</p>', [anEntry('heddle')]);
  const changed = '<p>Another heddle.</p>';
  assert.deepEqual(addLinks(changed, found, 'en'), { html: changed, added: 0 });
});

test('whatever a post says, links change no word of it, each address once, and nothing is linked twice', () => {
  const piece = fc.constantFrom(
    'heddle',
    'shuttles',
    'bobbin',
    'the',
    'wind',
    '.',
    ',',
    '<em>bobbin</em>'
  );
  const paragraph = fc
    .array(piece, { minLength: 1, maxLength: 12 })
    .map((pieces) => `<p>${pieces.join(' ')}</p>`);
  const entries = ['heddle', 'shuttle', 'bobbin', 'wind'].map((word) => anEntry(word));
  fc.assert(
    fc.property(fc.array(paragraph, { minLength: 1, maxLength: 5 }), (paragraphs) => {
      // The same paragraph twice is linked where it stands first.
      const html = [...new Set(paragraphs)].join('');
      const found = propose(html, entries);
      const { html: linked, added } = addLinks(html, found, 'en');
      assert.equal(added, found.length);
      assert.equal(htmlText(linked), htmlText(html));
      const addresses = [...linked.matchAll(/href="([^"]+)"/g)].map((m) => m[1]);
      assert.equal(new Set(addresses).size, added);
      for (const { url } of propose(linked, entries)) assert.ok(!addresses.includes(url));
    })
  );
});
