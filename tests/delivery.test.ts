import './browserOf.ts';
import assert from 'node:assert/strict';
import { after, before, beforeEach, test } from 'node:test';
import { v4 } from 'uuid';
import { TestHosts } from '../hosts/testing.ts';
import { isChangedThere } from '../src/lib/core/delivery/outbox.ts';
import { type VideoPayload } from '../src/lib/core/delivery/payload.ts';
import { transferSchema } from '../src/lib/core/delivery/transfer.ts';
import { placeSchema, PlaceError, type Place } from '../src/lib/core/model/place.ts';
import { anItem } from '../src/lib/core/testing.ts';
import { db } from '../src/lib/data/db.ts';
import { saveKey, sealKey } from '../src/lib/data/keys.ts';
import { requestPost, requestPublish, requestVideo } from '../src/lib/data/outbox.ts';
import { addPlace, getPlace, removePlace } from '../src/lib/data/places.ts';
import { defaultTemplate } from '../src/lib/core/article/template/template.ts';
import { embedOpenedVideos, retitlePost } from '../src/lib/delivery/changes.ts';
import {
  deliverEntry,
  retryNow,
  settleTheirs,
  undoEntry,
  undoLast
} from '../src/lib/delivery/deliverEntry.ts';
import { readPlaces } from '../src/lib/work/read.ts';
import { checkPlace, setKey } from '../src/lib/work/connect.ts';
import { outside, sendAsUsual, sendStraight } from './outside.ts';
import { aPostPayload } from '../src/lib/core/testing.ts';

/** The outbox as the application drives it, against the rehearsal blog. */
const hosts = new TestHosts();
before(sendStraight);
after(sendAsUsual);

const KEY = 'wrenfold-notebook-key';
const blogPlace = (): Place =>
  placeSchema.parse({
    id: 'blog',
    kind: 'blog',
    url: `${hosts.origin}/blog/`,
    feedUrl: `${hosts.origin}/blog/feed.xml`,
    title: 'Notebook',
    author: '',
    micropub: `${hosts.origin}/blog/micropub`,
    tokenEndpoint: `${hosts.origin}/blog/token`,
    rights: ['read', 'create', 'update', 'delete'],
    hasKey: true,
    origins: [],
    linked: '',
    checked: '',
    problem: null
  });
beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
  await addPlace(blogPlace());
  await saveKey('blog', await sealKey(KEY));
});

const payload = aPostPayload({ title: 'A made post', html: '<p>Text</p>' });
interface Source {
  url: string;
  name: string;
  html: string;
}
async function sources(): Promise<Source[]> {
  const answer = await outside(`${hosts.origin}/blog/micropub?q=source&limit=100`, {
    headers: { authorization: `Bearer ${KEY}` }
  });
  const { items } = (await answer.json()) as {
    items: { properties: { url: string[]; name: string[]; content: { html: string }[] } }[];
  };
  return items.map(({ properties: p }) => ({
    url: p.url[0]!,
    name: p.name[0]!,
    html: p.content[0]!.html
  }));
}
const byTitle = async (title: string) => (await sources()).filter((s) => s.name === title);
const whatHappened = async (): Promise<string[]> =>
  (await db.journal.toArray()).map((l) => l.what).filter((w) => !w.startsWith('read'));

/** Delivers until it stands or failed for good, whatever the faults. */
async function settle(key: string): Promise<void> {
  for (let i = 0; i < 12; i++) {
    const entry = await db.outbox.get(key);
    if (entry?.state === 'published' || entry?.state === 'removed') return;
    await db.outbox.update(key, { unsettledUntil: 0, nextTry: 0 });
    await retryNow(key);
  }
}

test('a post is published, its draft done and its layout kept in one go, and undone from the outbox', async () => {
  await db.drafts.put({
    id: 'v',
    template: defaultTemplate,
    status: 'public',
    on: '',
    placeId: 'blog',
    since: '',
    changed: ''
  });
  const request = { key: 'k', itemId: 'v', placeId: 'blog', payload };
  await requestPost(
    request,
    { channelId: 'c', template: defaultTemplate, draftId: 'v' },
    Date.now()
  );
  assert.deepEqual([await db.drafts.count(), await db.templates.count()], [0, 1]);
  await deliverEntry('k');
  assert.equal((await byTitle('A made post')).length, 1);
  await undoEntry('k');
  assert.equal((await byTitle('A made post')).length, 0);
  assert.deepEqual(await whatHappened(), ['published', 'removed']);
});

test('two holders of one key at the same instant publish once', async () => {
  await requestPublish({ key: 'k', itemId: 'v', placeId: 'blog', payload }, Date.now());
  await Promise.all([deliverEntry('k'), deliverEntry('k'), deliverEntry('k')]);
  assert.equal((await byTitle('A made post')).length, 1);
});

test('a new title goes through the outbox: written down, tried again, noted, and put back by undo', async () => {
  const [post] = await sources();
  const item = anItem({
    id: 'p',
    kind: 'post',
    placeId: 'blog',
    url: post!.url,
    title: post!.name
  });
  const video = anItem({ id: 'v', kind: 'video', title: 'A better title' });
  await hosts.control('faults', { loseOneIn: '1' });
  await assert.rejects(retitlePost(video, item), (error) => error instanceof PlaceError);
  const [entry] = await db.outbox.toArray();
  assert.deepEqual([entry?.state, entry?.payload.title], ['waiting', item.title]);
  await hosts.control('faults', {});
  await settle(entry!.key);
  assert.equal((await byTitle('A better title')).length, 1);
  assert.ok((await whatHappened()).includes('updated'));
  await undoEntry(entry!.key);
  assert.equal((await byTitle('A better title')).length, 0);
  assert.equal((await byTitle(post!.name)).length, 1);
});

test('a title that somebody changed once more since is left as it is by undo', async () => {
  const [post] = await sources();
  const item = anItem({
    id: 'p',
    kind: 'post',
    placeId: 'blog',
    url: post!.url,
    title: post!.name
  });
  await retitlePost(anItem({ id: 'v', kind: 'video', title: 'Second' }), item);
  await retitlePost(anItem({ id: 'v', kind: 'video', title: 'Third' }), {
    ...item,
    title: 'Second'
  });
  assert.equal(await db.outbox.count(), 1, 'one change of the title of one post');
  const [entry] = await db.outbox.toArray();
  await outside(`${hosts.origin}/blog/micropub`, {
    method: 'POST',
    headers: { authorization: `Bearer ${KEY}`, 'content-type': 'application/json' },
    body: JSON.stringify({ action: 'update', url: post!.url, replace: { name: ['By hand'] } })
  });
  await undoEntry(entry!.key);
  assert.equal((await byTitle('By hand')).length, 1);
});

test('without the right to change posts a title is refused, and nothing is written down', async () => {
  await addPlace({ ...blogPlace(), rights: ['read', 'draft'] });
  const item = anItem({ id: 'p', kind: 'post', placeId: 'blog' });
  await assert.rejects(
    retitlePost(anItem({ id: 'v', kind: 'video' }), item),
    (error) => error instanceof PlaceError && error.problem.kind === 'right-missing'
  );
  assert.equal(await db.outbox.count(), 0);
});

const videoPayload: VideoPayload = {
  kind: 'video',
  title: 'Narrated',
  description: '',
  tags: [],
  category: '',
  language: 'en',
  visibility: 'private',
  publishAt: '2026-12-01T10:00:00.000Z',
  madeFrom: '',
  captions: '',
  chapters: ''
};

test('a video is embedded once a reading finds that it was opened: not before, once, and undone', async () => {
  const [post] = await sources();
  await db.items.put(anItem({ id: 'p', kind: 'post', placeId: 'blog', url: post!.url }));
  const transfer = transferSchema.parse({
    key: 'k',
    placeId: 'channel',
    itemId: 'p',
    title: 'Narrated',
    file: 'f.webm',
    bytes: 1,
    type: 'video/webm',
    uploadUrl: '',
    sent: 1,
    thumbnail: '',
    embeds: true,
    state: 'ready',
    problem: null,
    attempts: 0,
    nextTry: 0,
    updated: 0
  });
  const request = { key: 'k', itemId: 'p', placeId: 'channel', payload: videoPayload };
  await requestVideo(request, transfer, Date.now());
  const video = anItem({
    id: 'v',
    kind: 'video',
    placeId: 'channel',
    origin: 'k',
    visibility: 'scheduled',
    embedUrl: `${hosts.origin}/channel/embed/x`
  });
  const shown = async () =>
    (await sources()).find((s) => s.url === post!.url)!.html.split('/channel/embed/x').length - 1;
  await db.items.put(video);
  await embedOpenedVideos();
  assert.deepEqual([await shown(), (await db.transfers.get('k'))?.embeds], [0, true]);

  await db.items.put({ ...video, visibility: 'public' });
  await hosts.control('faults', { failOneIn: '1' });
  await embedOpenedVideos();
  // It is the outbox's from now on, and is not asked for again.
  assert.equal((await db.transfers.get('k'))?.embeds, false);
  await embedOpenedVideos();
  const embed = (await db.outbox.toArray()).find((e) => 'change' in e.payload);
  await hosts.control('faults', {});
  await settle(embed!.key);
  assert.equal(await shown(), 1);
  assert.ok((await whatHappened()).includes('embedded'));
  await undoEntry(embed!.key);
  assert.equal(await shown(), 0);
});

test('a change to a post that is gone fails, and makes no post', async () => {
  const before = (await sources()).length;
  const url = `${hosts.origin}/blog/posts/never`;
  await requestPublish(
    {
      key: 'k',
      itemId: 'p',
      placeId: 'blog',
      url,
      payload: { kind: 'change', title: 'Gone', change: { what: 'retitle', from: 'a', to: 'b' } }
    },
    Date.now()
  );
  await deliverEntry('k');
  const entry = await db.outbox.get('k');
  assert.deepEqual([entry?.state, entry?.problem?.kind], ['failed', 'not-found']);
  assert.equal((await sources()).length, before);
});

test('a key that is refused leaves the one of before in its place', async () => {
  const place = (await getPlace('blog'))!;
  await db.keys.put({ placeId: 'blog', key: KEY });
  // What is read of the feed needs a worker, so whatever key is tried here fails.
  await assert.rejects(setKey(place, 'wrong-key'));
  assert.equal((await db.keys.get('blog'))?.key, KEY);
  assert.equal((await getPlace('blog'))?.hasKey, true);
});

test('a place that is disconnected while it is checked does not come back', async () => {
  const place = (await getPlace('blog'))!;
  const checking = checkPlace(place).catch(() => null);
  await removePlace('blog');
  await checking;
  assert.equal(await getPlace('blog'), null);
});

let key = '';
beforeEach(() => {
  key = v4();
});
const request = (title: string, html = '<p>Text</p>') => ({
  key,
  itemId: 'v',
  placeId: 'blog',
  payload: aPostPayload({ title, html, status: 'public' })
});
async function publishAs(title: string, html?: string): Promise<void> {
  await requestPublish(request(title, html), Date.now());
  await deliverEntry(key);
}
/** Changes a post as its owner does at the blog. */
async function changeAtBlog(title: string, replace: Record<string, unknown[]>): Promise<void> {
  const [post] = await byTitle(title);
  const answer = await outside(`${hosts.origin}/blog/micropub`, {
    method: 'POST',
    headers: { authorization: `Bearer ${KEY}`, 'content-type': 'application/json' },
    body: JSON.stringify({ action: 'update', url: post!.url, replace })
  });
  assert.ok(answer.ok);
}
const state = async () => (await db.outbox.get(key))!;

test('a post that was changed at the blog is not overwritten, on no way that updates it', async () => {
  await publishAs('By hand');
  await changeAtBlog('By hand', { content: [{ html: '<p>Text, and a word of mine</p>' }] });
  await publishAs('By hand', '<p>Another text</p>');
  const asked = await state();
  assert.deepEqual([asked.state, asked.problem?.kind], ['failed', 'changed-there']);
  assert.match(asked.theirs?.html ?? '', /a word of mine/);
  await retryNow(key);
  await undoLast(key);
  assert.match((await byTitle('By hand'))[0]!.html, /a word of mine/);
  await settleTheirs(key, 'keep');
  assert.deepEqual([(await state()).state, (await state()).theirs], ['published', null]);
  assert.match((await byTitle('By hand'))[0]!.html, /a word of mine/);
});

test('what was seen may be overwritten; what was changed once more is asked about again', async () => {
  await publishAs('Seen');
  await changeAtBlog('Seen', { content: [{ html: '<p>First change</p>' }] });
  await publishAs('Seen', '<p>Ours</p>');
  await changeAtBlog('Seen', { content: [{ html: '<p>Second change</p>' }] });
  await settleTheirs(key, 'overwrite');
  assert.match((await state()).theirs?.html ?? '', /Second change/);
  await settleTheirs(key, 'overwrite');
  assert.equal((await state()).state, 'published');
  assert.match((await byTitle('Seen'))[0]!.html, /Ours/);
  // Nothing was changed since: no question.
  await publishAs('Seen', '<p>Ours, better</p>');
  assert.match((await byTitle('Seen'))[0]!.html, /better/);
});

test('a draft that its owner published at the blog is not made a draft again', async () => {
  await requestPublish(
    {
      ...request('Published there'),
      payload: aPostPayload({ title: 'Published there', status: 'draft' })
    },
    Date.now()
  );
  await deliverEntry(key);
  await changeAtBlog('Published there', { 'post-status': ['published'] });
  await requestPublish(
    {
      ...request('Published there'),
      payload: aPostPayload({ title: 'Published there', status: 'draft', excerpt: 'New' })
    },
    Date.now()
  );
  await deliverEntry(key);
  assert.equal((await state()).theirs?.status, 'public');
});

test('an undo of an update brings back the version before; of a first publishing, it deletes', async () => {
  await publishAs('Version one', '<p>One</p>');
  await publishAs('Version two', '<p>Two</p>');
  await undoLast(key);
  assert.match((await byTitle('Version one'))[0]!.html, /One/);
  assert.equal((await byTitle('Version two')).length, 0);
  await db.outbox.update(key, { sentBefore: null });
  await undoLast(key);
  assert.equal((await byTitle('Version one')).length, 0);
  assert.equal((await state()).state, 'removed');
});

test('a reading of the blog notices what was changed there by hand', async () => {
  await publishAs('Noticed');
  await readPlaces((await getPlace('blog'))!);
  assert.equal(isChangedThere(await state()), false);
  await changeAtBlog('Noticed', { name: ['Noticed, and renamed'] });
  await readPlaces((await getPlace('blog'))!);
  assert.equal(isChangedThere(await state()), true);
  await settleTheirs(key, 'keep');
  await readPlaces((await getPlace('blog'))!);
  assert.equal(isChangedThere(await state()), false);
});

test('a title that was changed once more at the blog is somebody’s choice', async () => {
  const [post] = await sources();
  const item = anItem({
    id: 'p',
    kind: 'post',
    placeId: 'blog',
    url: post!.url,
    title: post!.name
  });
  await changeAtBlog(post!.name, { name: ['My own title'] });
  await assert.rejects(
    retitlePost(anItem({ id: 'v', kind: 'video', title: 'The title of the video' }), item),
    (error) => error instanceof PlaceError && error.problem.kind === 'changed-there'
  );
  assert.equal((await byTitle('My own title')).length, 1);
});
