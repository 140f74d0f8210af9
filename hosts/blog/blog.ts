import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Hono } from 'hono';
import { html } from 'hono/html';
import type { World } from '../context.ts';
import { postComments } from './comments.ts';
import { blogFeed } from './feed.ts';
import { micropub } from './micropub.ts';
import * as pages from './pages.ts';

const FILES: Record<string, string> = {
  'warp-worksheet.txt':
    'Length of one piece ____ x pieces ____ + loom waste 60 cm = length of warp ____',
  'three-drafts.txt':
    'Straight draw 1 2 3 4. Point draw 1 2 3 4 3 2. Broken draw 1 2 4 3. Fill in the drawdown.'
};

/** The rehearsal blog: its pages for readers, its feed, and its Micropub endpoint. */
export function blog(world: World): Hono {
  const app = new Hono();
  const shown = () =>
    world
      .posts()
      .filter((p) => world.isPublic(p))
      .sort((a, b) => world.publishedAt(b) - world.publishedAt(a));

  app.get('/', (c) =>
    c.html(pages.blogPage(world, pages.BLOG_NAME, pages.frontBody(world, shown())))
  );
  app.get('/feed.xml', (c) =>
    c.body(blogFeed(world, shown()), 200, { 'Content-Type': 'application/atom+xml; charset=utf-8' })
  );
  app.get('/style.css', (c) => c.body(pages.stylesheet, 200, { 'Content-Type': 'text/css' }));

  app.get('/posts/:slug', (c) => {
    const post = world.posts().find((p) => p.slug === c.req.param('slug'));
    const mayLook =
      post &&
      (world.isPublic(post) ||
        post.visibility === 'unlisted' ||
        c.req.query('look') === post.secret);
    if (post?.deleted) {
      return c.html(pages.blogPage(world, 'Gone', html`<h1>This post was removed</h1>`), 410);
    }
    if (!post || !mayLook) {
      return c.html(pages.blogPage(world, 'Not found', html`<h1>There is no such post</h1>`), 404);
    }
    const title = `${pages.text(post, 'name')} · ${pages.BLOG_NAME}`;
    return c.html(pages.blogPage(world, title, pages.postBody(world, post)));
  });

  app.get('/posts/:slug/comments.xml', (c) => {
    const post = world.posts().find((p) => p.slug === c.req.param('slug') && world.isPublic(p));
    if (!post) return c.notFound();
    return c.body(postComments(world, post), 200, {
      'Content-Type': 'application/atom+xml; charset=utf-8'
    });
  });

  app.get('/files/:name', (c) => {
    const file = FILES[c.req.param('name')];
    return file ? c.text(file) : c.notFound();
  });

  app.get('/media/:name', async (c) => {
    const entry = world.store.state.media.find((m) => m.name === c.req.param('name'));
    if (!entry) return c.notFound();
    const bytes = await readFile(join(world.store.folder, 'media', entry.name));
    return c.body(new Uint8Array(bytes), 200, {
      'Content-Type': entry.type,
      'X-Content-Type-Options': 'nosniff'
    });
  });

  app.route('/', micropub(world));
  return app;
}
