import './browserOf.ts';
import assert from 'node:assert/strict';
import { after, before, beforeEach, test } from 'node:test';
import { TestHosts } from '../hosts/testing.ts';
import { sendAsUsual, sendStraight } from './outside.ts';
import { PlaceError, type Place } from '../src/lib/core/model/place.ts';
import { db } from '../src/lib/data/db.ts';
import { readKey } from '../src/lib/data/keys.ts';
import { getPlace } from '../src/lib/data/places.ts';
import {
  checkPlace,
  connectPlace,
  disconnectPlace,
  findPlace,
  removeKey,
  setKey
} from '../src/lib/work/connect.ts';
import { readPlaces } from '../src/lib/work/read.ts';

const hosts = new TestHosts();
const signal = new AbortController().signal;
before(sendStraight);
after(sendAsUsual);
beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

const connect = async (path: string): Promise<Place> =>
  connectPlace(await findPlace(hosts.origin + path, signal));
const isProblem = (kind: string) => (error: unknown) =>
  error instanceof PlaceError && error.problem.kind === kind;
/** Every state that a place was in, in order. */
async function statesOf(id: string, work: () => Promise<unknown>): Promise<(Place | undefined)[]> {
  const states: (Place | undefined)[] = [];
  const watch = (_changes: Partial<Place>, _key: unknown, before: Place) => {
    states.push(before);
  };
  db.places.hook('updating', watch);
  await work();
  db.places.hook('updating').unsubscribe(watch);
  return [...states.slice(1), await db.places.get(id)];
}

test('any address of a channel leads to its feed', async () => {
  for (const path of ['/channel/', '/channel/watch/hemstitching', '/channel/feed.xml']) {
    const found = await findPlace(hosts.origin + path, signal);
    assert.equal(found.kind, 'channel');
    assert.equal(found.title, 'Wrenfold Loomworks');
    assert.equal(found.feedUrl, `${hosts.origin}/channel/feed.xml`);
    assert.equal(new URL(found.micropub).origin, hosts.origin);
    assert.equal(found.latest.length, 3);
  }
});

test('what leads to no feed is reported, and why', async () => {
  await assert.rejects(findPlace('not an address', signal), isProblem('bad-address'));
  await assert.rejects(findPlace(`${hosts.origin}/control/`, signal), isProblem('no-feed-found'));
  await assert.rejects(findPlace(`${hosts.origin}/nothing-here`, signal), isProblem('not-found'));
});

test('a place begins as one that is only read', async () => {
  const { id } = await connect('/blog/');
  const place = await getPlace(id);
  assert.deepEqual(place?.rights, ['read']);
  assert.equal(place?.hasKey, false);
  assert.equal((await db.journal.toArray()).at(-1)?.what, 'connected');
});

test('a key that is accepted is stored with what it allows', async () => {
  const place = await connect('/blog/');
  await setKey(place, '  wrenfold-drafts-only-key ', signal);
  const after = await getPlace(place.id);
  assert.equal(after?.hasKey, true);
  assert.ok(after.rights.includes('draft') && !after.rights.includes('create'));
  assert.equal(await readKey(place.id), 'wrenfold-drafts-only-key');

  await removeKey(place);
  assert.equal(await readKey(place.id), '');
  assert.deepEqual((await getPlace(place.id))?.rights, ['read']);
});

test('a key that is refused changes nothing, not even for a moment', async () => {
  const place = await connect('/blog/');
  await setKey(place, 'wrenfold-drafts-only-key', signal);
  const before = await getPlace(place.id);
  const states = await statesOf(place.id, () =>
    assert.rejects(setKey(place, 'wrong-key', signal), isProblem('key-refused'))
  );
  for (const state of states) assert.deepEqual(state, before);
  assert.equal(await readKey(place.id), 'wrenfold-drafts-only-key');
});

test('a key that arrives after its place was disconnected is not kept', async () => {
  const place = await connect('/blog/');
  const saving = setKey(place, 'wrenfold-drafts-only-key', signal);
  await disconnectPlace(place);
  await saving;
  assert.equal(await readKey(place.id), '');
  assert.equal(await getPlace(place.id), null);
});

test('checking keeps what is wrong with a place, until it is right again', async () => {
  const place = await connect('/channel/');
  await hosts.control('faults', { failOneIn: '1' });
  await assert.rejects(checkPlace(place, signal));
  assert.notEqual((await getPlace(place.id))?.problem ?? null, null);
  await hosts.control('faults');
  await checkPlace(place, signal);
  assert.equal((await getPlace(place.id))?.problem, null);
});

test('reading puts the items of a place into the catalogue; disconnecting takes them out', async () => {
  const channel = await connect('/channel/');
  const blog = await connect('/blog/');
  await readPlaces();
  assert.equal(await db.items.where({ placeId: channel.id }).count(), 13);
  assert.equal(await db.items.where({ placeId: blog.id }).count(), 9);
  await disconnectPlace(channel);
  assert.equal(await db.items.where({ placeId: channel.id }).count(), 0);
  assert.equal(await db.items.where({ placeId: blog.id }).count(), 9);
});

test('two readings of one place at the same instant leave all its items', async () => {
  const channel = await connect('/channel/');
  await Promise.all([readPlaces(channel), readPlaces(channel)]);
  assert.equal(await db.items.where({ placeId: channel.id }).count(), 13);
});
