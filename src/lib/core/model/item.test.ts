import assert from 'node:assert/strict';
import { test } from 'node:test';
import { placementKey } from './ids.ts';
import { largestPicture, pictureFor } from './item.ts';

const picture = (width: number | null, height = 9) => ({ url: `${width}`, width, height });

test('the largest picture is taken, whatever its place in the list', () => {
  assert.equal(largestPicture([picture(320), picture(1280), picture(640)])?.width, 1280);
  assert.equal(largestPicture([picture(null), picture(10)])?.width, 10);
  assert.equal(largestPicture([picture(null)])?.width, null);
  assert.equal(largestPicture([]), null);
});

test('for a small space the smallest that is large enough', () => {
  assert.equal(pictureFor([picture(1280), picture(320), picture(100)], 160)?.width, 320);
  assert.equal(pictureFor([picture(100)], 160)?.width, 100);
});

test('keys depend only on what is published, from what and where', () => {
  const key = placementKey('https://a.example/v', 'post', 'https://b.example/');
  assert.equal(key, placementKey('https://a.example/v', 'post', 'https://b.example/'));
  assert.notEqual(key, placementKey('https://a.example/v', 'update', 'https://b.example/'));
  assert.notEqual(key, placementKey('https://a.example/v', 'post', 'https://c.example/'));
});
