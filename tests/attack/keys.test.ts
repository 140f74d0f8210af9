import assert from 'node:assert/strict';
import { mock, test } from 'node:test';
import { keyAddress } from '../../src/lib/core/feeds/address.ts';
import { readPage } from '../../src/lib/core/feeds/page.ts';
import { PlaceError } from '../../src/lib/core/model/place.ts';
import { callDirectly, sendTo } from '../../src/lib/places/wire.ts';

const BLOG = 'https://blog.example/post';
const endpointsOf = (html: string) => {
  const { micropub, tokenEndpoint } = readPage(html, BLOG);
  return [micropub, tokenEndpoint];
};

test('where keys go is told by the head of a page, not by a comment', () => {
  for (const html of [
    '<a rel="micropub" href="https://evil.example/mp">nice post!</a>',
    '<a rel="token_endpoint micropub" href="https://evil.example/t">x</a>',
    '<area rel="micropub" href="https://evil.example/mp">',
    '<link rel="micropub" href="http://blog.example/mp">',
    '<link rel="micropub" href="javascript:alert(1)">',
    '<link rel="token_endpoint" href="//evil.example:x/t">',
    '<!-- <link rel="micropub" href="https://evil.example/mp"> -->',
    '<script>"<link rel=micropub href=https://evil.example/mp>"</script>',
    '<textarea><link rel="micropub" href="https://evil.example/mp"></textarea>'
  ])
    assert.deepEqual(endpointsOf(html), ['', ''], html);
  assert.deepEqual(
    endpointsOf('<link rel="micropub" href="/mp"><link rel=token_endpoint href=/token>'),
    ['https://blog.example/mp', 'https://blog.example/token']
  );
});

test('a key goes over https, or within this machine', () => {
  for (const address of ['https://x.example/', 'http://127.0.0.1:8/mp', 'http://localhost/mp'])
    assert.equal(keyAddress(address), address);
  for (const address of [
    'http://x.example/',
    'http://localhost.example/',
    'ftp://x.example/',
    'x',
    ''
  ])
    assert.equal(keyAddress(address), '', address);
});

test('a key that a place says again is not kept with what it said', async () => {
  const key = 'wOven/secret+key=9';
  const said = `The token ${key} (${encodeURIComponent(key)}) is not good.`;
  mock.method(globalThis, 'fetch', (path: string) =>
    Promise.resolve(
      path === '/api/send'
        ? Response.json({
            status: 400,
            location: '',
            retryAfter: null,
            body: { error: 'invalid_request', error_description: said }
          })
        : Response.json({ error: 'invalid_request', error_description: said }, { status: 400 })
    )
  );
  for (const call of [
    () => sendTo({ url: `${BLOG}?access_token=${key}`, method: 'GET', key }),
    () => callDirectly(BLOG, { method: 'POST' }, key, () => null)
  ])
    await assert.rejects(call, (error) => {
      assert.ok(error instanceof PlaceError);
      assert.equal(error.problem.detail, 'The token ••• (•••) is not good.');
      assert.doesNotMatch(JSON.stringify(error.problem), /secret/);
      return true;
    });
  mock.restoreAll();
});
