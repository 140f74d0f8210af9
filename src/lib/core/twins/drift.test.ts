import assert from 'node:assert/strict';
import test from 'node:test';
import { anItem, anEntry, aPostPayload } from '../testing.ts';
import type { Baseline, Making } from '../model/baseline.ts';
import type { Item } from '../model/item.ts';
import { circumstancesOf, type PairingFacts } from './circumstances.ts';
import { baselineOf, nextBaseline, postFactsOf, videoFactsOf } from './drift.ts';
import { pairTwins } from './pair.ts';

const EARLY = '2026-03-02T00:00:00.000Z';
const LATE = '2026-03-09T00:00:00.000Z';
const at = Date.parse;

const video = anItem({
  id: 'v',
  kind: 'video',
  title: 'Sleying the reed',
  textHash: '1',
  pictures: [{ url: 'https://video.example/v/1280.png', width: 1280, height: 720 }]
});
const post = anItem({
  id: 'p',
  kind: 'post',
  title: 'Sleying the reed',
  textHash: '2',
  tags: ['reed'],
  embeds: [video.embedUrl]
});
const details = new Map([['v', { captions: 'c', chapters: 'd' }]]);

const baseline = (given: Partial<Baseline> = {}): Baseline => ({
  ...baselineOf(video, post, details.get('v'), EARLY),
  ...given
});
const facts = (given: Partial<PairingFacts> = {}): PairingFacts => ({
  setAside: [],
  accepted: [],
  drafts: [],
  narrations: [],
  entries: [],
  transfers: [],
  ties: [],
  videos: ['v'],
  baselines: [baseline()],
  makings: [],
  details,
  places: [
    { id: 'channel', read: LATE },
    { id: 'blog', read: LATE }
  ],
  ...given
});
const twinOf = (now: { video?: Item | null; post?: Item }, given: Partial<PairingFacts> = {}) => {
  const shown = now.video === undefined ? video : now.video;
  const known = facts({ videos: shown ? ['v'] : [], ...given });
  const twins = pairTwins(shown ? [shown] : [], [now.post ?? post], circumstancesOf(known));
  assert.equal(twins.length, 1);
  return twins[0];
};
const changed = (...args: Parameters<typeof twinOf>) => {
  const twin = twinOf(...args);
  if (twin?.reason.kind !== 'differs') return twin?.standing;
  return [
    ...twin.reason.differences.map(() => 'titles'),
    ...twin.reason.changes.map((c) => `${c.side} ${c.what}`)
  ];
};

test('whatever was changed of a half at its place is told, with its side', () => {
  assert.equal(changed({}), 'in-step');
  assert.deepEqual(changed({ video: { ...video, textHash: '9' } }), ['video description']);
  assert.deepEqual(changed({ video: { ...video, duration: 250 } }), ['video length']);
  assert.deepEqual(
    changed({
      video: {
        ...video,
        pictures: [{ url: 'https://video.example/v/new.png', width: 1280, height: 720 }]
      }
    }),
    ['video picture']
  );
  assert.deepEqual(changed({ post: { ...post, textHash: '9', tags: ['warp'] } }), [
    'post text',
    'post tags'
  ]);
  const other = new Map([['v', { captions: 'x', chapters: 'y' }]]);
  assert.deepEqual(changed({}, { details: other }), ['video captions', 'video chapters']);
});

test('a length rounded otherwise, a picture from another server and what was not known are no change', () => {
  assert.equal(changed({ video: { ...video, duration: 300.6 } }), 'in-step');
  const pictures = [{ url: 'https://cdn.example/v/1280.png?v=3', width: 1280, height: 720 }];
  assert.equal(changed({ video: { ...video, pictures } }), 'in-step');
  const { textHash: _unknown, ...bare } = video;
  assert.equal(changed({ video: bare }), 'in-step');
  assert.equal(changed({}, { details: new Map() }), 'in-step');
});

test('a title that was changed since has drifted, on whichever side; one by choice has not', () => {
  assert.deepEqual(changed({ video: { ...video, title: 'Sleying a reed' } }), ['titles']);
  assert.deepEqual(changed({ post: { ...post, title: 'How I sley' } }), ['titles']);
  const chosen = { ...post, title: 'How I sley' };
  const agreed = baseline({ ofPost: { facts: postFactsOf(chosen), at: EARLY } });
  assert.equal(changed({ post: chosen }, { baselines: [agreed] }), 'in-step');
});

test('less seen is a change, more seen is none, and is remembered', () => {
  assert.deepEqual(changed({ video: { ...video, visibility: 'private' } }), ['video visibility']);
  assert.deepEqual(changed({ post: { ...post, visibility: 'draft' } }), ['post visibility']);
  const hidden = baseline({
    ofPost: { facts: { ...postFactsOf(post), visibility: 'draft', text: 'other' }, at: EARLY }
  });
  const { remembered } = circumstancesOf(facts({ baselines: [hidden] }));
  const next = nextBaseline(video, post, remembered, true, LATE);
  assert.deepEqual(next?.ofPost, { facts: postFactsOf(post), at: LATE });
});

test('what was sent from here is no change, and is remembered once its place was read', () => {
  const sent = anEntry({
    key: 'retitle',
    itemId: 'p',
    state: 'published',
    sentAt: at('2026-03-05T00:00:00Z'),
    payload: { kind: 'change', title: '', change: { what: 'retitle', from: '', to: '' } }
  });
  const now = { ...post, textHash: '9' };
  for (const read of ['2026-03-04T00:00:00Z', LATE]) {
    const given = {
      entries: [sent],
      places: [
        { id: 'channel', read },
        { id: 'blog', read }
      ]
    };
    assert.equal(changed({ post: now }, given), 'in-step');
    const { remembered } = circumstancesOf(facts(given));
    const next = nextBaseline(video, now, remembered, true, LATE);
    assert.equal(next?.ofPost.facts.text, read === LATE ? '9' : undefined);
  }
});

test('a video that was changed before it was first looked at is held against what the post was made from', () => {
  const made = { ...post, origin: 'key' };
  const newer = { ...video, textHash: '9' };
  const making = { id: 'm', key: 'key', at: EARLY, video: videoFactsOf(video, details.get('v')) };
  const sent = aPostPayload({ making: 'm' });
  const entries = [
    anEntry({ key: 'key', itemId: 'v', state: 'published', sentAt: at(EARLY), sent })
  ];
  const given = { entries, makings: [making], baselines: [] };
  const row = nextBaseline(newer, made, circumstancesOf(facts(given)).remembered, true, LATE);
  assert.ok(row);
  assert.deepEqual(changed({ video: newer, post: made }, { ...given, baselines: [row] }), [
    'video description'
  ]);
});

test('what was sent from here is remembered first when it was read', () => {
  const entries = [anEntry({ key: 'key', itemId: 'v', state: 'published', sentAt: at(LATE) })];
  const of = (read: string) =>
    nextBaseline(
      video,
      { ...post, origin: 'key' },
      circumstancesOf(
        facts({
          entries,
          baselines: [],
          places: [
            { id: 'channel', read },
            { id: 'blog', read }
          ]
        })
      ).remembered,
      true,
      LATE
    );
  assert.equal(of(EARLY), null);
  assert.ok(of('2026-03-10T00:00:00.000Z'));
});

test('a post that was made here is held against what it was made from, also after an undo', () => {
  const made = { ...post, origin: 'key' };
  const newer = { ...video, textHash: '9' };
  const making = (id: string, of: Item, when: string): Making => ({
    id,
    key: 'key',
    at: when,
    video: videoFactsOf(of, details.get('v'))
  });
  const makings = [making('first', video, EARLY), making('second', newer, LATE)];
  const sentAs = (id: string) => [
    anEntry({
      key: 'key',
      itemId: 'v',
      state: 'published',
      sentAt: at(EARLY),
      sent: aPostPayload({ making: id }),
      payload: aPostPayload({ making: id })
    })
  ];
  const of = (id: string) =>
    changed(
      { video: newer, post: made },
      { entries: sentAs(id), makings, baselines: [baseline()] }
    );
  assert.deepEqual(of('first'), ['video description']);
  assert.equal(of('second'), 'in-step');
});

test('a post that somebody edited at its blog says so, though it is not known where', () => {
  const made = { ...post, origin: 'key' };
  const edited = anEntry({ key: 'key', itemId: 'v', state: 'published', held: 'a', seen: 'b' });
  assert.deepEqual(changed({ post: made }, { entries: [edited] }), ['post edited']);
  assert.deepEqual(changed({ post: { ...made, textHash: '9' } }, { entries: [edited] }), [
    'post text'
  ]);
});

test('a video that is gone leaves its post drifted, until the user knows it', () => {
  const twin = twinOf({ video: null });
  assert.equal(twin?.standing, 'drifted');
  assert.deepEqual(twin.reason, {
    kind: 'differs',
    differences: [],
    changes: [{ side: 'video', what: 'gone', before: 'Sleying the reed', after: '', on: null }]
  });
  const accepted = twinOf({ video: null }, { baselines: [baseline({ isGoneAccepted: true })] });
  assert.deepEqual(accepted?.reason, { kind: 'video-is-gone' });
});

test('a channel that is not connected any more has not lost its videos', () => {
  const twin = twinOf({ video: null }, { places: [{ id: 'blog', read: LATE }] });
  assert.deepEqual(twin?.reason, { kind: 'alone' });
});

test('a twin is remembered from when it is first in step, and what is learned later is filled in', () => {
  const fresh = circumstancesOf(facts({ baselines: [], details: new Map() })).remembered;
  assert.equal(nextBaseline(video, post, fresh, false, LATE), null);
  const first = nextBaseline(video, post, fresh, true, EARLY);
  assert.equal(first?.ofVideo.facts.captions, null);
  assert.ok(first);
  const { remembered } = circumstancesOf(facts({ baselines: [first] }));
  const next = nextBaseline(video, post, remembered, true, LATE);
  assert.deepEqual(next?.ofVideo, { facts: videoFactsOf(video, details.get('v')), at: EARLY });
  const known = circumstancesOf(facts({ baselines: [next ?? first] })).remembered;
  assert.equal(nextBaseline(video, post, known, true, LATE), null);
});
