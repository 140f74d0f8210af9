import assert from 'node:assert/strict';
import test from 'node:test';
import fc from 'fast-check';
import { takeChanges } from './mergeHtml.ts';
import { mergeLines } from './mergeLines.ts';
import { mergePosts, takeChoices, withoutConflicts, type PostVersion } from './mergePosts.ts';
import { withSeconds } from './withSeconds.ts';

const post = (given: Partial<PostVersion> = {}): PostVersion => ({
  title: 'Sleying the reed',
  excerpt: '',
  tags: ['reed', 'loom'],
  picture: 'https://video.example/1.png',
  html: '<h2>The hook</h2>\n<p>Hold it flat.</p>',
  ...given
});
const taken = (base: PostVersion, mine: PostVersion, fresh: PostVersion) => {
  const merge = mergePosts(base, mine, fresh);
  return takeChoices(merge, withoutConflicts(merge));
};

test('title, excerpt and picture follow the video where nobody changed them', () => {
  const fresh = post({ title: 'Sleying a reed', picture: 'https://video.example/2.png' });
  assert.deepEqual(taken(post(), post({ excerpt: 'Mine' }), fresh), {
    ...fresh,
    excerpt: 'Mine'
  });
  const merge = mergePosts(post(), post({ title: 'My way' }), fresh);
  assert.deepEqual(
    merge.changes.map(({ where, isConflict }) => [where, isConflict]),
    [
      ['title', true],
      ['picture', false]
    ]
  );
});

test('tags by hand stay, others come and go with the layout', () => {
  const mine = post({ tags: ['loom', 'reed', 'by hand'] });
  const { tags } = taken(post(), mine, post({ tags: ['loom', 'sett'] }));
  assert.deepEqual(tags, ['loom', 'by hand', 'sett']);
});

test('a change in the text knows its heading, and each is chosen for itself', () => {
  const html = '<h2>The hook</h2>\n<p>Hold it flat.</p>\n<h2>The comb</h2>\n<p>Count twice.</p>';
  const fresh = html.replace('flat', 'upright').replace('twice', 'again');
  const merge = mergePosts(post({ html }), post({ html }), post({ html: fresh }));
  assert.deepEqual(
    merge.changes.map((change) => change.under),
    ['The hook', 'The comb']
  );
  const second = takeChoices(merge, new Map([[1, 'fresh']]));
  assert.equal(second.html, html.replace('twice', 'again'));
  assert.deepEqual(takeChoices(merge, new Map()), post({ html }));
});

test('whether a post was edited by hand is known', () => {
  const of = (mine: Partial<PostVersion>) => mergePosts(post(), post(mine), post()).isEdited;
  assert.equal(of({}), false);
  assert.equal(of({ html: '<h2 class="x">The hook</h2><p>Hold it flat.</p>' }), false);
  assert.equal(of({ html: '<h2>The hook</h2>\n<p>Hold it flat. Always.</p>' }), true);
  assert.equal(of({ tags: ['reed'] }), true);
});

test('plain text is merged line by line, and taking nothing changes nothing', () => {
  const base = 'https://post.example/1\n\nFrom our blog: wool.\n\n0:00 Start';
  const mine = `${base}\n1:20 Added by hand`;
  const fresh = base.replace('wool', 'linen and cotton yarns of this year');
  assert.equal(
    takeChanges(mergeLines(base, mine, fresh), (c) => (c.isConflict ? 'mine' : 'fresh')),
    `${fresh}\n1:20 Added by hand`
  );
  const text = fc
    .array(fc.constantFrom('a b', 'c', '', ' ', '\n', 'd e f\n', '\n\n'), { maxLength: 9 })
    .map((parts) => parts.join(''));
  fc.assert(
    fc.property(text, text, text, (one, two, three) => {
      assert.equal(
        takeChanges(mergeLines(one, two, three), () => 'mine'),
        two
      );
    })
  );
});

test('a text that comes to the desk knows the seconds of all that stands as it was made', () => {
  const marked = '<p data-start="1" data-end="4">Hold it flat.</p>\n<p data-start="5">Count.</p>';
  const html = '<p>Hold it flat.</p>\n<p>Mine.</p>\n<p class="x">Count.</p>';
  assert.equal(
    withSeconds(html, marked),
    '<p data-start="1" data-end="4">Hold it flat.</p>\n<p>Mine.</p>\n<p data-start="5">Count.</p>'
  );
});
