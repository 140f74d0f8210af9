import './browserOf.ts';
import assert from 'node:assert/strict';
import { after, before, beforeEach, test } from 'node:test';
import { TestHosts } from '../hosts/testing.ts';
import type { Lane } from '../src/lib/core/lanes/lane.ts';
import { advance } from '../src/lib/core/lanes/runner.ts';
import type { VideoPayload } from '../src/lib/core/delivery/payload.ts';
import { narrationSchema } from '../src/lib/core/narration/narration.ts';
import { styleSchema } from '../src/lib/core/narration/styles.ts';
import { aLane, anItem } from '../src/lib/core/testing.ts';
import { baselineOf } from '../src/lib/core/twins/drift.ts';
import { withoutConflicts, type PostChange } from '../src/lib/core/twins/merge/mergePosts.ts';
import { putBaselines } from '../src/lib/data/baselines.ts';
import { db } from '../src/lib/data/db.ts';
import { addLane, getLane } from '../src/lib/data/lanes.ts';
import { requestVideo } from '../src/lib/data/outbox.ts';
import { deliverEntry } from '../src/lib/delivery/deliverEntry.ts';
import { pairAgain } from '../src/lib/workers/pairAgain.ts';
import { setKey } from '../src/lib/work/connect.ts';
import { laneWorld } from '../src/lib/work/lanes/world.ts';
import { runLane } from '../src/lib/work/lanes/runLane.ts';
import { planTwinUpdate } from '../src/lib/work/planTwinUpdate.ts';
import { readPlaces } from '../src/lib/work/read.ts';
import { talkWorker } from '../src/lib/workers/talk.ts';
import { connectBoth, itemCalled } from './connected.ts';
import { outside, sendAsUsual, sendStraight } from './outside.ts';

/** What drifted and is brought up to date, as the application does it, over the rehearsal hosts. */
const hosts = new TestHosts();
before(sendStraight);
after(sendAsUsual);

const { signal } = new AbortController();
const TWILL = 'Threading a four-shaft twill, slowly';

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

const micropub = async (place: 'blog' | 'channel', key: string, body: object) => {
  const answer = await outside(`${hosts.origin}/${place}/micropub`, {
    method: 'POST',
    headers: { authorization: `Bearer ${key}`, 'content-type': 'application/json' },
    body: JSON.stringify(body)
  });
  assert.ok(answer.ok);
};
const sourceOf = async (place: 'blog' | 'channel', key: string, url: string) => {
  const answer = await outside(
    `${hosts.origin}/${place}/micropub?q=source&url=${encodeURIComponent(url)}`,
    { headers: { authorization: `Bearer ${key}` } }
  );
  const { properties } = (await answer.json()) as { properties: Record<string, unknown[]> };
  return properties;
};
const twinOf = async (id: string) => {
  await pairAgain();
  return (await db.twins.get(id))!;
};

/** A lane that has published the post of one video. */
async function publishByLane(upToDate: Lane['approval']['upToDate']) {
  const { channel, blog } = await connectBoth(hosts);
  const video = await itemCalled(TWILL);
  const lane = aLane({ id: 'lane', isOn: true, since: 0 });
  await addLane({
    ...lane,
    source: { ...lane.source, places: [channel.id] },
    filter: { ...lane.filter, scope: 'newest-first', keep: ['four-shaft twill'] },
    pace: { ...lane.pace, hours: { from: 0, to: 24 }, gap: 0 },
    approval: { mode: 'always', upToDate },
    targets: [{ placeId: blog.id, status: 'public', categories: [], tags: [] }]
  });
  await runLane('lane');
  const kept = (await getLane('lane'))!;
  for (let i = 0; i < 10; i++) if ((await advance(kept, laneWorld)) === null) break;
  await readPlaces();
  assert.equal((await twinOf(video.id)).standing, 'in-step');
  const [entry] = await db.outbox.toArray();
  const html = async () => {
    const properties = await sourceOf('blog', 'wrenfold-notebook-key', entry!.url);
    return (properties.content as { html: string }[])[0]!.html;
  };
  const write = async (change: (html: string) => string) =>
    micropub('blog', 'wrenfold-notebook-key', {
      action: 'update',
      url: entry!.url,
      replace: { content: [{ html: change(await html()) }] }
    });
  return { video, html, write, key: entry!.key };
}
const mend = () => hosts.control('upload', { id: 'threading-a-twill', from: 'save', to: 'rescue' });
async function driftAndRun(id: string): Promise<string> {
  await readPlaces();
  assert.equal((await twinOf(id)).standing, 'drifted');
  await runLane('lane');
  await readPlaces();
  return (await twinOf(id)).standing;
}

test('a lane updates posts that nobody edited, and leaves the others drifted', async () => {
  const { video, html, write } = await publishByLane('untouched');
  await mend();
  assert.equal(await driftAndRun(video.id), 'in-step');
  assert.match(await html(), /rescue the day/);
  await write((text) => text.replace('</p>', ' I wrote this.</p>'));
  await hosts.control('upload', { id: 'threading-a-twill', from: 'save', to: 'deliver' });
  assert.equal(await driftAndRun(video.id), 'drifted');
  assert.match(await html(), /rescue the day/);
  assert.match(await html(), /I wrote this\./);
});

test('a lane that merges keeps what was edited by hand, and leaves conflicts to the user', async () => {
  const { video, html, write } = await publishByLane('merge');
  await write((text) => `${text}\n<p>I wrote this.</p>`);
  await mend();
  assert.equal(await driftAndRun(video.id), 'in-step');
  assert.match(await html(), /rescue the day[^]*<p>I wrote this\.<\/p>/);
  await write((text) => text.replace('rescue the day', 'mend the warp'));
  await hosts.control('upload', { id: 'threading-a-twill', from: 'save', to: 'deliver' });
  assert.equal(await driftAndRun(video.id), 'drifted');
  assert.match(await html(), /mend the warp/);
});

test('a lane that asks shows what drifted and changes nothing', async () => {
  const { video, html } = await publishByLane('ask');
  const before = await html();
  await mend();
  assert.equal(await driftAndRun(video.id), 'drifted');
  assert.equal(await html(), before);
});

test('an update that never arrived is called off: what stands at the blog stays', async () => {
  const { video, html, key } = await publishByLane('ask');
  const before = await html();
  await mend();
  await readPlaces();
  const plan = await planTwinUpdate(await twinOf(video.id), talkWorker(), signal);
  assert.ok(typeof plan === 'object');
  await hosts.control('faults', { failOneIn: '1' });
  const { isSent, undo } = await plan.apply(withoutConflicts(plan.merge));
  assert.equal(isSent, false);
  await hosts.control('faults', {});
  await undo();
  await db.outbox.update(key, { nextTry: 0 });
  await deliverEntry(key);
  const entry = await db.outbox.get(key);
  assert.equal(entry?.state, 'published');
  assert.equal(await html(), before);
});

test('title and description of a narrated video follow its post, and keep what was written at the channel', async () => {
  const { channel, blog } = await connectBoth(hosts);
  await setKey(channel, 'wrenfold-loomworks-key', signal);
  const post = await itemCalled('What a woven metre costs, and why');
  const description = `${post.url}\n\nFrom our blog: ${post.summary}`;
  const payload: VideoPayload = {
    kind: 'video',
    title: post.title,
    description,
    tags: ['cloth'],
    category: '',
    language: 'en',
    visibility: 'private',
    publishAt: null,
    madeFrom: post.url,
    captions: '',
    chapters: ''
  };
  await requestVideo(
    { key: 'narrated', itemId: post.id, placeId: channel.id, payload },
    null,
    Date.now()
  );
  await deliverEntry('narrated');
  const { url } = (await db.outbox.get('narrated'))!;
  const video = anItem({
    id: 'made',
    kind: 'video',
    placeId: channel.id,
    title: post.title,
    url,
    origin: 'narrated',
    madeFrom: post.url
  });
  await db.items.put(video);
  const at = new Date().toISOString();
  await putBaselines([baselineOf(video, post, undefined, at)]);
  await db.narrations.put(
    narrationSchema.parse({
      id: post.id,
      options: { language: 'en', pronunciations: [] },
      scenes: [],
      madeFrom: '',
      isEdited: false,
      voice: null,
      frame: 'wide',
      resolution: '720p',
      style: styleSchema.parse({}),
      format: 'webm',
      music: '',
      musicLevel: -20,
      before: '',
      after: '',
      details: {
        title: post.title,
        description: '{{ post.url }}\n\nFrom our blog: {{ post.summary }}',
        tags: ['cloth'],
        category: '',
        language: 'en',
        visibility: 'private',
        on: '',
        placeIds: [channel.id],
        embeds: false
      },
      since: '',
      changed: ''
    })
  );
  // Its owner adds a line at the channel and opens it, and retitles the post at the blog.
  const key = 'wrenfold-loomworks-key';
  const own = `${description}\nWritten at the channel.`;
  await micropub('channel', key, {
    action: 'update',
    url,
    replace: { content: [own], visibility: ['unlisted'] }
  });
  const summary = 'Wool, hours and rent, in one sum.';
  const renamed = { ...post, title: 'The price of a metre', summary, textHash: 'other' };
  await db.items.put(renamed);
  const twin = await twinOf('made');
  assert.equal(twin.standing, 'drifted');

  const plan = await planTwinUpdate(twin, talkWorker(), signal);
  assert.ok(typeof plan === 'object');
  assert.equal(plan.side, 'video');
  const said = ({ where, fresh, isConflict }: PostChange) => [where, fresh, isConflict];
  assert.deepEqual(plan.merge.changes.map(said), [
    ['title', 'The price of a metre', false],
    ['text', `From our blog: ${summary}`, false]
  ]);
  const { undo } = await plan.apply(withoutConflicts(plan.merge));
  const after = await sourceOf('channel', key, url);
  assert.deepEqual(after.name, ['The price of a metre']);
  assert.deepEqual(after.content, [
    `${post.url}\n\nFrom our blog: ${summary}\nWritten at the channel.`
  ]);
  assert.deepEqual(after.visibility, ['unlisted'], 'it stays open');
  await undo();
  assert.deepEqual((await sourceOf('channel', key, url)).content, [own]);
  assert.equal(blog.kind, 'blog');
});
