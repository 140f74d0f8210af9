import assert from 'node:assert/strict';
import { test } from 'node:test';
import { needsReview } from '$lib/core/lanes/runner.ts';
import { placeSchema } from '$lib/core/model/place.ts';
import { DESCRIPTION_TEMPLATE, videoDetailsSchema } from '$lib/core/narration/details.ts';
import { renderSchema } from '$lib/core/narration/narration.ts';
import { anItem } from '$lib/core/testing.ts';
import { makeVideoPayload, transferOf, weighedVideo } from './video.ts';

const post = anItem({ id: 'p', kind: 'post', title: 'Madder on wool', summary: 'Red from roots.' });
const channel = placeSchema.parse({
  id: 'c',
  kind: 'channel',
  url: 'https://channel.example/',
  feedUrl: 'https://channel.example/feed',
  title: 'Channel',
  author: '',
  micropub: 'https://channel.example/micropub',
  tokenEndpoint: '',
  rights: ['read', 'create'],
  hasKey: true,
  origins: [],
  linked: '',
  checked: '',
  problem: null
});
const details = videoDetailsSchema.parse({
  title: 'Madder on wool',
  description: DESCRIPTION_TEMPLATE,
  tags: ['dyeing'],
  category: '',
  language: 'en',
  visibility: 'public',
  on: '',
  placeIds: ['c'],
  embeds: true
});
const render = renderSchema.parse({
  id: 'p',
  state: 'done',
  problem: null,
  format: 'webm',
  file: 'p-video.webm',
  bytes: 1000,
  seconds: 60,
  width: 1280,
  height: 720,
  captions: 'WEBVTT',
  chapters: [
    { start: 0, title: 'Roots' },
    { start: 20, title: 'Wool' },
    { start: 40, title: 'Red' }
  ],
  changed: '',
  madeFrom: ''
});
const now = new Date('2026-05-01T10:00:00Z');
const input = { post, blog: null, channel, details, render, now };

test('a whole video has nothing to check, and goes straight out where a lane wants it so', () => {
  const { findings, payload, description } = makeVideoPayload(input);
  assert.deepEqual(findings, []);
  assert.equal(needsReview('if-no-check-complains', weighedVideo(findings)), false);
  assert.equal(payload.description, description);
  assert.match(description, /^https:\/\/post\.example\/p/);
  assert.match(payload.chapters, /Roots[\s\S]*Wool/);
});

test('what a lane would have let through unseen is a finding, and waits for a person', () => {
  for (const [change, kind] of [
    [{ title: '' }, 'no-title'],
    [{ title: 'x'.repeat(101) }, 'too-long'],
    [{ title: 'Warp <3' }, 'angle-brackets'],
    [{ description: 'Nothing to follow.' }, 'no-link'],
    [{ tags: ['x'.repeat(501)] }, 'too-long']
  ] as const) {
    const { findings } = makeVideoPayload({
      ...input,
      details: { ...details, ...change } as never
    });
    assert.deepEqual(
      findings.map((f) => f.kind),
      [kind]
    );
    assert.equal(needsReview('if-no-check-complains', weighedVideo(findings)), true, kind);
  }
});

test('private until a date: the channel is asked to keep it private, and when to open it', () => {
  const dated = { ...details, visibility: 'dated' as const, on: '2026-05-02T10:00' };
  const { payload } = makeVideoPayload({ ...input, details: dated });
  assert.equal(payload.visibility, 'private');
  assert.equal(payload.publishAt, new Date('2026-05-02T10:00').toISOString());
});

test('a file that was sent is not sent again; another file is, from its beginning', () => {
  const { key } = makeVideoPayload(input);
  const first = transferOf(key, input, 'thumb', null);
  assert.deepEqual([first.state, first.sent, first.uploadUrl], ['waiting', 0, '']);
  const ready = { ...first, state: 'ready' as const, sent: 1000, uploadUrl: 'https://u/1' };
  assert.equal(transferOf(key, input, 'thumb', ready).state, 'ready');
  const other = { ...input, render: { ...render, file: 'p-video-2.webm' } };
  const again = transferOf(key, other, 'thumb', ready);
  assert.deepEqual([again.state, again.sent, again.uploadUrl], ['waiting', 0, '']);
  // The same file that was on its way goes on where it was.
  const half = { ...first, state: 'failed' as const, sent: 400, uploadUrl: 'https://u/1' };
  assert.equal(transferOf(key, input, 'thumb', half).uploadUrl, 'https://u/1');
});
