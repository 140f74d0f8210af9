import { Hono } from 'hono';
import { html } from 'hono/html';
import type { World } from '../context.ts';
import { playlists } from '../world/world.ts';
import { channelComments } from './comments.ts';
import { channelFeed } from './feed.ts';
import { channelFiles } from './files.ts';
import { channelLists } from './lists.ts';
import { ATOM, NAME } from './names.ts';
import * as pages from './pages.ts';
import { channelPlayers } from './players.ts';

/** The rehearsal channel. */
export function channel(world: World): Hono {
  const app = new Hono();
  const feedUrl = `${world.channelUrl}feed.xml`;

  app.get('/', (c) =>
    c.html(
      pages.channelPage(
        world,
        NAME,
        html`${pages.feedLink(feedUrl, `Uploads of ${NAME}`)}
        ${playlists.map((list) => pages.feedLink(`${world.channelUrl}playlists/${list.id}/feed.xml`, list.title))}
        ${pages.programLinks(world)}`,
        html`<h1>${NAME}</h1>
          <p>A hand-weaving studio by the old mill.</p>
          ${pages.videoList(world, world.listed())}`
      )
    )
  );

  app.get('/feed.xml', (c) =>
    c.body(
      channelFeed(world, {
        videos: world.listed(),
        title: NAME,
        self: feedUrl,
        home: world.channelUrl,
        page: Number(c.req.query('page') ?? 1) || 1
      }),
      200,
      ATOM
    )
  );

  app.get('/watch/:id', (c) => {
    const video = world.reachable(c.req.param('id'));
    if (!video)
      return c.html(pages.channelPage(world, 'Not found', '', html`<h1>No such video</h1>`), 404);
    const from = Math.max(0, Number(c.req.query('t') ?? 0) || 0);
    return c.html(
      pages.channelPage(
        world,
        `${video.title} · ${NAME}`,
        pages.watchHead(world, video),
        pages.watchBody(world, video, from)
      )
    );
  });

  app.route('/', channelComments(world));
  app.route('/', channelPlayers(world));
  app.route('/', channelFiles(world));
  app.route('/', channelLists(world));

  return app;
}
