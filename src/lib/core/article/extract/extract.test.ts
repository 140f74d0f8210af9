import assert from 'node:assert/strict';
import { readFileSync, readdirSync } from 'node:fs';
import { test } from 'node:test';
import fc from 'fast-check';
import { bare } from '../../text/bare.ts';
import { proposeChapters } from '../../chapters/propose.ts';
import { aTalk } from '../../testing.ts';
import { extractArticle } from './extract.ts';
import { estimateLength, LENGTH_NAMES, type ArticleLength } from './length.ts';
import { overused } from './overuse.ts';
import type { Article, ArticleSentence } from './article.ts';
import { guideLength } from './guidance.ts';
import { proposeExcerpt, proposeTitles } from './proposals.ts';
import { TITLE_LENGTHS } from './titleLengths.ts';
import { articleMarkdown } from '../template/render.ts';
import { WRITTEN_FOR } from '../../lang/en/speech.ts';
import { writeSentence } from './spoken.ts';

/** Talks as people give them, each as edited captions and as automatic ones without stops. */
const folder = new URL('../../../../../bin/train/talks/', import.meta.url);
const talks = readdirSync(folder).flatMap((name) => {
  const lines = readFileSync(new URL(name, folder), 'utf8').split(/\n+/).filter(Boolean);
  const rough = lines.map((line) => line.toLowerCase().replace(/[^\p{L}\p{N}\s'-]/gu, ''));
  return [
    { name, talk: aTalk(lines) },
    { name: `${name}, rough`, talk: aTalk(rough) }
  ];
});
type Talk = (typeof talks)[number]['talk'];
const extract = (talk: Talk, length: ArticleLength): Article =>
  extractArticle(talk, { length, chapters: proposeChapters(talk).chapters });
const bodySentences = (article: Article): ArticleSentence[] =>
  article.body.flatMap((b) =>
    b.kind === 'paragraph' ? b.sentences : b.kind === 'list' ? b.items : []
  );
const wordsIn = (text: string): string[] => text.split(/\s+/).map(bare).filter(Boolean);

/** Whether the words of a text stand in the talk in that order, within those seconds. */
function isSaid(talk: Talk, { text, start, end }: ArticleSentence): boolean {
  const said = talk.words
    .filter((w) => w.start >= start - 0.01 && w.end <= end + 0.01)
    .flatMap((w) => wordsIn(WRITTEN_FOR[bare(w.text)] ?? w.text));
  let at = 0;
  return wordsIn(text).every((word) => {
    while (at < said.length && said[at] !== word) at++;
    return at++ < said.length;
  });
}

test('nothing is invented: every sentence is said, in its words and order, within its seconds', () => {
  for (const { name, talk } of talks)
    for (const length of ['short', 'medium', 'long'] as const) {
      const article = extract(talk, length);
      const all = [...bodySentences(article), ...article.summary, ...article.takeaways];
      if (article.quote) all.push(article.quote);
      assert.ok(all.length > 3, name);
      for (const sentence of all) assert.ok(isSaid(talk, sentence), `${name}: ${sentence.text}`);
    }
});

test('what is not in the body is reported with its reason, and what is in it is not', () => {
  for (const { name, talk } of talks) {
    const article = extract(talk, 'medium');
    const out = new Set(article.leftOut.map((l) => l.sentence));
    const used = new Set(bodySentences(article).map((s) => s.from));
    assert.equal(out.size, article.leftOut.length, name);
    for (const [i, { text }] of talk.sentences.entries())
      assert.ok(out.has(i) !== used.has(i), `${name}: ${i} ${text}`);
  }
});

test('the body follows the order of the talk, under the headings of its chapters', () => {
  for (const { name, talk } of talks) {
    const { chapters } = proposeChapters(talk);
    const article = extract(talk, 'medium');
    const order = bodySentences(article).map((s) => s.from);
    assert.deepEqual(
      order,
      [...order].sort((a, b) => a - b),
      name
    );
    const headings = article.body.flatMap((b) => (b.kind === 'heading' ? [b.text] : []));
    assert.deepEqual(
      headings,
      chapters.map((c) => c.title).filter((title) => headings.includes(title)),
      name
    );
  }
});

test('no word too often unless it is the subject, and no two paragraphs open alike', () => {
  for (const { name, talk } of talks)
    for (const length of ['short', 'medium', 'long'] as const) {
      const article = extract(talk, length);
      const words = bodySentences(article).map((s) => ({
        words: s.text.split(/\s+/).map((text) => ({ text, at: 0 }))
      }));
      assert.deepEqual(overused(talk, words, new Set(article.subject)), [], `${name}, ${length}`);
      const openings = article.body.flatMap((b) =>
        b.kind === 'paragraph'
          ? [
              wordsIn(b.sentences[0]?.text ?? '')
                .slice(0, 3)
                .join(' ')
            ]
          : []
      );
      assert.equal(
        new Set(openings).size,
        openings.length,
        `${name}, ${length}: ${openings.join(' | ')}`
      );
    }
});

test('lengths rise, and the guide tells about what comes', () => {
  for (const { name, talk } of talks) {
    const words = (['short', 'medium', 'long'] as const).map((l) => extract(talk, l).words);
    assert.ok((words[0] ?? 0) <= (words[1] ?? 0) && (words[1] ?? 0) <= (words[2] ?? 0), name);
    const guide = guideLength(talk);
    for (const [i, { words: told, minutes }] of guide.lengths.entries()) {
      assert.ok((words[i] ?? 0) <= told * 1.3 + 40, `${name}: ${words[i]} for ${told}`);
      assert.ok(minutes > 0);
    }
    assert.ok(guide.worthWords <= guide.talkWords);
  }
});

test('any length can be asked for; a longer one keeps most of what a shorter one has', () => {
  for (const { name, talk } of talks) {
    const guide = guideLength(talk);
    let before: Set<number> | null = null;
    for (const percent of [10, 30, 60, 100]) {
      const article = extract(talk, percent);
      const { words } = estimateLength(guide, percent);
      assert.ok(article.words <= words * 1.1 + 10, `${name}: ${article.words} for ${words}`);
      const now = new Set(bodySentences(article).map((s) => s.from));
      const kept = [...(before ?? [])].filter((i) => now.has(i)).length;
      if (before)
        assert.ok(kept >= 0.6 * before.size, `${name}, ${percent} %: ${kept} of ${before.size}`);
      before = now;
    }
  }
});

const written = (line: string): string => {
  const talk = aTalk(['This is about a warp and its threads.', line]);
  const made = writeSentence(talk, 1);
  return 'leftOut' in made ? `(${made.leftOut})` : made.words.map((w) => w.text).join(' ');
};

test('turns of speech are taken out, the rest stays word for word', () => {
  assert.equal(written('Okay, so now we tie the warp, right?'), 'We tie the warp.');
  assert.equal(
    written('And, you know, the cross keeps the threads.'),
    'The cross keeps the threads.'
  );
  assert.equal(written('Do you know what the cross does?'), 'Do you know what the cross does?');
  assert.equal(
    written("We're gonna tie it twice, as you can see here."),
    "We're going to tie it twice."
  );
  assert.equal(
    written('So that the threads lie flat, we press them.'),
    'So that the threads lie flat, we press them.'
  );
  assert.equal(
    written('This kind of knot holds, kind of, for ever.'),
    'This kind of knot holds, for ever.'
  );
  assert.equal(written('It holds the thread, doesn’t it?'), 'It holds the thread.');
});

test('what is only speech is left out, with its reason', () => {
  assert.equal(written('Hello everyone and welcome back to the channel.'), '(greeting)');
  assert.equal(written('If you liked this, please subscribe and hit the bell.'), '(call)');
  assert.equal(written('There we go.'), '(small-talk)');
  assert.equal(written('Look at this one here.'), '(pointing)');
  assert.equal(written('A warp.'), '(fragment)');
  assert.equal(written('Guten Morgen aus der Werkstatt.'), '(greeting)');
  assert.match(written('Hello, today we are going to wind a warp on the board.'), /wind a warp/);
  assert.equal(written('Thanks for watching and I will see you next week.'), '(greeting)');
});

test('what is said twice is written once; steps told in a row become a list; pictures keep their order', () => {
  const talk = aTalk([
    'The warping board gives the warp its length.',
    'Wind the yarn around the first peg.',
    'Cross the yarn between the two pegs.',
    'Tie the cross with strong cotton.',
    'The warping board gives the warp its length, remember.'
  ]);
  const pictures = [
    { url: 'https://c.example/1.png', alt: 'One', at: 9 },
    { url: 'https://c.example/2.png', alt: 'Two', at: 2 }
  ];
  const article = extractArticle(talk, { length: 'long', chapters: [], pictures });
  assert.deepEqual(article.leftOut, [{ sentence: 4, reason: 'said-twice' }]);
  assert.deepEqual(
    article.body.map((b) => b.kind),
    ['paragraph', 'list', 'picture', 'picture']
  );
  assert.deepEqual(
    article.body.flatMap((b) => (b.kind === 'picture' ? [b.alt] : [])),
    ['One', 'Two']
  );
});

test('titles keep to their limits, five of each, and excerpts end at a sentence', () => {
  for (const { name, talk } of talks) {
    const titles = proposeTitles(talk, 'How to do it well, without any fuss');
    for (const [kind, limit] of Object.entries(TITLE_LENGTHS)) {
      const list = titles[kind as keyof typeof titles];
      assert.equal(new Set(list).size, 5, `${name}: ${list.join(' | ')}`);
      for (const title of list) assert.ok(title.length <= limit && title.trim() === title);
    }
    const excerpt = proposeExcerpt(extract(talk, 'medium'), 300);
    assert.match(excerpt, /[.!?]$/, name);
    assert.ok(excerpt.length <= 300);
  }
});

test('Markdown has front matter, headings and text that means itself', () => {
  const talk = aTalk([
    'The *star* knot is tied_twice <as here>.',
    'It holds the warp in its place for ever.'
  ]);
  const markdown = articleMarkdown(
    'A: "knot"',
    extractArticle(talk, { length: 'long', chapters: [] }),
    'Short.',
    []
  );
  assert.match(markdown, /^---\ntitle: 'A: "knot"'\nexcerpt: Short\.\n---\n\n# A: "knot"\n/);
  assert.match(markdown, /\\\*star\\\* knot is tied\\_twice \\<as here>/);
});

test('any talk can be extracted', () => {
  const line = fc
    .array(
      fc.constantFrom(
        'okay',
        'so',
        'the',
        'warp',
        'tie',
        'it',
        'you know',
        'um',
        'because',
        '1.5',
        'why?',
        'done.'
      ),
      { minLength: 1, maxLength: 20 }
    )
    .map((words) => words.join(' '));
  fc.assert(
    fc.property(
      fc.array(line, { minLength: 1, maxLength: 12 }),
      fc.oneof(fc.constantFrom(...LENGTH_NAMES), fc.integer({ min: 5, max: 100 })),
      (lines, length) => {
        const talk = aTalk(lines);
        if (talk.sentences.length === 0) return;
        const article = extract(talk, length);
        for (const sentence of bodySentences(article))
          assert.ok(isSaid(talk, sentence), sentence.text);
      }
    ),
    { numRuns: 60 }
  );
});
