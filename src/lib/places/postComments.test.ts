import assert from 'node:assert/strict';
import { isDeepStrictEqual } from 'node:util';
import { test } from 'node:test';
import fc from 'fast-check';
import { commentChanges } from './postComments.ts';

const CHANNEL = 'The channel';
const cited = (name: string, html = `<p>${name}</p>`) => ({
  uid: `urn:uuid:${name}`,
  url: `https://channel.example/#${name}`,
  author: 'Orla Fennick',
  authorUrl: '',
  html,
  published: '2026-01-01T00:00:00.000Z',
  answers: ''
});
const theirs = { type: ['h-cite'], properties: { uid: ['theirs'], content: ['Lovely.'] } };

/** What a post has once a place has done what Micropub's update asks of it. */
function after(held: readonly unknown[], change: ReturnType<typeof commentChanges>): unknown[] {
  const left = held.filter((v) => !change.delete.some((gone) => isDeepStrictEqual(gone, v)));
  return [...left, ...change.add];
}
const uids = (held: readonly unknown[]) =>
  held.map((v) => (v as typeof theirs).properties.uid[0] ?? '');

test('a comment says who wrote it, where, when, and at which channel', () => {
  const wanted = {
    ...cited('a'),
    authorUrl: 'https://yarns.example/',
    answers: 'https://x.example/#b'
  };
  const { add } = commentChanges({}, { channel: CHANNEL, comments: [wanted], without: [] });
  assert.deepEqual(add, [
    {
      type: ['h-cite'],
      properties: {
        uid: ['urn:uuid:a'],
        url: ['https://channel.example/#a'],
        author: [
          {
            type: ['h-card'],
            properties: { name: ['Orla Fennick'], url: ['https://yarns.example/'] }
          }
        ],
        content: [{ html: '<p>a</p>' }],
        published: ['2026-01-01T00:00:00.000Z'],
        publication: [CHANNEL],
        'in-reply-to': ['https://x.example/#b']
      }
    }
  ]);
});

test('whatever a post cites already, it ends with each comment once and with those of others', () => {
  const names = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'));
  fc.assert(
    fc.property(names, names, fc.boolean(), (before, wanted, isEdited) => {
      const first = commentChanges(
        {},
        { channel: CHANNEL, comments: before.map((n) => cited(n)), without: [] }
      );
      const held = [theirs, ...first.add];
      const comments = wanted.map((n) =>
        cited(n, isEdited ? `<p>${n}, better said</p>` : undefined)
      );
      const change = {
        channel: CHANNEL,
        comments,
        without: before.filter((n) => !wanted.includes(n)).map((n) => `urn:uuid:${n}`)
      };
      const once = after(held, commentChanges({ comment: held }, change));
      assert.deepEqual(uids(once).sort(), ['theirs', ...comments.map((c) => c.uid)].sort());
      assert.deepEqual(commentChanges({ comment: once }, change), { add: [], delete: [] });
    })
  );
});

test('one that stands twice is left once, and what is no comment is left alone', () => {
  const change = { channel: CHANNEL, comments: [cited('a')], without: ['urn:uuid:b'] };
  const { add } = commentChanges({}, change);
  const held = [...add, ...add, 'https://elsewhere.example/', null, 7];
  const found = commentChanges({ comment: held }, change);
  assert.deepEqual(found.delete, add);
  assert.deepEqual(found.add, []);
});
