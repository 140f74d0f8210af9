import assert from 'node:assert/strict';
import test from 'node:test';
import { withoutPlayer } from './lostPlayer.ts';

const NOTE = 'The video is gone & will not come back.';
const player = (id: string) => `<iframe src="https://video.example/embed/${id}"></iframe>`;
const lost = ['https://video.example/a', 'https://video.example/embed/a'];

test('a player gives way to a note, with the figure around it; all else stays to the character', () => {
  const html = (inner: string) => `<p  class=x>Before</p>\n${inner}\n<P>After`;
  const noted = html('<p><em>The video is gone &#x26; will not come back.</em></p>');
  for (const shown of [player('a'), `<figure class="video">${player('a')}</figure>`])
    assert.equal(withoutPlayer(html(shown), lost, NOTE).replace('&amp;', '&#x26;'), noted);
});

test('what else a figure says stays, and so does the player of another video', () => {
  const captioned = `<figure>${player('a')}<figcaption>At the loom</figcaption></figure>`;
  assert.match(withoutPlayer(captioned, lost, NOTE), /<figcaption>At the loom<\/figcaption>/);
  assert.equal(withoutPlayer(player('b'), lost, NOTE), player('b'));
  assert.equal(withoutPlayer('<p>No player</p>', lost, NOTE), '<p>No player</p>');
});
