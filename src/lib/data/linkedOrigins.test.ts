import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { cookieFor, originsFromCookie } from './linkedOrigins.ts';

const value = (cookie: string) => decodeURIComponent(/^[^=]+=([^;]*)/.exec(cookie)?.[1] ?? '');

test('origins come through the cookie', () => {
  const origins = ['https://loom.example', 'http://127.0.0.1:4811'];
  assert.deepEqual(
    new Set(originsFromCookie(value(cookieFor([...origins, ...origins])))),
    new Set(origins)
  );
});

test('nothing but origins gets into the header', () => {
  assert.deepEqual(
    originsFromCookie("https://a.example; script-src *|'unsafe-inline'|https://b.example/path|*"),
    []
  );
  fc.assert(
    fc.property(fc.array(fc.string()), (parts) => {
      for (const origin of originsFromCookie(parts.join('|')))
        assert.doesNotMatch(origin, /[\s;,'*]/);
    })
  );
});
