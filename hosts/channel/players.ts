import { Hono } from 'hono';
import { html } from 'hono/html';
import type { World } from '../context.ts';
import { thumbnails } from './feed.ts';
import { NAME } from './names.ts';
import * as pages from './pages.ts';

/** Players to be framed elsewhere, and what oEmbed says of them. */
export function channelPlayers(world: World): Hono {
  const app = new Hono();

  app.get('/embed/:id', (c) => {
    const video = world.reachable(c.req.param('id'));
    if (!video) return c.html(html`<p>No such video.</p>`, 404);
    const from = Math.max(0, Number(c.req.query('t') ?? 0) || 0);
    return c.html(
      html`<!doctype html>
        <html lang="${video.language}">
          <head>
            <meta charset="utf-8" />
            <title>${video.title}</title>
            <style>
              html,
              body {
                margin: 0;
                height: 100%;
                background: #111;
                color: #eee;
                font-family: sans-serif;
              }
              video {
                width: 100%;
                height: 100%;
                display: block;
              }
            </style>
          </head>
          <body>
            ${pages.player(world, video, from)}
          </body>
        </html>`
    );
  });

  app.get('/oembed', (c) => {
    const id = /\/channel\/(?:watch|embed)\/([\w-]+)/.exec(c.req.query('url') ?? '')?.[1];
    const video = id ? world.reachable(id) : undefined;
    if (!video) return c.json({ error: 'No such video.' }, 404);
    if ((c.req.query('format') ?? 'json') !== 'json') return c.json({ error: 'JSON only.' }, 501);
    const scale = Math.min(
      1,
      (Number(c.req.query('maxwidth')) || Infinity) / video.width,
      (Number(c.req.query('maxheight')) || Infinity) / video.height
    );
    const width = Math.floor(video.width * scale);
    const height = Math.floor(video.height * scale);
    const picture = thumbnails(world, video).at(-1);
    const title = video.title.replaceAll('&', '&amp;').replaceAll('"', '&quot;');
    return c.json({
      version: '1.0',
      type: 'video',
      title: video.title,
      author_name: video.author,
      author_url: world.channelUrl,
      provider_name: NAME,
      provider_url: world.channelUrl,
      width,
      height,
      html: `<iframe src="${world.channelUrl}embed/${video.id}" width="${width}" height="${height}" title="${title}" allowfullscreen></iframe>`,
      thumbnail_url: picture?.url,
      thumbnail_width: picture?.width,
      thumbnail_height: picture?.height
    });
  });

  return app;
}
