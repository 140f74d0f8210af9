import './browserOf.ts';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import type { VideoPayload } from '../src/lib/core/delivery/payload.ts';
import { transferSchema, type Transfer } from '../src/lib/core/delivery/transfer.ts';
import { placeSchema } from '../src/lib/core/model/place.ts';
import { db } from '../src/lib/data/db.ts';
import { requestVideo } from '../src/lib/data/outbox.ts';
import { addPlace } from '../src/lib/data/places.ts';
import { continueTransfer, retryTransfer, sendPending } from '../src/lib/delivery/transfers.ts';

/** Files on their way, where this browser has none of them. */
const payload: VideoPayload = {
  kind: 'video',
  title: 'Narrated',
  description: '',
  tags: [],
  category: '',
  language: 'en',
  visibility: 'public',
  publishAt: null,
  madeFrom: '',
  captions: '',
  chapters: ''
};
const KEY = 'narrated';
const aTransfer = (more: Partial<Transfer> = {}): Transfer =>
  transferSchema.parse({
    key: KEY,
    placeId: 'channel',
    itemId: 'p',
    title: 'Narrated',
    file: 'narrated.webm',
    bytes: 10,
    type: 'video/webm',
    uploadUrl: '',
    sent: 0,
    thumbnail: '',
    embeds: false,
    state: 'waiting',
    problem: null,
    attempts: 0,
    nextTry: 0,
    updated: 0,
    ...more
  });

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
  await addPlace(
    placeSchema.parse({
      id: 'channel',
      kind: 'channel',
      url: 'https://channel.example/',
      feedUrl: 'https://channel.example/feed.xml',
      title: 'Looms',
      author: '',
      micropub: 'https://channel.example/micropub',
      tokenEndpoint: '',
      rights: ['read', 'create'],
      hasKey: true,
      origins: [],
      linked: '',
      checked: '',
      problem: null
    })
  );
});

async function begin(transfer: Transfer, entry: object = { state: 'published' }): Promise<void> {
  await requestVideo({ key: KEY, itemId: 'p', placeId: 'channel', payload }, transfer, Date.now());
  await db.outbox.update(KEY, { url: 'https://channel.example/watch/narrated', ...entry });
}
const kept = async () => (await db.transfers.get(KEY)) ?? null;
const journal = async () => (await db.journal.toArray()).map((line) => line.what);

test('a file that this browser no longer has is reported, with what to do, and is not tried for ever', async () => {
  await begin(aTransfer());
  await continueTransfer(KEY);
  const transfer = await kept();
  assert.equal(transfer?.state, 'failed');
  assert.equal(transfer.problem?.kind, 'refused');
  assert.match(transfer.problem.detail, /Render the video again/);
  assert.deepEqual(await journal(), ['publish-failed']);
  // Nothing of it is pending any more.
  await sendPending();
  assert.equal((await kept())?.attempts, 1);
});

test('trying again begins to count anew', async () => {
  await begin(
    aTransfer({ state: 'failed', attempts: 7, sent: 5, uploadUrl: 'https://u.example/1' })
  );
  await retryTransfer(KEY);
  const transfer = await kept();
  assert.equal(transfer?.attempts, 1);
  assert.equal(transfer.uploadUrl, 'https://u.example/1');
});

test('a video that is to be removed sends no file', async () => {
  await begin(aTransfer(), { state: 'waiting', wanted: 'removed' });
  await continueTransfer(KEY);
  assert.equal(await kept(), null);
  assert.deepEqual(await journal(), []);
});

test('a file waits until its video stands at the channel', async () => {
  await begin(aTransfer(), { state: 'sending' });
  await continueTransfer(KEY);
  assert.deepEqual(await kept(), aTransfer());
});

test('a channel that was disconnected meanwhile is reported', async () => {
  await begin(aTransfer());
  await db.places.clear();
  await continueTransfer(KEY);
  assert.equal((await kept())?.problem?.kind, 'key-missing');
});

test('what is ready is left alone', async () => {
  await begin(aTransfer({ state: 'ready' }));
  await continueTransfer(KEY);
  assert.deepEqual(await kept(), aTransfer({ state: 'ready' }));
});
