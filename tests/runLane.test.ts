import './browserOf.ts';
import assert from 'node:assert/strict';
import { after, before, beforeEach, test } from 'node:test';
import { TestHosts } from '../hosts/testing.ts';
import type { Lane } from '../src/lib/core/lanes/lane.ts';
import { advance } from '../src/lib/core/lanes/runner.ts';
import { isPost } from '../src/lib/core/delivery/payload.ts';
import type { Item } from '../src/lib/core/model/item.ts';
import { aLane } from '../src/lib/core/testing.ts';
import { db } from '../src/lib/data/db.ts';
import { addLane, decideAll, getLane, makeAgain } from '../src/lib/data/lanes.ts';
import { keepRehearsed, rehearse } from '../src/lib/work/lanes/rehearse.ts';
import { runLane } from '../src/lib/work/lanes/runLane.ts';
import { undoRun } from '../src/lib/work/lanes/undoRun.ts';
import { laneWorld } from '../src/lib/work/lanes/world.ts';
import { connectBoth, connectWithKey, itemCalled } from './connected.ts';
import { outside, sendAsUsual, sendStraight } from './outside.ts';

/** Lanes as the application runs them, over the rehearsal hosts. */
const hosts = new TestHosts();
before(sendStraight);
after(sendAsUsual);

const TWILL = 'Threading a four-shaft twill, slowly';
let video: Item;
let blogUrl = '';

/** A lane that makes posts of the videos about twill, at whatever hour, one after the other. */
async function twillLane(change: (lane: Lane) => Partial<Lane> = () => ({})): Promise<Lane> {
  const { channel, blog } = await connectBoth(hosts);
  video = await itemCalled(TWILL);
  blogUrl = blog.url;
  const lane = aLane({ id: 'lane', isOn: true, since: 0 });
  const made = {
    ...lane,
    source: { ...lane.source, places: [channel.id] },
    filter: { ...lane.filter, scope: 'newest-first' as const, keep: ['four-shaft twill'] },
    pace: { ...lane.pace, hours: { from: 0, to: 24 }, gap: 0 },
    targets: [{ placeId: blog.id, status: 'public' as const, categories: [], tags: [] }]
  };
  await addLane({ ...made, ...change(made) });
  return (await getLane('lane'))!;
}
const records = () => db.records.where({ laneId: 'lane' }).toArray();
const recordOf = async (item: Item) => (await records()).find((r) => r.itemId === item.id);
const atBlog = async () => (await (await outside(blogUrl)).text()).includes(TWILL);
async function sendAll(): Promise<void> {
  const lane = (await getLane('lane'))!;
  for (let i = 0; i < 10; i++) if ((await advance(lane, laneWorld)) === null) return;
}

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

test('a run makes what passes the filter, says why it left out the rest, and waits for review', async () => {
  await twillLane();
  const run = await runLane('lane');
  assert.equal(run?.problem, null);
  assert.deepEqual([run.seen, run.made], [13, 1]);
  assert.equal((await recordOf(video))?.state, 'in-review');
  const left = (await records()).filter((r) => r.state === 'dropped');
  assert.equal(left.length, 12);
  for (const { reason } of left) assert.ok(reason);
  await sendAll();
  assert.equal(await atBlog(), false);
  assert.deepEqual((await db.journal.toArray()).at(-1)?.what, 'run');
});

test('what is approved goes to the blog once; a second run makes nothing more; undo deletes it', async () => {
  await twillLane();
  const run = (await runLane('lane'))!;
  await decideAll([(await recordOf(video))!], 'approve', Date.now());
  await sendAll();
  assert.equal(await atBlog(), true);
  assert.equal((await recordOf(video))?.state, 'published');
  const again = await runLane('lane');
  assert.equal(again?.made, 0);
  assert.equal(await db.outbox.count(), 1);

  assert.deepEqual(await undoRun(run), { undone: 1, left: [] });
  assert.equal(await atBlog(), false);
  assert.equal((await recordOf(video))?.state, 'undone');
  // It can be made once more when the user asks for it.
  await makeAgain((await recordOf(video))!.id, Date.now());
  assert.equal((await runLane('lane'))?.made, 1);
  assert.equal((await recordOf(video))?.state, 'in-review');
});

test('two runs of one lane at the same instant are one', async () => {
  await twillLane();
  const runs = await Promise.all([runLane('lane'), runLane('lane')]);
  assert.equal(runs.filter(Boolean).length, 1);
  assert.equal(await db.outbox.count(), 1);
});

test('two lanes that run at once give each post the text of its own video', async () => {
  const lane = await twillLane();
  const filter = { ...lane.filter, keep: ['selvedges'] };
  await addLane({ ...lane, id: 'other', filter });
  await Promise.all([runLane('lane'), runLane('other')]);
  const htmlOf = async (laneId: string) => {
    const entry = await db.outbox.where({ laneId }).first();
    return entry && isPost(entry.payload) ? entry.payload.html : '';
  };
  const [ownOfTwill, ownOfSelvedges] = [/Put the hook through the eye/, /The question I get most/];
  assert.match(await htmlOf('lane'), ownOfTwill);
  assert.doesNotMatch(await htmlOf('lane'), ownOfSelvedges);
  assert.match(await htmlOf('other'), ownOfSelvedges);
  assert.doesNotMatch(await htmlOf('other'), ownOfTwill);
});

test('a rehearsal keeps nothing; what is kept of it goes out as it was rehearsed', async () => {
  const lane = await twillLane();
  const before = await db.outbox.count();
  const rehearsed = await rehearse(lane, video.id);
  assert.equal(rehearsed.made.length, 1);
  assert.deepEqual([await db.outbox.count(), (await records()).length], [before, 0]);
  await keepRehearsed(lane, rehearsed);
  assert.equal((await recordOf(video))?.state, 'planned');
  await sendAll();
  assert.equal(await atBlog(), true);
});

test('settings that are changed while a lane runs are kept', async () => {
  await twillLane();
  const running = runLane('lane');
  await db.lanes.update('lane', { name: 'Renamed', isOn: false });
  await running;
  assert.deepEqual(
    [(await getLane('lane'))?.name, (await getLane('lane'))?.isOn],
    ['Renamed', false]
  );
});

test('a place that does not answer while a lane runs loses nothing that is known', async () => {
  await twillLane();
  await hosts.control('faults', { failOneIn: '1' });
  const run = await runLane('lane');
  assert.equal(run?.seen, 13);
  const place = await db.places.where({ kind: 'channel' }).first();
  assert.ok(place?.problem);
});

test('a lane of updates makes one text for each of its networks', async () => {
  await twillLane();
  const networks = [await connectWithKey(hosts, 'notes'), await connectWithKey(hosts, 'followers')];
  const lane = (await getLane('lane'))!;
  const targets = networks.map(({ id }) => ({
    placeId: id,
    status: 'public' as const,
    categories: [],
    tags: []
  }));
  await addLane({ ...lane, targets, make: { ...lane.make, kind: 'update' } });
  assert.equal((await runLane('lane'))?.made, 1);
  const entries = await db.outbox.toArray();
  assert.deepEqual(entries.map((e) => e.placeId).sort(), networks.map((n) => n.id).sort());
  for (const { payload } of entries) assert.ok('kind' in payload && payload.kind === 'update');
});

test('a lane that is gone does not run', async () => {
  assert.equal(await runLane('nothing'), null);
});
