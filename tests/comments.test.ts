import './browserOf.ts';
import assert from 'node:assert/strict';
import { after, before, beforeEach, test } from 'node:test';
import { TestHosts } from '../hosts/testing.ts';
import { allComments } from '../src/lib/data/comments.ts';
import { db } from '../src/lib/data/db.ts';
import { patchPlace } from '../src/lib/data/places.ts';
import { deliverEntry, undoEntry } from '../src/lib/delivery/deliverEntry.ts';
import { pairAgain } from '../src/lib/workers/pairAgain.ts';
import { decideComments, readCommentsOf } from '../src/lib/work/comments.ts';
import { readPlaces } from '../src/lib/work/read.ts';
import { connectBoth } from './connected.ts';
import { outside, sendAsUsual, sendStraight } from './outside.ts';

/** Comments that are brought from the channel to the posts, over the rehearsal hosts. */
const hosts = new TestHosts();
before(sendStraight);
after(sendAsUsual);

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

/** Both places connected and paired, and the channel read with a rule for comments. */
async function begin(rule: 'ask' | 'always' | 'off') {
  const { channel } = await connectBoth(hosts);
  await pairAgain();
  await patchPlace(channel.id, { comments: rule });
  await readPlaces();
  const read = async () => (await allComments()).filter((c) => c.url.includes('winding-a-warp'));
  return { read };
}
const shown = async () => {
  const answer = await outside(`${hosts.origin}/blog/posts/winding-a-warp-on-a-board`);
  return [...(await answer.text()).matchAll(/p-author">([^<]+)<\/span>\s*at/g)].map((m) => m[1]);
};
/** A retry that fell due in the meantime may have been at work on the entry, and left what is new to the next attempt. */
async function untilShown(count: number, key: string): Promise<void> {
  for (let i = 0; i < 100 && (await shown()).length !== count; i++) {
    await new Promise((done) => setTimeout(done, 50));
    await deliverEntry(key);
  }
  assert.equal((await shown()).length, count);
}
const write = (author: string, text: string) =>
  outside(`${hosts.origin}/channel/watch/winding-a-warp/comments`, {
    method: 'POST',
    body: new URLSearchParams({ author, text }),
    redirect: 'manual'
  });

test('nothing is read while comments stay at the channel', async () => {
  const { read } = await begin('off');
  assert.deepEqual(await read(), []);
});

test('what is chosen goes to the post once, however often it is read or its answer is lost', async () => {
  const { read } = await begin('ask');
  const found = await read();
  assert.equal(found.length, 4);
  assert.ok(found.every((c) => c.choice === 'open'));
  assert.deepEqual(await shown(), []);

  const wanted = found.filter((c) => c.author !== 'best prices');
  await hosts.control('faults', { loseOneIn: '1' });
  await (
    await decideComments(wanted, 'bring')
  ).cited;
  await hosts.control('faults');
  const [entry] = await db.outbox.toArray();
  await db.outbox.update(entry!.key, { nextTry: 0, unsettledUntil: 0, state: 'waiting' });
  await deliverEntry(entry!.key);
  await readPlaces();
  assert.deepEqual(await shown(), ['Orla Fennick', 'Isolde Wrenfold', 'Tamsin Okoro']);

  // A new one waits, and the others stay as they are.
  await write('Marek Lindqvist', 'Thank you.');
  await readPlaces();
  const fresh = (await read()).filter((c) => c.choice === 'open' && c.author !== 'best prices');
  assert.deepEqual(
    fresh.map((c) => c.html),
    ['<p>Thank you.</p>']
  );
  const { cited, undo } = await decideComments(fresh, 'bring');
  await cited;
  await untilShown(4, entry!.key);
  await (
    await undo()
  ).cited;
  await untilShown(3, entry!.key);
});

test('by the rule for all new ones they go by themselves, but for those with links', async () => {
  const { read } = await begin('always');
  assert.deepEqual(await shown(), ['Orla Fennick', 'Isolde Wrenfold', 'Tamsin Okoro']);
  const open = (await read()).filter((c) => c.choice === 'open');
  assert.deepEqual(
    open.map((c) => c.author),
    ['best prices']
  );
});

test('taken back in the journal, they leave the post and wait for a decision', async () => {
  const { read } = await begin('always');
  const [entry] = await db.outbox.filter((e) => e.url.includes('winding-a-warp')).toArray();
  await undoEntry(entry!.key);
  assert.deepEqual(await shown(), []);
  assert.ok((await read()).every((c) => c.choice === 'open'));
  await readPlaces();
  assert.deepEqual(await shown(), []);
});

test('one that is gone from the channel goes from the post', async () => {
  const { read } = await begin('always');
  assert.equal((await shown()).length, 3);
  await hosts.control('comment', { id: 'warp-03' });
  await readPlaces();
  assert.deepEqual(await shown(), ['Orla Fennick', 'Isolde Wrenfold']);
  assert.deepEqual(
    (await read()).filter((c) => c.isGone).map((c) => c.author),
    ['Tamsin Okoro']
  );
});

test('comments that cannot be read are told, and read next time', async () => {
  const { read } = await begin('ask');
  await write('Marek Lindqvist', 'Thank you.');
  await readPlaces();
  const [channel] = await db.places.where({ kind: 'channel' }).toArray();
  // The feed of one video is no longer where it was.
  const video = await db.items.filter((i) => i.url.endsWith('/winding-a-warp')).first();
  await db.items.update(video!.id, {
    replies: { url: `${hosts.origin}/channel/gone.xml`, count: 9 }
  });
  const { signal } = new AbortController();
  assert.equal(await readCommentsOf(channel!, signal, () => {}), 1);
  assert.equal((await read()).length, 5);
  await readPlaces();
  assert.equal(await readCommentsOf(channel!, signal, () => {}, true), 0);
});
