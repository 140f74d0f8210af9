import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { plainOrigins } from './origins.ts';

test('origins stay, once each', () => {
  const origins = ['http://127.0.0.1:4811', 'https://loom.example'];
  assert.deepEqual(plainOrigins([...origins, ...origins]), origins);
});

test('nothing but origins gets into a header', () => {
  const hostile = ["https://a.example; script-src *'unsafe-inline'", 'https://b.example/path', '*'];
  assert.deepEqual(plainOrigins(hostile), []);
  assert.deepEqual(plainOrigins([`https://${'a'.repeat(200)}.example`]), []);
  fc.assert(
    fc.property(fc.array(fc.string()), (parts) => {
      for (const origin of plainOrigins(parts)) assert.doesNotMatch(origin, /[\s;,'*]/);
    })
  );
});

test('they have room in a cookie, however many are linked', () => {
  const many = Array.from({ length: 500 }, (_, i) => `https://${'a'.repeat(80)}${i}.example`);
  assert.ok(plainOrigins(many).join().length < 4_000);
});
