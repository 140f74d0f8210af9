import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { test } from 'node:test';
import { compose } from '$lib/core/article/template/compose.ts';
import { notFromTalk } from '$lib/core/article/review/sourceCheck.ts';
import { defaultTemplate } from '$lib/core/article/template/template.ts';
import { DROP_NOISE } from '$lib/core/captions/tidyOptions.ts';
import { anItem } from '$lib/core/testing.ts';
import { findForeignText, makePost, weighed } from '$lib/make/post.ts';
import type { Details } from '$lib/core/model/rows.ts';
import { composeApi } from './composeApi.ts';
import { talkApi, type Extracted, type TalkSource } from './talkApi.ts';

/** Talks that were written for training, as captions of a line each. */
const folder = new URL('../../../bin/train/talks/', import.meta.url);
const sources: TalkSource[] = readdirSync(folder).map((name) => ({
  tidy: DROP_NOISE,
  language: 'en',
  cues: readFileSync(new URL(name, folder), 'utf8')
    .split(/\n+/)
    .filter(Boolean)
    .map((text, i) => ({ start: 8 * i, end: 8 * i + 7, text }))
}));
const [first, second] = sources as [TalkSource, TalkSource];
const options = { title: 'A talk', length: 'long' as const, chapters: [], pictures: [] };
const sentencesOf = ({ article }: Extracted): string[] =>
  [
    ...article.summary,
    ...article.takeaways,
    ...article.body.flatMap((b) =>
      b.kind === 'paragraph' ? b.sentences : b.kind === 'list' ? b.items : []
    )
  ].map((s) => s.text);

test('two runs that share the worker and interleave each get the text of their own talk', () => {
  const worker = talkApi();
  assert.ok(worker.read(first, 0));
  assert.ok(worker.read(second, 0));
  const one = worker.extract(first, options)!;
  const two = worker.extract(second, options)!;
  assert.deepEqual(notFromTalk(sentencesOf(one), first.cues), []);
  assert.deepEqual(notFromTalk(sentencesOf(two), second.cues), []);
  assert.deepEqual(one, talkApi().extract(first, options));
  assert.notDeepEqual(worker.captions(first), worker.captions(second));
});

test('what is read of a talk follows from the call alone, however many came before it', () => {
  const worker = talkApi();
  const fresh = sources.map((source) => talkApi().read(source, 0)?.sentences.length);
  for (const [i, source] of [...sources, ...sources].entries())
    assert.equal(worker.read(source, 0)?.sentences.length, fresh[i % sources.length]);
  // The same captions under another option are another talk.
  const noisy = { ...first, tidy: { ...DROP_NOISE, fillers: false } };
  assert.deepEqual(worker.read(noisy, 0), talkApi().read(noisy, 0));
});

test('every article comes from its talk and is foreign to every other', () => {
  const worker = talkApi();
  const articles = sources.map((source) => sentencesOf(worker.extract(source, options)!));
  for (const [i, sentences] of articles.entries())
    for (const [j, { cues }] of sources.entries()) {
      const told = sentences.filter((s) => s.split(/\s+/).length >= 6);
      const foreign = notFromTalk(told, cues).length;
      if (i === j) assert.equal(foreign, 0, `${i}`);
      else assert.ok(foreign / told.length > 0.9, `${i} in ${j}: ${foreign} of ${told.length}`);
    }
});

const details = (cues: TalkSource['cues']): Details => ({
  id: 'v',
  cues,
  chapters: [],
  seekTo: '',
  read: ''
});
const postFrom = (extracted: Extracted) =>
  makePost(composeApi, {
    video: anItem({ id: 'v', kind: 'video' }),
    channel: null,
    blog: null,
    description: '',
    details: null,
    extracted,
    chapters: [],
    template: defaultTemplate,
    edited: null,
    now: '2026-05-01T10:00:00Z'
  });

test('a post with the text of another video has a finding that no lane lets through', async () => {
  const worker = talkApi();
  const { made } = await postFrom(worker.extract(second, options)!);
  assert.deepEqual(await findForeignText(worker, { made, edited: null }, details(second.cues)), []);
  const [finding] = await findForeignText(worker, { made, edited: null }, details(first.cues));
  assert.equal(finding?.kind, 'not-from-talk');
  assert.equal(weighed([finding!])[0]?.level, 'blocking');
});

test('what was written by hand is not held against the talk; what stands as it was made is', async () => {
  const worker = talkApi();
  const { made } = await postFrom(worker.extract(first, options)!);
  const base = made.marked;
  const html = base.replace(
    /<p data-start[^>]*>[^<]*<\/p>/,
    '<p data-start="1.00" data-end="2.00">I wrote this sentence myself because it was nowhere said.</p>'
  );
  assert.notEqual(html, base);
  assert.deepEqual(
    await findForeignText(worker, { made, edited: { base, html } }, details(first.cues)),
    []
  );
  const foreign = await findForeignText(
    worker,
    { made, edited: { base, html } },
    details(second.cues)
  );
  assert.equal(foreign[0]?.kind, 'not-from-talk');
});

test('a post without captions has nothing that could be foreign', async () => {
  const made = compose(defaultTemplate, {
    video: anItem({ id: 'v', kind: 'video' }),
    description: 'A straight draw.',
    paragraphs: [],
    article: null,
    chapters: [],
    seekTo: '',
    channel: { title: '', url: '' },
    blog: { title: '', url: '' },
    players: ['https://video.example'],
    now: '2026-05-01T10:00:00Z',
    key: ''
  });
  assert.deepEqual(await findForeignText(talkApi(), { made, edited: null }, null), []);
});
