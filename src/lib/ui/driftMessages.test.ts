import assert from 'node:assert/strict';
import test from 'node:test';
import type { Change } from '../core/model/twin.ts';
import { changeMessage, driftMessage } from './driftMessages.ts';

const change = (given: Partial<Change>): Change => ({
  side: 'video',
  what: 'title',
  before: '',
  after: '',
  on: null,
  ...given
});

test('what has drifted is said by its side, in one sentence for each', () => {
  const changes = [
    change({ what: 'captions' }),
    change({ what: 'chapters' }),
    change({ side: 'post', what: 'text' })
  ];
  assert.equal(
    driftMessage({ kind: 'differs', differences: [], changes }),
    'The video’s captions and chapters changed. The post’s text changed.'
  );
  assert.equal(
    driftMessage({ kind: 'differs', differences: [], changes: [change({ what: 'gone' })] }),
    'The video is no longer at the channel.'
  );
});

test('a change says what it was and is, where that is short', () => {
  const said = (given: Partial<Change>) => changeMessage(change(given));
  assert.equal(
    said({ what: 'length', before: '61', after: '125' }),
    'Video length: 2:05 (was 1:01)'
  );
  assert.equal(
    said({ what: 'visibility', before: 'public', after: 'private' }),
    'Video is private now (was public)'
  );
  assert.equal(said({ side: 'post', what: 'tags', before: 'reed' }), 'Post tags: none (were reed)');
  assert.equal(
    said({ what: 'gone', before: 'A reel' }),
    'Video deleted or no longer public: “A reel”'
  );
});
