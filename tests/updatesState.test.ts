import './browserOf.ts';
import assert from 'node:assert/strict';
import { after, before, beforeEach, test } from 'node:test';
import { TestHosts } from '../hosts/testing.ts';
import { db } from '../src/lib/data/db.ts';
import { Updates } from '../src/lib/ui/updates/updatesState.svelte.ts';
import { connectBoth, connectWithKey, itemCalled } from './connected.ts';
import { sendAsUsual, sendStraight } from './outside.ts';

const COSTS = 'What a woven metre costs, and why';
const TWILL = 'Threading a four-shaft twill, slowly';
const hosts = new TestHosts();
before(sendStraight);
after(sendAsUsual);
beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
  await connectBoth(hosts);
});

async function updatesOf(title: string): Promise<Updates> {
  const updates = new Updates();
  await updates.open((await itemCalled(title)).id);
  if (updates.draft) updates.draft.shown = 'nothing';
  return updates;
}

test('each network gets a version within its limits, with hashtags that are in use there', async () => {
  const notes = await connectWithKey(hosts, 'notes');
  const followers = await connectWithKey(hosts, 'followers');
  const updates = await updatesOf(COSTS);
  assert.deepEqual(
    updates.chosen.map((n) => n.id),
    [notes.id, followers.id]
  );
  const versions = await updates.make();
  assert.equal(versions.length, 2);
  for (const [i, network] of [notes, followers].entries()) {
    const { payload, problems } = versions[i]!;
    assert.deepEqual(problems, []);
    assert.ok([...payload.text].length <= network.limits.text);
    assert.ok(payload.hashtags.length <= network.limits.hashtags);
    assert.match(payload.text, /utm_source=/);
  }
});

test('what was written for one network stands there alone, and is there again', async () => {
  const notes = await connectWithKey(hosts, 'notes');
  await connectWithKey(hosts, 'followers');
  const updates = await updatesOf(COSTS);
  updates.setOwn(notes.id, { text: 'For the neighbours only.' });
  const [own, other] = await updates.make();
  assert.match(own!.payload.text, /^For the neighbours only\./);
  assert.doesNotMatch(other!.payload.text, /neighbours/);
  assert.deepEqual(
    updates.untouched.map((n) => n.id),
    [notes.id]
  );
  await updates.autosave.saveNow();
  assert.equal((await updatesOf(COSTS)).own(notes.id).text, 'For the neighbours only.');
});

test('networks are chosen; those without a key never are', async () => {
  const notes = await connectWithKey(hosts, 'notes');
  const updates = await updatesOf(COSTS);
  updates.choose(notes.id, false);
  assert.deepEqual(updates.chosen, []);
  updates.choose(notes.id, true);
  await db.networks.update(notes.id, { hasKey: false });
  await updates.autosave.saveNow();
  assert.deepEqual((await updatesOf(COSTS)).chosen, []);
});

test('a poll and a quiz are proposed from the talk, and what is asked by hand stays', async () => {
  await connectWithKey(hosts, 'notes');
  const updates = await updatesOf(TWILL);
  assert.ok((updates.draft?.poll?.options.length ?? 0) >= 2);
  const options = [
    { text: 'Plain', right: false },
    { text: 'Twill', right: false }
  ];
  updates.ask('poll', { question: 'Plain or twill?', options, why: '' });
  await updates.autosave.saveNow();
  const again = await updatesOf(TWILL);
  assert.equal(again.draft?.poll?.question, 'Plain or twill?');
  again.draft!.form = 'poll';
  const [version] = await again.make();
  assert.deepEqual(
    version?.payload.options.map((o) => o.text),
    ['Plain', 'Twill']
  );
});

test('hashtags of one’s own come first and banned ones never', async () => {
  const notes = await connectWithKey(hosts, 'notes');
  const updates = await updatesOf(COSTS);
  const [first] = (updates.hashtags.get(notes.id) ?? []).map((t) => t.tag);
  assert.ok(first);
  await updates.setTagLists({ own: ['handwoven'], banned: [first.replace('#', '')] });
  const now = (updates.hashtags.get(notes.id) ?? []).map((t) => t.tag.toLowerCase());
  assert.equal(now[0], '#handwoven');
  assert.ok(!now.includes(first.toLowerCase()));
});

test('an item that is not here is missing', async () => {
  const updates = new Updates();
  await updates.open('nothing');
  assert.equal(updates.isMissing, true);
  assert.deepEqual(await updates.make(), []);
});
