import { Resvg } from '@resvg/resvg-js';
import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { fileURLToPath } from 'node:url';
import { Hono } from 'hono';
import type { World } from '../context.ts';
import { sceneSvg } from '../world/scenes.ts';
import { toWebVtt } from '../world/speech.ts';
import { ROOT } from '../root.ts';
import { THUMBNAIL_WIDTHS } from './feed.ts';
import * as pages from './pages.ts';
import { filesFolder } from './receive.ts';

const VTT = { 'Content-Type': 'text/vtt; charset=utf-8', 'Access-Control-Allow-Origin': '*' };

/** Thumbnails, captions, chapters and clips. */
export function channelFiles(world: World): Hono {
  const app = new Hono();
  const pictures = new Map<string, Uint8Array>();

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
      const svg = video.upright ? sceneSvg(video, short, size) : sceneSvg(video, size, short);
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
      : fileURLToPath(new URL(`hosts/world/clips/${video.clip ?? video.id}.webm`, ROOT));
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

  return app;
}
