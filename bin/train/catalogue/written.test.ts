import assert from 'node:assert/strict';
import { test } from 'node:test';
import { WRITTEN, writtenCatalogue } from './written.ts';

for (const name of WRITTEN)
  test(`of the written catalogue of ${name} each item has its title, its date and its text`, () => {
    const { videos, posts, texts, truth } = writtenCatalogue(name);
    for (const item of [...videos, ...posts]) {
      assert.match(item.title, /^[\p{L}\d][^|]+$/u, item.id);
      assert.ok(Number.isFinite(Date.parse(item.published ?? '')), item.id);
      assert.ok(texts.get(item.id), item.id);
      assert.equal(item.duration !== null && item.duration > 0, item.kind === 'video', item.id);
    }
    assert.ok(truth.length > 15);
  });
