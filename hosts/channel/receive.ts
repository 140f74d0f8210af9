import { FileStore } from '@tus/file-store';
import { Server, type Upload as Received } from '@tus/server';
import type { HttpBindings } from '@hono/node-server';
import { ALL_FORMATS, FilePathSource, Input } from 'mediabunny';
import { Hono } from 'hono';
import { mkdirSync } from 'node:fs';
import { copyFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { World } from '../context.ts';
import { scopesOfHeader } from '../keys.ts';
import { CHANNEL_KEYS } from './micropub.ts';

const MOST_BYTES = 4 * 1024 ** 3;

/** Where finished files lie. */
export const filesFolder = (world: World): string => join(world.store.folder, 'uploads');

/** Takes files by tus 1.0 (resumable uploads); their metadata say which video they belong to. */
export function receive(world: World): Hono<{ Bindings: HttpBindings }> {
  const app = new Hono<{ Bindings: HttpBindings }>();
  const folder = filesFolder(world);
  mkdirSync(folder, { recursive: true });
  const refuse = (status_code: number, body: string) => ({ status_code, body });
  const server = new Server({
    path: '/channel/uploads',
    datastore: new FileStore({ directory: folder }),
    maxSize: MOST_BYTES,
    allowedHeaders: ['Authorization'],
    async onIncomingRequest(request) {
      if (request.method === 'OPTIONS') return;
      const scopes = scopesOfHeader(request.headers.get('authorization'), world, CHANNEL_KEYS);
      if (!scopes) throw refuse(401, 'The key is missing, unknown or has expired.');
      if (!scopes.includes('media')) throw refuse(403, 'The key may not send files.');
    },
    async onUploadCreate(_request, upload) {
      if (world.store.state.faults.overQuota)
        throw refuse(403, 'The allowance of uploads for this month is used up.');
      if (!find(world, upload))
        throw refuse(400, 'The metadata name no video: send its uid first, by Micropub.');
      return {};
    },
    async onUploadFinish(_request, upload) {
      await finish(world, upload);
      return {};
    }
  });

  app.all('/*', async (c) => {
    const { cutUploads } = world.store.state.faults;
    const isPart = c.req.method === 'PATCH';
    if (!isPart || cutUploads === 0) return server.handleWeb(c.req.raw);
    await world.store.change((state) => {
      state.faults.cutUploads--;
    });
    // Half of what was announced is taken in, then the line goes dead.
    const announced = Number(c.req.header('content-length') ?? 0);
    const raw = c.req.raw;
    const cut = new Request(raw.url, {
      method: raw.method,
      headers: raw.headers,
      body: raw.body?.pipeThrough(cutAfter(announced / 2, () => c.env.outgoing.destroy())) ?? null,
      duplex: 'half'
    } as RequestInit);
    await Promise.resolve(server.handleWeb(cut)).catch(() => {});
    c.env.outgoing.destroy();
    return new Response(null, { headers: { 'x-hono-already-sent': 'true' } });
  });
  return app;
}

function cutAfter(bytes: number, cut: () => void): TransformStream<Uint8Array, Uint8Array> {
  let passed = 0;
  return new TransformStream({
    transform(chunk, controller) {
      if (passed >= bytes) {
        cut();
        controller.terminate();
        return;
      }
      passed += chunk.byteLength;
      controller.enqueue(chunk);
    }
  });
}

const find = (world: World, upload: Received) =>
  world.store.state.uploads.find((u) => !u.deleted && u.uid === upload.metadata?.uid);

/** A file is in whole: it is looked at and given to its video. */
async function finish(world: World, received: Received): Promise<void> {
  const video = find(world, received);
  if (!video || !received.id) return;
  const path = join(filesFolder(world), received.id);
  const now = world.now();
  if (received.metadata?.role === 'thumbnail') {
    await copyFile(path, `${path}.png`);
    await world.store.change((state) => {
      const kept = state.uploads.find((u) => u.id === video.id);
      if (kept) kept.thumbnail = `${received.id}.png`;
    });
    return;
  }
  const seen = await look(path);
  await world.store.change((state) => {
    const kept = state.uploads.find((u) => u.id === video.id);
    if (!kept) return;
    kept.received = now;
    kept.trouble = seen ? '' : 'The file is no video that this channel can read.';
    if (seen)
      kept.file = {
        name: received.id,
        bytes: received.size ?? 0,
        type: received.metadata?.filetype ?? 'video/webm',
        ...seen
      };
  });
}

async function look(path: string) {
  try {
    using input = new Input({ source: new FilePathSource(path), formats: ALL_FORMATS });
    const track = await input.getPrimaryVideoTrack();
    if (!track) return null;
    return {
      duration: await input.computeDuration(),
      width: await track.getDisplayWidth(),
      height: await track.getDisplayHeight()
    };
  } catch {
    return null;
  }
}
