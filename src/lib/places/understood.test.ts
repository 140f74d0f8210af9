import assert from 'node:assert/strict';
import { after, before, test } from 'node:test';
import { PlaceError, placeSchema } from '$lib/core/model/place.ts';
import { MailboxPlace } from './mailbox.ts';
import { MicropubBlog } from './micropub.ts';
import { UpdateNetwork } from './network.ts';
import { VideoChannel } from './videoChannel.ts';

const usual = globalThis.fetch;
let body: unknown = null;
before(() => {
  globalThis.fetch = async (path) =>
    path === '/api/send'
      ? Response.json({ status: 200, location: '', retryAfter: null, body })
      : Response.json(body);
});
after(() => (globalThis.fetch = usual));

const place = placeSchema.parse({
  id: 'p',
  kind: 'blog',
  url: 'https://blog.example/',
  feedUrl: 'https://blog.example/feed',
  title: 'Blog',
  author: '',
  micropub: 'https://blog.example/micropub',
  tokenEndpoint: 'https://blog.example/token',
  rights: ['read'],
  hasKey: true,
  origins: [],
  linked: '',
  checked: '',
  problem: null
});
const network = {
  outbox: 'https://net.example/outbox',
  limitsUrl: 'https://net.example/limits',
  tagCounts: 'https://net.example/tags',
  uploadMedia: '',
  tokenEndpoint: ''
};
const NONSENSE: unknown[] = [null, 'Bad gateway', 7, [], {}, { items: 'many' }, { items: [{}] }];

async function isNotUnderstood(call: () => Promise<unknown>): Promise<boolean> {
  try {
    await call();
    return false;
  } catch (error) {
    return error instanceof PlaceError && error.problem.kind === 'not-understood';
  }
}

test('a list that is not understood is a problem of its place, never an empty list', async () => {
  for (body of NONSENSE) {
    const say = JSON.stringify(body);
    assert.ok(await isNotUnderstood(() => new MicropubBlog(place, 'k').findByKey('x')), say);
    assert.ok(await isNotUnderstood(() => new MicropubBlog(place, 'k').listOwn()), say);
    assert.ok(await isNotUnderstood(() => new VideoChannel(place, 'k').findByKey('x')), say);
    assert.ok(await isNotUnderstood(() => new UpdateNetwork(network, 'k').findByKey('x')), say);
    const mailbox = new MailboxPlace({ messages: 'https://mail.example/messages' }, 'k');
    assert.ok(await isNotUnderstood(() => mailbox.find('x')), say);
  }
  body = { items: [] };
  assert.equal(await new MicropubBlog(place, 'k').findByKey('x'), null);
});

test('limits, allowances and the work on a file are not guessed from nonsense', async () => {
  body = { text: 'long' };
  assert.ok(await isNotUnderstood(() => new UpdateNetwork(network, 'k').fetchLimits()));
  body = { properties: { state: ['dreaming'] } };
  assert.ok(
    await isNotUnderstood(() => new VideoChannel(place, 'k').fetchProcessing('https://v/'))
  );
  body = { scope: 'create', allowance: { most: 'all' }, categories: 'none' };
  assert.ok(await isNotUnderstood(() => new MicropubBlog(place, 'k').grants()));
});
