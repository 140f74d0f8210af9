import assert from 'node:assert/strict';
import { spawn } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'node:test';
import { TestHosts } from './testing.ts';

const hosts = new TestHosts();
const control = (what: string, form: Record<string, string>) => hosts.control(what, form);
const text = async (path: string) => (await fetch(hosts.origin + path)).text();
const KEY = 'wrenfold-notebook-key';
const micropub = (json: unknown, key = KEY, origin = hosts.origin) =>
  fetch(`${origin}/blog/micropub`, {
    method: 'POST',
    headers: { authorization: `Bearer ${key}`, 'content-type': 'application/json' },
    body: JSON.stringify(json)
  });
const query = async (q: string) => {
  const answer = await fetch(`${hosts.origin}/blog/micropub?${q}`, {
    headers: { authorization: `Bearer ${KEY}` }
  });
  return (await answer.json()) as {
    items: { properties: Record<string, unknown[]> }[];
    paging?: { after: string };
  };
};
const entry = (properties: Record<string, unknown[]>) => ({ type: ['h-entry'], properties });
const countOf = async (name: string) =>
  (await query('q=source&limit=100')).items.filter((i) => i.properties.name?.[0] === name).length;

test('the feed comes in pages that together hold every public upload once', async () => {
  const first = await text('/channel/feed.xml');
  const second = await text('/channel/feed.xml?page=2');
  const ids = [...(first + second).matchAll(/<id>tag:[^<]+\/([\w-]+)<\/id>/g)].map((m) => m[1]);
  assert.equal(new Set(ids).size, ids.length);
  assert.equal(ids.length, 13);
  assert.match(first, /rel="next"/);
  assert.doesNotMatch(second, /rel="next"/);
  assert.ok(!ids.includes('camera-test') && !ids.includes('class-tie-up'));
});

test('private, unlisted and coming uploads behave as such', async () => {
  const status = async (path: string) => (await fetch(hosts.origin + path)).status;
  assert.equal(await status('/channel/watch/camera-test'), 404);
  assert.equal(await status('/channel/videos/camera-test/clip.webm'), 404);
  assert.equal(await status('/channel/watch/class-tie-up'), 200);
  assert.match(await text('/channel/watch/class-tie-up'), /noindex/);
  assert.equal(await status('/channel/videos/indigo-vat-premiere/clip.webm'), 404);
  await control('clock', { hours: '200' });
  assert.equal(await status('/channel/videos/indigo-vat-premiere/clip.webm'), 200);
});

test('every clip plays from any byte, and every talk has captions that fit it', async () => {
  const feed = (await text('/channel/feed.xml')) + (await text('/channel/feed.xml?page=2'));
  const clips = [...feed.matchAll(/<media:content url="([^"]+)"[^>]*duration="(\d+)"/g)];
  assert.equal(clips.length, 12);
  for (const [, url = ''] of clips) {
    const part = await fetch(url, { headers: { range: 'bytes=100-199' } });
    assert.equal(part.status, 206);
    assert.equal((await part.arrayBuffer()).byteLength, 100);
  }
  for (const [, url = ''] of feed.matchAll(/<media:subTitle[^>]*href="([^"]+)"/g)) {
    const captions = await (await fetch(url)).text();
    assert.match(captions, /^WEBVTT\n/);
    const duration = Number(
      clips.find(([, clip = '']) => clip.startsWith(url.replace(/captions.*/, '')))?.[2]
    );
    const ends = [...captions.matchAll(/--> (\d+):(\d+):(\d+)/g)].map(
      ([, h, m, s]) => Number(h) * 3600 + Number(m) * 60 + Number(s)
    );
    assert.ok(Math.max(...ends) <= duration && Math.max(...ends) > duration - 60, url);
  }
});

test('oEmbed keeps within the size that is asked for', async () => {
  const watch = encodeURIComponent(`${hosts.origin}/channel/watch/threading-a-twill`);
  const embed = JSON.parse(await text(`/channel/oembed?url=${watch}&maxwidth=320`)) as {
    width: number;
    height: number;
    html: string;
  };
  assert.equal(embed.width, 320);
  assert.equal(embed.height, 180);
  assert.match(embed.html, /<iframe src="[^"]+\/embed\/threading-a-twill" width="320"/);
});

test('search and playlists', async () => {
  assert.match(await text('/channel/search?q=madder'), /Madder red on wool/);
  assert.match(await text('/channel/search?q=zebra'), /Nothing here/);
  assert.match(await text('/channel/playlists/first-warp/feed.xml'), /winding-a-warp/);
});

test('a post is created, changed, deleted and brought back', async () => {
  const made = await micropub(
    entry({
      name: ['A new post'],
      content: [{ html: '<p>x<script>1</script></p>' }],
      category: ['Loom']
    })
  );
  assert.equal(made.status, 201);
  const url = made.headers.get('location') ?? '';
  const page = await (await fetch(url)).text();
  assert.match(page, /<h1 class="p-name">A new post/);
  assert.doesNotMatch(page, /<script/);
  assert.match(await text('/blog/feed.xml'), /A new post/);
  await micropub({
    action: 'update',
    url,
    replace: { name: ['Renamed'] },
    add: { category: ['Twill'] }
  });
  const source = await query(`q=source&url=${encodeURIComponent(url)}`);
  const { properties } = source as unknown as { properties: Record<string, unknown[]> };
  assert.deepEqual([properties.name, properties.category], [['Renamed'], ['Loom', 'Twill']]);
  await micropub({ action: 'delete', url });
  assert.equal((await fetch(url)).status, 410);
  await micropub({ action: 'undelete', url });
  assert.equal((await fetch(url)).status, 200);
});

test('drafts, private posts and posts of the future are seen only by their address', async () => {
  const hidden: Record<string, unknown[]>[] = [
    { 'post-status': ['draft'] },
    { visibility: ['private'] },
    { published: [new Date(Date.now() + 86_400_000).toISOString()] }
  ];
  for (const properties of hidden) {
    const made = await micropub(entry({ name: ['Hidden'], content: ['x'], ...properties }));
    const url = made.headers.get('location') ?? '';
    assert.equal((await fetch(url)).status, 200);
    assert.equal((await fetch(url.replace(/\?.*/, ''))).status, 404);
  }
  assert.doesNotMatch(await text('/blog/feed.xml'), /Hidden/);
  await control('clock', { hours: '25' });
  assert.equal((await text('/blog/feed.xml')).match(/<title>Hidden/g)?.length, 1);
});

test('an update that changes the address tells the new one', async () => {
  const made = await micropub(entry({ name: ['Out'], content: ['x'], 'post-status': ['draft'] }));
  const url = made.headers.get('location') ?? '';
  const out = await micropub({ action: 'update', url, replace: { 'post-status': ['published'] } });
  assert.deepEqual([out.status, out.headers.get('location')], [201, url.replace(/\?.*/, '')]);
});

test('keys have their rights', async () => {
  const post = entry({ name: ['By key'], content: ['x'] });
  assert.equal((await micropub(post, 'no-such-key')).status, 401);
  const draft = await micropub(post, 'wrenfold-drafts-only-key');
  assert.equal(draft.status, 201);
  assert.match(draft.headers.get('location') ?? '', /look=/);
  const url = draft.headers.get('location');
  assert.equal((await micropub({ action: 'delete', url }, 'wrenfold-drafts-only-key')).status, 403);
  await control('faults', { keyExpired: 'on' });
  assert.equal((await micropub(post)).status, 401);
});

test('the form-encoded syntax and the media endpoint', async () => {
  const headers = { authorization: `Bearer ${KEY}` };
  const form = new URLSearchParams([
    ['h', 'entry'],
    ['name', 'By form'],
    ['content[html]', '<b>x</b>'],
    ['category[]', 'a'],
    ['category[]', 'b']
  ]);
  const made = await fetch(`${hosts.origin}/blog/micropub`, {
    method: 'POST',
    headers,
    body: form
  });
  assert.match(await (await fetch(made.headers.get('location') ?? '')).text(), /<b>x<\/b>/);
  const file = new FormData();
  file.set('file', new File([new Uint8Array([1, 2, 3])], 'x.png', { type: 'image/png' }));
  const sent = await fetch(`${hosts.origin}/blog/media`, { method: 'POST', headers, body: file });
  const back = await fetch(sent.headers.get('location') ?? '');
  assert.deepEqual([...new Uint8Array(await back.arrayBuffer())], [1, 2, 3]);
});

test('the list of posts comes in pages', async () => {
  const first = await query('q=source&limit=4');
  assert.equal(first.items.length, 4);
  const second = await query(`q=source&limit=4&after=${first.paging?.after}`);
  assert.notDeepEqual(first.items, second.items);
});

test('a lost answer: the deed is done', async () => {
  await control('faults', { loseOneIn: '1' });
  await assert.rejects(micropub(entry({ name: ['Lost'], content: ['x'] })));
  await control('faults', {});
  assert.equal(await countOf('Lost'), 1);
});

test('failing and busy: the deed is not done', async () => {
  await control('faults', { failOneIn: '1' });
  assert.equal((await micropub(entry({ name: ['Failed'], content: ['x'] }))).status, 500);
  await control('faults', { busyOneIn: '1', retryAfter: '7' });
  const busy = await micropub(entry({ name: ['Failed'], content: ['x'] }));
  assert.deepEqual([busy.status, busy.headers.get('retry-after')], [429, '7']);
  await control('faults', {});
  assert.equal(await countOf('Failed'), 0);
});

test('what was answered survives a kill, and the addresses follow to another port', async () => {
  const own = await mkdtemp(join(tmpdir(), 'world-'));
  const begin = () => {
    const code = `import('${new URL('./serve.ts', import.meta.url).href}').then(async (m) => console.log((await m.startHosts({ port: 0, folder: ${JSON.stringify(own)} })).origin))`;
    const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', code], {
      stdio: ['ignore', 'pipe', 'inherit']
    });
    return new Promise<{ origin: string; kill: () => Promise<void> }>((resolve) => {
      child.stdout.once('data', (data: Buffer) =>
        resolve({
          origin: String(data).trim(),
          kill: () =>
            new Promise((gone) => {
              child.once('exit', () => gone());
              child.kill('SIGKILL');
            })
        })
      );
    });
  };
  const names: string[] = [];
  for (let round = 0; round < 3; round++) {
    const world = await begin();
    const killed = new Promise<void>((done) =>
      setTimeout(() => void world.kill().then(done), 200 + round * 75)
    );
    for (let n = 0; n < 200; n++) {
      const name = `Round ${round} post ${n}`;
      const answer = await micropub(
        entry({ name: [name], content: ['x'] }),
        KEY,
        world.origin
      ).catch(() => null);
      if (!answer) break;
      names.push(name);
    }
    await killed;
  }
  const world = await begin();
  const feed = await (await fetch(`${world.origin}/blog/feed.xml`)).text();
  for (const name of names) assert.ok(feed.includes(name), name);
  assert.ok(names.length > 0);
  assert.match(feed, new RegExp(`${world.origin}/channel/embed/winding-a-warp`));
  await world.kill();
  await rm(own, { recursive: true });
});

test('a key tells what it may do and until when, and is refused after that', async () => {
  const places: [string, string][] = [
    ['channel', 'wrenfold-loomworks-key'],
    ['blog', KEY],
    ['followers', 'wrenfold-updates-key']
  ];
  const ask = (path: string, key: string) =>
    fetch(`${hosts.origin}/${path}/token`, { headers: { authorization: `Bearer ${key}` } });
  for (const [path, key] of places) {
    const told = (await (await ask(path, key)).json()) as { scope: string; exp: number };
    assert.match(told.scope, /\bcreate\b/, path);
    const days = (told.exp * 1000 - Date.now()) / 86_400_000;
    assert.ok(days > 179 && days <= 180, `${path}: ${days} days`);
    assert.equal((await ask(path, 'another-key')).status, 401);
  }
  await control('clock', { hours: String(181 * 24) });
  for (const [path, key] of places) assert.equal((await ask(path, key)).status, 401, path);
});

test('the allowance of a month goes down with each post, and is new in the next month', async () => {
  const left = async () => {
    const answer = await fetch(`${hosts.origin}/blog/micropub?q=config`, {
      headers: { authorization: `Bearer ${KEY}` }
    });
    const { allowance } = (await answer.json()) as { allowance: { most: number; left: number } };
    return allowance;
  };
  const { most, left: atFirst } = await left();
  assert.ok(atFirst <= most);
  for (const name of ['One', 'Two']) await micropub(entry({ name: [name], content: ['x'] }));
  assert.equal((await left()).left, atFirst - 2);
  await control('clock', { hours: String(32 * 24) });
  assert.equal((await left()).left, most);
});

test('the page of the channel names its playlists, whose feeds have their videos in order', async () => {
  const links = [
    ...(await text('/channel/')).matchAll(/<link rel="alternate"[^>]*href="([^"]+)"/g)
  ];
  const lists = links.map((m) => m[1] ?? '').filter((href) => href.includes('/playlists/'));
  assert.equal(lists.length, 2);
  const feed = await (await fetch(lists[0] ?? '')).text();
  const ids = [...feed.matchAll(/<id>tag:[^<]+\/([\w-]+)<\/id>/g)].map((m) => m[1]);
  assert.equal(ids[0], 'winding-a-warp');
  assert.equal(ids.length, 5);
});

test('a call that comes while the hosts begin again is answered once they stand', async () => {
  const { origin } = hosts;
  const restarted = hosts.restart();
  let answer: Response | null = null;
  while (!answer) answer = await fetch(`${origin}/channel/feed.xml`).catch(() => null);
  await restarted;
  assert.equal(answer.status, 200);
});

test('the channel takes comments from a form, and gives them as a feed with threads', async () => {
  const page = await text('/channel/watch/winding-a-warp');
  assert.match(page, /Orla Fennick/);
  assert.doesNotMatch(page, /onclick|steal\(\)">/);
  await fetch(`${hosts.origin}/channel/watch/winding-a-warp/comments`, {
    method: 'POST',
    body: new URLSearchParams({ author: 'A & B', text: 'Is <b> taken?' }),
    redirect: 'manual'
  });
  const feed = await text('/channel/watch/winding-a-warp/comments.xml');
  assert.equal(feed.match(/<entry>/g)?.length, 5);
  assert.match(feed, /ref="tag:wrenfold\.example,2026:comment\/warp-01"/);
  assert.match(feed, /<p>Is &lt;b> taken/);
  assert.match(await text('/channel/feed.xml?page=2'), /comments\.xml" thr:count="5"/);
});

test('the blog takes citations as comments of a post, shows them cleaned, and gives them as a feed', async () => {
  const url = `${hosts.origin}/blog/posts/winding-a-warp-on-a-board`;
  const comment = {
    type: ['h-cite'],
    properties: {
      uid: ['urn:uuid:1'],
      url: ['https://channel.example/#1'],
      author: [{ type: ['h-card'], properties: { name: ['Orla Fennick'] } }],
      content: [{ html: '<p onclick="x()">Which <script>x()</script>reed?</p>' }],
      published: ['2026-01-01T00:00:00.000Z'],
      publication: ['The channel']
    }
  };
  await micropub({ action: 'update', url, add: { comment: [comment] } });
  const page = await text('/blog/posts/winding-a-warp-on-a-board');
  assert.match(page, /class="u-comment h-cite"[\s\S]*Orla Fennick[\s\S]*Which reed\?/);
  assert.match(await text('/blog/posts/winding-a-warp-on-a-board/comments.xml'), /Orla Fennick/);
  assert.match(await text('/blog/feed.xml'), /comments\.xml" thr:count="1"/);
  await micropub({ action: 'update', url, delete: { comment: [comment] } });
  assert.doesNotMatch(await text('/blog/posts/winding-a-warp-on-a-board'), /h-cite/);
});
