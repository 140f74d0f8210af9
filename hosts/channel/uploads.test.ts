import assert from 'node:assert/strict';
import { readFile } from 'node:fs/promises';
import { before, test } from 'node:test';
import { Upload } from 'tus-js-client';
import { TestHosts } from '../testing.ts';

const hosts = new TestHosts();
const control = (what: string, form: Record<string, string>) => hosts.control(what, form);
let clip: Buffer;
before(async () => {
  clip = await readFile(new URL('../world/clips/hemstitching.webm', import.meta.url));
});
const KEY = 'wrenfold-loomworks-key';
const micropub = (json: unknown, key = KEY) =>
  fetch(`${hosts.origin}/channel/micropub`, {
    method: 'POST',
    headers: { authorization: `Bearer ${key}`, 'content-type': 'application/json' },
    body: JSON.stringify(json)
  });
const create = (properties: Record<string, unknown[]>) =>
  micropub({ type: ['h-entry'], properties: { name: ['A film'], uid: ['u1'], ...properties } });
const source = async (): Promise<Record<string, unknown[]>[]> => {
  const answer = await fetch(`${hosts.origin}/channel/micropub?q=source`, {
    headers: { authorization: `Bearer ${KEY}` }
  });
  const { items } = (await answer.json()) as { items: { properties: Record<string, unknown[]> }[] };
  return items.map((i) => i.properties);
};
const feed = async () => (await fetch(`${hosts.origin}/channel/feed.xml`)).text();

/** @returns the address the file went to */
function send(options: { uid?: string; key?: string; file?: Buffer; url?: string } = {}) {
  return new Promise<string>((resolve, reject) => {
    const upload = new Upload(options.file ?? clip, {
      endpoint: `${hosts.origin}/channel/uploads`,
      uploadUrl: options.url ?? null,
      chunkSize: 50_000,
      retryDelays: [20, 50, 100, 200],
      headers: { Authorization: `Bearer ${options.key ?? KEY}` },
      metadata: { uid: options.uid ?? 'u1', role: 'video', filetype: 'video/webm' },
      onSuccess: () => resolve(upload.url ?? ''),
      onError: reject
    });
    upload.start();
  });
}

test('a video is announced, its file sent, worked on, and then shown', async () => {
  const made = await create({
    content: ['About it'],
    category: ['warp', 'reed'],
    visibility: ['public'],
    'based-on': [`${hosts.origin}/blog/posts/x`],
    captions: ['WEBVTT\n\n00:00.500 --> 00:02.000\nWind &amp; wait\n'],
    chapters: ['WEBVTT\n\n00:00.000 --> 00:20.000\nBegin\n\n00:20.000 --> 00:40.000\nEnd\n']
  });
  assert.equal(made.status, 201);
  const url = made.headers.get('location') ?? '';
  assert.equal((await source())[0]?.state?.[0], 'awaiting-file');
  assert.equal((await fetch(url)).status, 404);
  await send();
  assert.equal((await source())[0]?.state?.[0], 'checking');
  assert.doesNotMatch(await feed(), /A film/);
  await control('clock', { hours: '1' });
  assert.equal((await source())[0]?.state?.[0], 'ready');
  const told = await feed();
  assert.match(told, /<title>A film<\/title>/);
  assert.match(told, /<dcterms:source>[^<]+\/blog\/posts\/x</);
  assert.match(told, /<dcterms:identifier>u1</);
  const page = await (await fetch(url)).text();
  assert.match(page, /captions\.vtt/);
  assert.match(page, /\?t=20/);
  const id = url.split('/').at(-1);
  const film = await fetch(`${hosts.origin}/channel/videos/${id}/clip.webm`);
  assert.deepEqual(Buffer.from(await film.arrayBuffer()), clip);
  const captions = await (await fetch(`${hosts.origin}/channel/videos/${id}/captions.vtt`)).text();
  assert.match(captions, /Wind &amp; wait/);
});

test('a file that is cut in the middle goes on where it was, also on a host begun anew', async () => {
  await create({});
  await control('faults', { cutUploads: '2' });
  await send();
  assert.match(
    await (await fetch(`${hosts.origin}/control/`)).text(),
    /name="cutUploads"[^>]*value="0"/
  );
  assert.equal((await source()).length, 1);
  assert.equal((await source())[0]?.state?.[0], 'checking');

  await create({ uid: ['u2'], name: ['Another'] });
  const first = await new Promise<string>((resolve) => {
    const upload = new Upload(clip, {
      endpoint: `${hosts.origin}/channel/uploads`,
      chunkSize: 30_000,
      retryDelays: null,
      headers: { Authorization: `Bearer ${KEY}` },
      metadata: { uid: 'u2', role: 'video' },
      onChunkComplete: () => {
        void upload.abort().then(() => resolve(upload.url ?? ''));
      }
    });
    upload.start();
  });
  await hosts.restart();
  const head = await fetch(first, {
    method: 'HEAD',
    headers: { authorization: `Bearer ${KEY}`, 'tus-resumable': '1.0.0' }
  });
  assert.equal(head.headers.get('upload-offset'), '30000');
  await send({ uid: 'u2', url: first });
  assert.equal((await source()).find((p) => p.uid?.[0] === 'u2')?.state?.[0], 'checking');
});

test('a private video becomes public on its date', async () => {
  const date = new Date(Date.now() + 3 * 3_600_000).toISOString();
  await create({ visibility: ['private'], 'publish-at': [date] });
  await send();
  await control('clock', { hours: '1' });
  assert.doesNotMatch(await feed(), /A film/);
  assert.equal((await source())[0]?.visibility?.[0], 'private');
  await control('clock', { hours: '3' });
  assert.match(await feed(), /A film/);
});

test('what is over a limit, without a key or no film is refused with its reason', async () => {
  const said = async (answer: Response) =>
    `${answer.status} ${((await answer.json()) as { error_description: string }).error_description}`;
  assert.match(
    await said(await create({ name: ['x'.repeat(101)] })),
    /^400 The title needs 1 to 100/
  );
  assert.match(await said(await create({ content: ['x'.repeat(5001)] })), /^400 .* over 5000/);
  const tags = ['x'.repeat(249), 'y'.repeat(250)];
  assert.match(await said(await create({ category: tags })), /^400 The tags have over 500/);
  assert.match(await said(await micropub({}, 'wrong')), /^401/);
  assert.deepEqual(await source(), []);
  await assert.rejects(send(), /uid/);
  await create({});
  await assert.rejects(send({ key: 'wrong' }), /401/);
  await send({ file: Buffer.from('no film at all') });
  assert.deepEqual((await source())[0]?.state, ['failed']);
  assert.match(String((await source())[0]?.trouble?.[0]), /no video/);
});

test('changed and removed by its address; nothing else is touched', async () => {
  const url = (await create({ visibility: ['unlisted'] })).headers.get('location');
  await create({ uid: ['u2'], name: ['Other'] });
  await micropub({ action: 'update', url, replace: { name: ['Renamed'] } });
  assert.deepEqual((await source()).map((p) => p.name?.[0]).sort(), ['Other', 'Renamed']);
  assert.equal((await micropub({ action: 'delete', url })).status, 204);
  assert.deepEqual(
    (await source()).map((p) => p.name?.[0]),
    ['Other']
  );
  assert.equal((await micropub({ action: 'delete', url })).status, 404);
});
