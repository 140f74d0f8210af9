import assert from 'node:assert/strict';
import { test } from 'node:test';
import { defaultTemplate } from '$lib/core/article/template/template.ts';
import { placeSchema } from '$lib/core/model/place.ts';
import { anItem } from '$lib/core/testing.ts';
import type { Details } from '$lib/core/model/rows.ts';
import {
  chaptersOf,
  extractText,
  findForeignText,
  findingsOf,
  makePost,
  postKey,
  talkSourceOf,
  toPayload,
  weighed,
  type PostInput
} from './post.ts';
import { composeApi } from '../workers/composeApi.ts';
import { talkApi } from '../workers/talkApi.ts';

const place = (kind: 'channel' | 'blog') =>
  placeSchema.parse({
    id: kind,
    kind,
    url: `https://${kind}.example/`,
    feedUrl: `https://${kind}.example/feed`,
    title: kind === 'blog' ? 'The Notebook' : 'Loomworks',
    author: 'Loomworks',
    micropub: '',
    tokenEndpoint: '',
    rights: ['read'],
    hasKey: false,
    origins: ['https://video.example'],
    linked: '',
    checked: '',
    problem: null
  });
const video = anItem({ id: 'v', kind: 'video', title: 'Reeds', author: 'Loomworks' });
const lines = [
  'A reed keeps the warp threads apart and beats the weft.',
  'The number on a reed is the number of dents to the inch.',
  'Sley two ends in each dent for a cloth that is firm.',
  'Start in the middle of the reed and work towards the edges.'
];
const details = {
  id: 'v',
  cues: lines.map((text, i) => ({ start: 10 * i, end: 10 * i + 9, text, settings: '' })),
  chapters: [
    { start: 0, title: 'What a reed does' },
    { start: 20, title: 'Sleying' }
  ],
  seekTo: ''
} as unknown as Details;
const worker = talkApi();

async function inputOf(change: Partial<PostInput> = {}): Promise<PostInput> {
  const source = talkSourceOf({ video, details });
  const { chapters } = details;
  const options = { title: video.title, length: 'long' as const, chapters, pictures: [] };
  return {
    video,
    channel: place('channel'),
    blog: place('blog'),
    description: 'All about reeds.',
    details,
    extracted: source && (await extractText(worker, source, options)),
    chapters,
    template: structuredClone(defaultTemplate),
    edited: null,
    now: '2026-05-01T10:00:00Z',
    ...change
  };
}

test('a post has the title, the player, the chapters and the words of its video', async () => {
  const { post, key } = await makePost(composeApi, await inputOf());
  assert.equal(post.title, 'Reeds');
  assert.equal(key, postKey(video, place('blog')));
  assert.match(post.html, /https:\/\/video\.example\/embed\/v/);
  assert.match(post.html, /Sleying/);
  assert.match(post.html, /two ends in each dent/);
});

test('the same video has the same key at a blog, whatever is made of it, and another at another', async () => {
  const one = await makePost(composeApi, await inputOf());
  const other = await makePost(
    composeApi,
    await inputOf({ description: 'Otherwise.', now: '2027-01-01T10:00:00Z' })
  );
  assert.equal(one.key, other.key);
  assert.notEqual(one.key, postKey(video, { url: 'https://other.example/' }));
  assert.equal((await makePost(composeApi, await inputOf({ blog: null }))).key, '');
});

test('chapters come from the hand, else from the channel, else from the talk', () => {
  const own = [{ start: 0, title: 'Mine' }];
  const proposed = [{ start: 0, title: 'Proposed' }];
  assert.equal(chaptersOf(own, details, proposed), own);
  assert.equal(chaptersOf(null, details, proposed), details.chapters);
  assert.equal(chaptersOf(null, { ...details, chapters: [] }, proposed), proposed);
  assert.deepEqual(chaptersOf(null, null, undefined), []);
});

test('a text that was edited goes out as it was edited, with everything else as it is made', async () => {
  const { made } = await makePost(composeApi, await inputOf());
  const html = '<p>Written by hand.</p>';
  const { post } = await makePost(
    composeApi,
    await inputOf({ edited: { base: made.marked, html } })
  );
  assert.match(post.html, /Written by hand\./);
  assert.doesNotMatch(post.html, /two ends in each dent/);
  assert.equal(post.title, made.title);
});

test('words of another talk are found and block; words of one’s own hand are left alone', async () => {
  const input = await inputOf();
  const { made } = await makePost(composeApi, input);
  assert.deepEqual(await findForeignText(worker, { made, edited: null }, details), []);
  const other = {
    ...details,
    cues: [
      'Madder wants time and soft water, and it never wants to boil at all.',
      'Simmer the roots for an hour and leave the wool in the pot overnight.'
    ].map((text, i) => ({ start: 9 * i, end: 9 * i + 8, text, settings: '' }))
  } as unknown as Details;
  const foreign = await findForeignText(worker, { made, edited: null }, other);
  assert.deepEqual(
    weighed(foreign).map(({ of, level }) => [of, level]),
    [['post', 'blocking']]
  );
  const edited = {
    base: made.marked,
    html: `${made.marked}<p>I bought my first reed from a neighbour who gave up weaving long ago.</p>`
  };
  assert.deepEqual(await findForeignText(worker, { made, edited }, details), []);
});

test('a video of somebody else needs its credit', async () => {
  const guest = { ...video, author: 'Juna Halvard', licence: 'CC BY 4.0' };
  const template = structuredClone(defaultTemplate);
  template.blocks = template.blocks.filter((block) => block.kind !== 'credit');
  const input = await inputOf({ video: guest, template });
  const found = findingsOf((await makePost(composeApi, input)).post, input).map((f) => f.kind);
  const own = await inputOf({ template });
  const { post } = await makePost(composeApi, own);
  const missing = found.filter((kind) => !findingsOf(post, own).some((f) => f.kind === kind));
  assert.equal(missing.length, 1, missing.join());
});

test('a date is sent for a dated post alone', async () => {
  const { post } = await makePost(composeApi, await inputOf());
  const on = '2026-06-01T08:00';
  assert.equal(toPayload(post, { status: 'dated', on }).date, new Date(on).toISOString());
  assert.equal(toPayload(post, { status: 'public', on }).date, post.date);
});

test('without captions there is no talk, and still a post', async () => {
  assert.equal(talkSourceOf({ video, details: null }), null);
  const { post } = await makePost(
    composeApi,
    await inputOf({ details: null, extracted: null, chapters: [] })
  );
  assert.match(post.html, /https:\/\/video\.example\/embed\/v/);
  assert.match(post.html, /All about reeds/);
});
