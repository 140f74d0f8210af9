import { Hono } from 'hono';
import { html } from 'hono/html';
import type { World } from '../context.ts';
import { playlists } from '../world/world.ts';
import { channelFeed } from './feed.ts';
import { ATOM, NAME } from './names.ts';
import * as pages from './pages.ts';

/** Playlists and searches, each as a page and as a feed. */
export function channelLists(world: World): Hono {
  const app = new Hono();

  app.get('/playlists', (c) =>
    c.html(pages.channelPage(world, `Playlists · ${NAME}`, '', pages.playlistsBody(world)))
  );
  app.get('/playlists/:id/:feed?', (c) => {
    const list = playlists.find((p) => p.id === c.req.param('id'));
    if (!list) return c.notFound();
    const home = `${world.channelUrl}playlists/${list.id}`;
    const shown = world.listed();
    const videos = list.videos.flatMap((id) => shown.find((v) => v.id === id) ?? []);
    const self = `${home}/feed.xml`;
    if (c.req.param('feed') === 'feed.xml') {
      return c.body(
        channelFeed(world, { videos, title: list.title, self, home, page: 1 }),
        200,
        ATOM
      );
    }
    return c.html(
      pages.channelPage(
        world,
        list.title,
        pages.feedLink(self, list.title),
        html`<h1>${list.title}</h1>
          ${pages.videoList(world, videos)}`
      )
    );
  });

  app.get('/search/:feed?', (c) => {
    const q = c.req.query('q') ?? '';
    const words = q.toLowerCase().split(/\s+/).filter(Boolean);
    const videos = words.length
      ? world.listed().filter((v) => {
          const text = `${v.title} ${v.description} ${v.tags.join(' ')}`.toLowerCase();
          return words.every((word) => text.includes(word));
        })
      : [];
    const self = `${world.channelUrl}search/feed.xml?q=${encodeURIComponent(q)}`;
    if (c.req.param('feed') === 'feed.xml') {
      const home = `${world.channelUrl}search?q=${encodeURIComponent(q)}`;
      const page = Number(c.req.query('page') ?? 1) || 1;
      return c.body(
        channelFeed(world, { videos, title: `Search: ${q}`, self, home, page }),
        200,
        ATOM
      );
    }
    return c.html(
      pages.channelPage(
        world,
        'Search',
        pages.feedLink(self, `Search: ${q}`),
        html`<h1>Search</h1>
          <form>
            <label>Words <input name="q" value="${q}" /></label><button>Search</button>
          </form>
          ${words.length ? pages.videoList(world, videos) : ''}`
      )
    );
  });

  return app;
}
