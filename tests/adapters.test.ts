import assert from 'node:assert/strict';
import { after, before, test } from 'node:test';
import { TestHosts } from '../hosts/testing.ts';
import { originMarker } from '../src/lib/core/article/template/originMarker.ts';
import type { PostPayload, VideoPayload } from '../src/lib/core/delivery/payload.ts';
import { PlaceError, type Place } from '../src/lib/core/model/place.ts';
import { VideoChannel } from '../src/lib/places/videoChannel.ts';
import { MicropubBlog } from '../src/lib/places/micropub.ts';
import { outside, sendAsUsual, sendStraight } from './outside.ts';

/** The Micropub adapters against the rehearsal hosts. */
const hosts = new TestHosts();
const control = (what: string, form: Record<string, string>) => hosts.control(what, form);
before(sendStraight);
after(sendAsUsual);
const blog = (key = 'wrenfold-notebook-key') => {
  const place: Place = {
    id: 'blog',
    kind: 'blog',
    url: `${hosts.origin}/blog/`,
    feedUrl: `${hosts.origin}/blog/feed.xml`,
    title: 'Notebook',
    author: '',
    micropub: `${hosts.origin}/blog/micropub`,
    tokenEndpoint: `${hosts.origin}/blog/token`,
    rights: ['read'],
    hasKey: true,
    origins: [hosts.origin],
    linked: '',
    checked: '',
    problem: null
  };
  return new MicropubBlog(place, key);
};
const payload = (given: Partial<PostPayload> = {}): PostPayload => ({
  title: 'A made post',
  html: `<p>Text</p>${originMarker('key-1')}`,
  slug: 'made',
  excerpt: 'Short',
  author: 'Isolde',
  categories: ['Loom'],
  tags: ['twill'],
  comments: 'closed',
  picture: { url: 'https://c.example/l.png', alt: 'Cloth' },
  status: 'public',
  date: null,
  ...given
});
const kindOf = async (work: Promise<unknown>): Promise<string> => {
  try {
    await work;
    return 'done';
  } catch (error) {
    assert.ok(error instanceof PlaceError, String(error));
    return error.problem.kind;
  }
};

test('a post is published with all that belongs to it, and found by its key', async () => {
  assert.equal(await blog().findByKey('key-1'), null);
  const url = await blog().publish(payload(), 'key-1');
  assert.equal(url, `${hosts.origin}/blog/posts/made`);
  const page = await (await outside(url)).text();
  for (const words of ['A made post', 'Isolde', 'Loom', 'twill', 'l.png', 'Comments are closed']) {
    assert.ok(page.includes(words), words);
  }
  assert.equal(await blog().findByKey('key-1'), url);
});

test('drafts, private and dated posts are found by their key and listed as the owner’s', async () => {
  const date = new Date(Date.now() + 86_400_000).toISOString();
  await blog().publish(payload({ status: 'draft' }), 'key-d');
  await blog().publish(payload({ status: 'private', slug: 'p' }), 'key-p');
  await blog().publish(payload({ status: 'dated', date, slug: 'f' }), 'key-f');
  for (const key of ['key-d', 'key-p', 'key-f']) assert.ok(await blog().findByKey(key), key);
  const own = await blog().listOwn();
  const made = own.filter(({ item }) => item.title === 'A made post');
  assert.deepEqual(made.map(({ item }) => item.visibility).sort(), [
    'draft',
    'private',
    'scheduled'
  ]);
  assert.ok(made.every(({ item }) => item.origin !== null));
});

test('a key is found far down a long list', async () => {
  await blog().publish(payload({ status: 'draft' }), 'key-deep');
  for (let i = 0; i < 60; i++) await blog().publish(payload({ slug: `later-${i}` }), `key-${i}`);
  assert.ok(await blog().findByKey('key-deep'));
});

test('the marker in the HTML is enough where a blog drops the property', async () => {
  const url = await blog().publish(
    payload({ html: `<p>x</p>${originMarker('key-html')}` }),
    'key-other'
  );
  assert.equal(await blog().findByKey('key-html'), url);
});

test('replacing keeps the one post, and tells its new address when it comes out of draft', async () => {
  const draft = await blog().publish(payload({ status: 'draft' }), 'key-1');
  assert.match(draft, /look=/);
  const url = await blog().update(draft, payload({ title: 'Second', slug: 'ignored' }), 'key-1');
  assert.equal(url, `${hosts.origin}/blog/posts/made`);
  assert.match(await (await outside(url)).text(), /Second/);
  assert.equal(await blog().findByKey('key-1'), url);
});

test('retitling changes the title and nothing else', async () => {
  const url = await blog().publish(payload(), 'key-1');
  await blog().retitle(url, 'Renamed');
  const page = await (await outside(url)).text();
  assert.match(page, /Renamed/);
  assert.match(page, /Text/);
});

test('removing removes, and what is gone is reported as not found', async () => {
  const url = await blog().publish(payload(), 'key-1');
  await blog().remove(url, 'k');
  assert.equal((await outside(url)).status, 410);
  assert.equal(await kindOf(blog().update(url, payload(), 'key-1')), 'not-found');
  assert.equal(await kindOf(blog().remove(`${hosts.origin}/blog/posts/never`, 'k')), 'not-found');
});

test('each way of failing is reported for what it is', async () => {
  assert.equal(await kindOf(blog('').publish(payload(), 'k')), 'key-missing');
  assert.equal(await kindOf(blog('wrong').publish(payload(), 'k')), 'key-refused');
  const drafts = blog('wrenfold-drafts-only-key');
  assert.equal(
    await kindOf(drafts.remove(`${hosts.origin}/blog/posts/how-i-sley-a-reed`, 'k')),
    'right-missing'
  );
  const cases: [Record<string, string>, string][] = [
    [{ failOneIn: '1' }, 'server-error'],
    [{ busyOneIn: '1' }, 'busy'],
    [{ loseOneIn: '1' }, 'no-answer'],
    [{ keyExpired: 'on' }, 'key-refused'],
    [{ overQuota: 'on' }, 'over-quota']
  ];
  for (const [faults, kind] of cases) {
    await control('faults', faults);
    assert.equal(await kindOf(blog().publish(payload(), 'k')), kind);
  }
});

const channel = (key = 'wrenfold-loomworks-key') => {
  const url = `${hosts.origin}/channel/`;
  const place: Place = {
    id: 'channel',
    kind: 'channel',
    url,
    feedUrl: `${url}feed.xml`,
    title: 'Channel',
    author: '',
    micropub: `${url}micropub`,
    tokenEndpoint: `${url}token`,
    rights: ['read', 'create'],
    hasKey: true,
    origins: [hosts.origin],
    linked: '',
    checked: '',
    problem: null
  };
  return new VideoChannel(place, key);
};
const film: VideoPayload = {
  kind: 'video',
  title: 'A film',
  description: 'About it',
  tags: ['warp'],
  category: 'Crafts',
  language: 'en',
  visibility: 'unlisted',
  publishAt: null,
  captions: '',
  chapters: '',
  madeFrom: 'https://blog.example/post'
};
const FILM_KEY = '3f333df6-90a4-5fda-8dd3-9485d27cee36';

test('a video is published, found by its key, replaced and removed; posts are refused', async () => {
  const adapter = channel();
  assert.equal(await adapter.findByKey(FILM_KEY), null);
  const url = await adapter.publish(film, FILM_KEY);
  assert.equal(await adapter.findByKey(FILM_KEY), url);
  assert.equal(await adapter.update(url, { ...film, title: 'Renamed' }, FILM_KEY), url);
  assert.equal((await adapter.fetchProcessing(url)).state, 'awaiting-file');
  // Without a file there is nothing to see yet.
  assert.deepEqual(await adapter.listOwn(), []);
  await adapter.remove(url, 'k');
  assert.equal(await adapter.findByKey(FILM_KEY), null);
  await assert.rejects(adapter.publish(payload(), FILM_KEY), PlaceError);
  await assert.rejects(blog().publish(film, FILM_KEY), PlaceError);
});

test('where files go, and what the channel takes', async () => {
  const { endpoint, limits, authorization } = await channel().uploads();
  assert.equal(endpoint, `${hosts.origin}/channel/uploads`);
  assert.deepEqual(limits, { title: 100, description: 5000, tags: 500 });
  assert.match(authorization, /^Bearer /);
  await assert.rejects(
    channel('wrong').uploads(),
    (error) => error instanceof PlaceError && error.problem.kind === 'key-refused'
  );
});

test('a player is put in front of a post once, and not where it stands already', async () => {
  const adapter = blog();
  const url = await adapter.publish(payload(), 'key-1');
  const frame = '<iframe src="https://channel.example/embed/1"></iframe>';
  await adapter.addEmbed(url, frame, 'https://channel.example/embed/1');
  await adapter.addEmbed(url, frame, 'https://channel.example/embed/1');
  const page = await (await outside(url)).text();
  assert.equal(page.split('channel.example/embed/1').length - 1, 1);
});

test('a key tells what it may do and until when; the place, its categories and what is left', async () => {
  const whole = await blog().grants();
  assert.deepEqual(whole.rights, ['create', 'update', 'delete', 'media']);
  assert.equal(whole.allowance?.per, 'month');
  assert.ok(Date.parse(whole.allowance?.asOf ?? '') <= Date.now());
  assert.ok(Date.parse(whole.keyEnds ?? '') > Date.now());
  assert.ok(whole.categories.length > 0);
  assert.deepEqual((await blog('wrenfold-drafts-only-key').grants()).rights, ['draft']);
  assert.equal(await kindOf(blog('another-key').grants()), 'key-refused');
});
