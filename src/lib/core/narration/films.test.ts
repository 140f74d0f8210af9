import assert from 'node:assert/strict';
import { test } from 'node:test';
import { anItem } from '../testing.ts';
import { filmsOf } from './films.ts';

const post = (more: object) =>
  anItem({ id: 'p', kind: 'post', url: 'https://www.wrenfold.example/notes/flax', ...more });

test('files that a post plays and links to are films, each once, players are none', () => {
  const films = filmsOf(
    post({
      films: [{ url: 'https://wrenfold.example/media/flax.webm', captions: 'c.vtt' }],
      links: [
        'https://wrenfold.example/media/flax.webm#t=3',
        'https://files.wrenfold.example/raw/field.MP4?size=1',
        'https://elsewhere.example/clip.mp4',
        'https://wrenfold.example/notes/video',
        'https://wrenfold.example/media/flax.ogg'
      ],
      embeds: ['https://player.example/embed/1']
    }),
    null
  );
  assert.deepEqual(films, [
    { url: 'https://wrenfold.example/media/flax.webm', captions: 'c.vtt', isAtBlog: true },
    { url: 'https://files.wrenfold.example/raw/field.MP4?size=1', captions: '', isAtBlog: true },
    { url: 'https://elsewhere.example/clip.mp4', captions: '', isAtBlog: false }
  ]);
});

test('a host that only ends alike is another one', () => {
  const links = ['https://notwrenfold.example/a.mp4'];
  assert.equal(filmsOf(post({ links }), null)[0]?.isAtBlog, false);
});
