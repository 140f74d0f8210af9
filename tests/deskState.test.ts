import './browserOf.ts';
import assert from 'node:assert/strict';
import { after, before, beforeEach, test } from 'node:test';
import { TestHosts } from '../hosts/testing.ts';
import { isPost } from '../src/lib/core/delivery/payload.ts';
import { db } from '../src/lib/data/db.ts';
import { lockKeys } from '../src/lib/data/keyOfKeys.ts';
import { setPassphrase } from '../src/lib/data/keys.ts';
import { Desk } from '../src/lib/ui/desk/deskState.svelte.ts';
import { unlock } from '../src/lib/work/keyLock.ts';
import { connectBoth, itemCalled } from './connected.ts';
import { outside, sendAsUsual, sendStraight } from './outside.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
const SILENT = 'Three minutes of quiet weaving';
const hosts = new TestHosts();
before(sendStraight);
after(sendAsUsual);
beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

async function deskOf(title: string): Promise<Desk> {
  const desk = new Desk();
  await desk.open((await itemCalled(title)).id);
  return desk;
}

test('a video on the desk becomes a post, with the chapters of its channel', async () => {
  const { blog } = await connectBoth(hosts);
  const desk = await deskOf(TWILL);
  assert.equal(desk.isLoaded, true);
  assert.equal(desk.blogId, blog.id);
  assert.equal(desk.post?.title, TWILL);
  assert.equal(desk.isChannelsChapters, true);
  assert.match(desk.post?.html ?? '', /Counting the heddles/);
  // What was only opened is not saved.
  await desk.autosave.saveNow();
  assert.equal(await db.drafts.count(), 0);
  await desk.review();
  assert.deepEqual(desk.foreign, []);
});

test('what was changed is there again; discarding takes it away', async () => {
  await connectBoth(hosts);
  const desk = await deskOf(TWILL);
  const [first, ...others] = desk.chapters;
  desk.setChapters([{ ...first!, title: 'My looms' }, ...others]);
  desk.phrases = ['twill'];
  desk.status = 'private';
  await desk.autosave.saveNow();
  const again = await deskOf(TWILL);
  assert.equal(again.chapters[0]?.title, 'My looms');
  assert.deepEqual([again.phrases.length, again.status], [1, 'private']);
  await again.clear();
  const cleared = await deskOf(TWILL);
  assert.notEqual(cleared.chapters[0]?.title, 'My looms');
  assert.equal(cleared.phrases.length, 0);
});

test('chapters that are proposed keep those that were made by hand', async () => {
  await connectBoth(hosts);
  const desk = await deskOf(TWILL);
  const hand = { ...desk.chapters[2]!, title: 'Sitting well', byHand: true };
  desk.setChapters(desk.chapters.map((c, i) => (i === 2 ? hand : c)));
  desk.proposeChapters();
  assert.ok(desk.chapters.some((c) => c.title === 'Sitting well'));
});

test('text that is not from the talk is found, wherever it came from', async () => {
  await connectBoth(hosts);
  const desk = await deskOf(TWILL);
  const other = await deskOf('Straight selvedges: five things that helped');
  // As if a worker had answered for another video.
  desk.extracted = other.extracted;
  await desk.compose();
  await desk.review();
  assert.ok(desk.findings.some((f) => f.kind === 'not-from-talk'));
});

test('captions that are imported make the post of a video that has none', async () => {
  await connectBoth(hosts);
  const desk = await deskOf(SILENT);
  assert.equal(desk.talk, null);
  const lines = ['We weave plain cloth today.', 'Beat softly after every pick of the weft.'];
  await desk.importCaptions(
    lines.map((text, i) => ({ start: i * 5, end: i * 5 + 4, text, settings: '' }))
  );
  assert.equal(desk.talk!.sentences.length, 2);
  await desk.compose();
  assert.match(desk.post?.html ?? '', /Beat softly/);
  await desk.dropCaptions();
  assert.equal(desk.talk, null);
});

test('a post is published as it stands, once, and the desk has nothing left to save', async () => {
  await connectBoth(hosts);
  const desk = await deskOf(TWILL);
  desk.status = 'public';
  const { key } = desk;
  await desk.publish();
  await desk.publish();
  for (let i = 0; i < 200 && (await db.outbox.get(key))?.state !== 'published'; i++)
    await new Promise((done) => setTimeout(done, 20));
  const entries = await db.outbox.toArray();
  assert.deepEqual(
    entries.map((e) => [e.key, e.state, isPost(e.payload) && e.payload.status]),
    [[key, 'published', 'public']]
  );
  await desk.autosave.saveNow();
  assert.equal(await db.drafts.count(), 0);
  const page = await (await outside(entries[0]!.url)).text();
  assert.match(page, /Counting the heddles/);
});

test('captions that cannot be read are a problem that can be tried again', async () => {
  await connectBoth(hosts);
  await hosts.control('faults', { failOneIn: '1' });
  const usual = globalThis.fetch;
  globalThis.fetch = (...call) =>
    String(call[0]).includes('captions') ? Promise.reject(new TypeError('cut')) : usual(...call);
  const desk = await deskOf(TWILL);
  assert.equal(desk.problem?.kind, 'no-answer');
  assert.equal(desk.talk, null);
  globalThis.fetch = usual;
  await desk.readAgain();
  assert.equal(desk.problem, null);
  assert.ok(desk.talk!.sentences.length > 20);
});

test('while the keys are locked a post waits, and goes out once they are unlocked', async () => {
  await connectBoth(hosts);
  const desk = await deskOf(TWILL);
  desk.status = 'public';
  await setPassphrase('linen and wool');
  lockKeys();
  await desk.publish();
  const waiting = await db.outbox.get(desk.key);
  assert.deepEqual([waiting?.state, waiting?.attempts, waiting?.problem], ['waiting', 0, null]);
  assert.equal(await unlock('linen and wool'), true);
  for (let i = 0; i < 200 && (await db.outbox.get(desk.key))?.state !== 'published'; i++)
    await new Promise((done) => setTimeout(done, 50));
  assert.equal((await db.outbox.get(desk.key))?.state, 'published');
});
