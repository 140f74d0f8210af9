import './browserOf.ts';
import assert from 'node:assert/strict';
import { after, before, beforeEach, test } from 'node:test';
import { TestHosts } from '../hosts/testing.ts';
import { readActor } from '../src/lib/core/feeds/actor.ts';
import { readPage } from '../src/lib/core/feeds/page.ts';
import type { UpdatePayload } from '../src/lib/core/delivery/payload.ts';
import { db } from '../src/lib/data/db.ts';
import { saveKey, sealKey } from '../src/lib/data/keys.ts';
import { requestPublishAll } from '../src/lib/data/outbox.ts';
import { deliverEntry } from '../src/lib/delivery/deliverEntry.ts';
import { connectNetwork } from '../src/lib/work/networks.ts';
import { outside, sendAsUsual, sendStraight } from './outside.ts';

/** Threads as the application delivers them, against a rehearsal network. */
const hosts = new TestHosts();
before(sendStraight);
after(sendAsUsual);

const FIRST = '0b6cbd4e-6a2a-5b5e-9e0e-3c3f6d1a7a21';
const SECOND = '0b6cbd4e-6a2a-5b5e-9e0e-3c3f6d1a7a22';
const part = (number: number, follows: string): UpdatePayload => ({
  kind: 'update',
  form: 'text',
  title: 'Retting',
  hasTitle: false,
  text: `The flax is in. (${number}/2)`,
  hashtags: [],
  options: [],
  why: '',
  closes: null,
  picture: null,
  button: null,
  clip: null,
  part: { number, of: 2, after: follows }
});

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
  const home = `${hosts.origin}/notes/`;
  const { actor } = readPage(await (await outside(home)).text(), home);
  const facts = readActor(await (await outside(actor)).json(), actor);
  assert.ok(facts);
  const { id: placeId } = await connectNetwork(facts);
  await saveKey(placeId, await sealKey('wrenfold-updates-key'));
  const requests = [
    { key: FIRST, itemId: 'p', placeId, payload: part(1, '') },
    { key: SECOND, itemId: 'p', placeId, payload: part(2, FIRST) }
  ];
  await requestPublishAll(requests, Date.now());
});

test('a part that was tried before its predecessor stood does not wait out its next attempt', async () => {
  // An attempt at the second part is under way while the first is published, and then puts it off.
  let putOff = () => {};
  const attempt = navigator.locks.request(
    `outbox/${SECOND}`,
    () =>
      new Promise<void>((done) => {
        putOff = done;
      })
  );
  const delivery = deliverEntry(FIRST);
  while ((await db.outbox.get(FIRST))?.state !== 'published')
    await new Promise((done) => setTimeout(done, 20));
  await new Promise((done) => setTimeout(done, 200));
  await db.outbox.update(SECOND, { attempts: 6, nextTry: Date.now() + 60_000 });
  putOff();
  await Promise.all([attempt, delivery]);
  assert.equal((await db.outbox.get(SECOND))?.state, 'published');
});

test('a part that waits for the part before it uses up no attempts', async () => {
  for (let i = 0; i < 10; i++) await deliverEntry(SECOND);
  const waiting = await db.outbox.get(SECOND);
  assert.deepEqual([waiting?.state, waiting?.attempts], ['waiting', 0]);
  await deliverEntry(FIRST);
  assert.equal((await db.outbox.get(SECOND))?.state, 'published');
});

test('after a part was removed, the next one is tried and says what is missing', async () => {
  await db.outbox.update(FIRST, { state: 'removed', wanted: 'removed' });
  await deliverEntry(SECOND);
  const tried = await db.outbox.get(SECOND);
  assert.deepEqual([tried?.state, tried?.attempts], ['waiting', 1]);
  assert.match(tried?.problem?.detail ?? '', /part before it/);
});
