import assert from 'node:assert/strict';
import { test } from 'node:test';
import { newEntry, type OutboxEntry } from '../delivery/outbox.ts';
import { type Payload } from '../delivery/payload.ts';
import { transferSchema } from '../delivery/transfer.ts';
import { anItem, aPostPayload } from '../testing.ts';
import { circumstancesOf, type PairingFacts } from './circumstances.ts';
import { pairTwins } from './pair.ts';

const none: PairingFacts = {
  setAside: [],
  accepted: [],
  drafts: [],
  narrations: [],
  entries: [],
  transfers: [],
  ties: [],
  videos: [],
  baselines: [],
  makings: [],
  details: new Map(),
  places: []
};
const post = aPostPayload({ title: 'Reeds' });
const embed: Payload = {
  kind: 'change',
  title: 'Reeds',
  change: { what: 'embed', embedUrl: 'https://video.example/embed/v', html: '' }
};
const retitle: Payload = {
  kind: 'change',
  title: 'Reeds',
  change: { what: 'retitle', from: 'a', to: 'b' }
};
const update = { kind: 'update' } as Payload;
const entry = (payload: Payload, state: OutboxEntry['state']): OutboxEntry => ({
  ...newEntry({ key: state, itemId: 'p', placeId: 'b', payload }, 1),
  state
});
const transfer = (embeds: boolean) =>
  transferSchema.parse({
    key: 'k',
    placeId: 'c',
    itemId: 'p',
    title: '',
    file: '',
    bytes: 0,
    type: '',
    uploadUrl: '',
    sent: 0,
    thumbnail: '',
    embeds,
    state: 'ready',
    problem: null,
    attempts: 0,
    nextTry: 0,
    updated: 0
  });

test('what is on its way or failed counts for its item, by what it is', () => {
  const publishing = (payload: Payload, state: OutboxEntry['state']) =>
    circumstancesOf({ ...none, entries: [entry(payload, state)] }).publishing.get('p');
  for (const state of ['in-review', 'planned'] as const)
    assert.equal(publishing(post, state), state);
  for (const state of ['waiting', 'sending'] as const)
    assert.equal(publishing(post, state), 'under-way', state);
  assert.equal(publishing(post, 'failed'), 'failed');
  for (const state of ['published', 'removed'] as const)
    assert.equal(publishing(post, state), undefined, state);
  // Neither an update nor a change makes a half.
  for (const payload of [update, embed, retitle])
    assert.equal(publishing(payload, 'waiting'), undefined);
});

test('a post is still to show its video while that waits to be opened, and while it is being put in', () => {
  const embedding = (facts: Partial<PairingFacts>) =>
    circumstancesOf({ ...none, ...facts }).embedding.has('p');
  assert.equal(embedding({ transfers: [transfer(true)] }), true);
  assert.equal(embedding({ transfers: [transfer(false)] }), false);
  assert.equal(embedding({ entries: [entry(embed, 'waiting')] }), true);
  assert.equal(embedding({ entries: [entry(embed, 'published')] }), false);
  assert.equal(embedding({ entries: [entry(retitle, 'waiting')] }), false);
});

test('in step is said when both halves can be seen and are tied, and not before', () => {
  const madeFrom = 'https://post.example/p';
  const written = anItem({ id: 'p', kind: 'post', url: madeFrom });
  const standing = (visibility: 'public' | 'unlisted' | 'private' | 'scheduled', facts = none) => {
    const video = anItem({ id: 'v', kind: 'video', madeFrom, visibility, origin: 'k' });
    const [twin] = pairTwins([video], [written], circumstancesOf(facts));
    return [twin?.standing, twin?.reason.kind];
  };
  assert.deepEqual(standing('public'), ['in-step', 'made-here']);
  assert.deepEqual(standing('unlisted'), ['in-step', 'made-here']);
  assert.deepEqual(standing('private'), ['in-hand', 'video-is-private']);
  assert.deepEqual(standing('scheduled'), ['in-hand', 'video-is-dated']);
  const waiting = { ...none, transfers: [transfer(true)] };
  assert.deepEqual(standing('scheduled', waiting), ['in-hand', 'video-is-dated']);
  assert.deepEqual(standing('public', waiting), ['in-hand', 'embedding']);
});

test('decisions, desk and booth are found by their items', () => {
  const facts = circumstancesOf({
    ...none,
    setAside: [{ id: 'v', at: '2026-01-01' }],
    accepted: [{ id: 'v p', titles: { video: 'a', post: 'b' } }],
    drafts: [{ id: 'v', since: '2026-01-02' }],
    narrations: [{ id: 'p', since: '2026-01-03' }]
  });
  assert.equal(facts.setAside.get('v'), '2026-01-01');
  assert.deepEqual(facts.accepted.get('v p'), { video: 'a', post: 'b' });
  assert.equal(facts.onDesk.get('v'), '2026-01-02');
  assert.equal(facts.inBooth.get('p'), '2026-01-03');
});

test('titles that differed when the user paired them are a choice', () => {
  const titles = { video: 'A', post: 'B' };
  const tie = { id: 'v p', video: 'v', post: 'p', relation: 'twin' as const, titles, at: '' };
  const { accepted } = circumstancesOf({ ...none, ties: [tie] });
  assert.deepEqual(accepted.get('v p'), titles);
});
