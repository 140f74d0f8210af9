import assert from 'node:assert/strict';
import { test } from 'node:test';
import { anItem } from '../testing.ts';
import { withoutCopies } from './sameVideo.ts';

const url = 'https://c.example/watch/1';

test('a playlist beside its channel gives no second copy of an upload', () => {
  const channel = anItem({ id: 'a', kind: 'video', placeId: 'channel', url });
  const playlist = anItem({ id: 'b', kind: 'video', placeId: 'playlist', url });
  const other = anItem({ id: 'c', kind: 'video', placeId: 'playlist' });
  const ids = (order: string[]) =>
    withoutCopies([playlist, channel, other], order).map((v) => v.id);
  assert.deepEqual(ids(['channel', 'playlist']), ['a', 'c']);
  assert.deepEqual(ids(['playlist', 'channel']), ['b', 'c']);
});
