import { Resvg } from '@resvg/resvg-js';
import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { fileURLToPath } from 'node:url';
import { Hono } from 'hono';
import { html } from 'hono/html';
import type { World } from '../context.ts';
import { clothSvg } from '../world/drawdown.ts';
import { toWebVtt } from '../world/speech.ts';
import { playlists } from '../world/world.ts';
import { channelFeed, THUMBNAIL_WIDTHS, thumbnails } from './feed.ts';
import * as pages from './pages.ts';
import { filesFolder } from './receive.ts';

const ATOM = { 'Content-Type': 'application/atom+xml; charset=utf-8' };
const VTT = { 'Content-Type': 'text/vtt; charset=utf-8', 'Access-Control-Allow-Origin': '*' };
const NAME = 'Wrenfold Loomworks';

/** The rehearsal channel. */
export function channel(world: World): Hono {
  const app = new Hono();
  const feedUrl = `${world.channelUrl}feed.xml`;
  const pictures = new Map<string, Uint8Array>();

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

  app.get('/thumbnails/:id/:file', async (c) => {
    const video = world.reachable(c.req.param('id'));
    const size = Number(/^(\d+)\.png$/.exec(c.req.param('file'))?.[1]);
    if (!video || !THUMBNAIL_WIDTHS.includes(size)) return c.notFound();
    const sent = world.uploadOf(video.id)?.thumbnail;
    if (sent) {
      // Kept in one size: the picture as it was sent stands for all of them.
      const bytes = await readFile(join(filesFolder(world), sent));
      return c.body(new Uint8Array(bytes), 200, {
        'Content-Type': 'image/png',
        'Access-Control-Allow-Origin': '*'
      });
    }
    const short = Math.round((size * 9) / 16);
    const name = `${video.id}/${size}`;
    let png = pictures.get(name);
    if (!png) {
      const svg = video.upright
        ? clothSvg(video.draft, short, size)
        : clothSvg(video.draft, size, short);
      pictures.set(name, (png = new Resvg(svg).render().asPng()));
    }
    return c.body(new Uint8Array(png), 200, {
      'Content-Type': 'image/png',
      'Cache-Control': 'max-age=3600',
      'Access-Control-Allow-Origin': '*'
    });
  });

  app.get('/videos/:id/captions.vtt', (c) => {
    const video = world.reachable(c.req.param('id'));
    if (!video || !world.isOut(video) || video.cues.length === 0) return c.notFound();
    return c.body(toWebVtt(video.cues, `Captions of ${video.title}`), 200, VTT);
  });

  app.get('/videos/:id/chapters.vtt', (c) => {
    const video = world.reachable(c.req.param('id'));
    if (!video || !world.isOut(video)) return c.notFound();
    const rows = pages.chaptersShown(video).map((ch) => ({ ...ch, text: ch.title }));
    return rows.length
      ? c.body(toWebVtt(rows, `Chapters of ${video.title}`), 200, VTT)
      : c.notFound();
  });

  app.get('/videos/:id/clip.webm', async (c) => {
    const video = world.reachable(c.req.param('id'));
    if (!video || !world.isOut(video)) return c.notFound();
    const file = world.uploadOf(video.id)?.file;
    const path = file
      ? join(filesFolder(world), file.name)
      : fileURLToPath(new URL(`../world/clips/${video.id}.webm`, import.meta.url));
    const { size } = await stat(path);
    const asked = /^bytes=(\d*)-(\d*)$/.exec(c.req.header('range') ?? '');
    const suffix = asked && !asked[1] ? Number(asked[2]) : 0;
    const start = suffix ? Math.max(0, size - suffix) : Number(asked?.[1] ?? 0);
    const end = suffix || !asked?.[2] ? size - 1 : Math.min(size - 1, Number(asked[2]));
    if (start > end) return c.body(null, 416, { 'Content-Range': `bytes */${size}` });
    const body = Readable.toWeb(createReadStream(path, { start, end })) as ReadableStream;
    return c.body(body, asked ? 206 : 200, {
      'Content-Type': file?.type ?? 'video/webm',
      'Content-Length': String(end - start + 1),
      'Accept-Ranges': 'bytes',
      'Access-Control-Allow-Origin': '*',
      ...(asked && { 'Content-Range': `bytes ${start}-${end}/${size}` })
    });
  });

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
