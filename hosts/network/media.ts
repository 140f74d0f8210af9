import { Hono } from 'hono';
import { createHash } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { ALL_FORMATS, BufferSource, Input } from 'mediabunny';
import type { World } from '../context.ts';
import { scopesOf } from '../keys.ts';
import { UPDATE_KEYS, type NetworkKind } from './kinds.ts';

const ENDINGS: Readonly<Record<string, string>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/webp': 'webp',
  'video/webm': 'webm',
  'video/mp4': 'mp4'
};
const MOST_PICTURE = 8_000_000;

/**
 * Takes pictures and clips for updates that are to follow (ActivityPub's `uploadMedia`). The same
 * file comes to the same address, however often it is sent.
 */
export function networkMedia(world: World, { path, limits }: NetworkKind, base: string): Hono {
  const app = new Hono();
  app.post('/', async (c) => {
    const refuse = (status: 400 | 401 | 403 | 413, error: string, error_description: string) =>
      c.json({ error, error_description }, status);
    const scopes = scopesOf(c, world, UPDATE_KEYS);
    if (!scopes) return refuse(401, 'unauthorized', 'The key is missing, unknown or has expired.');
    const { file } = await c.req.parseBody();
    if (!(file instanceof File)) return refuse(400, 'invalid_request', 'There is no file.');
    const type = file.type.split(';')[0] ?? '';
    const ending = ENDINGS[type];
    const isClip = type.startsWith('video/');
    if (!ending || (isClip && !limits.clip?.types.includes(type)))
      return refuse(400, 'invalid_request', `Files of the type ${type} are not taken here.`);
    const most = isClip ? (limits.clip?.bytes ?? 0) : MOST_PICTURE;
    if (file.size > most) return refuse(413, 'too_large', `Files have at most ${most} bytes here.`);
    const bytes = Buffer.from(await file.arrayBuffer());
    const seconds = isClip ? await secondsOf(bytes) : 0;
    if (isClip && seconds > (limits.clip?.seconds ?? 0))
      return refuse(400, 'invalid_request', `Clips have at most ${limits.clip?.seconds} seconds.`);
    const digest = createHash('sha256').update(bytes).digest('hex').slice(0, 20);
    const name = `${path}-${digest}.${ending}`;
    await writeFile(join(world.store.folder, 'media', name), bytes);
    await world.store.change((state) => {
      if (!state.media.some((m) => m.name === name)) state.media.push({ name, type });
    });
    return c.body(null, 201, { location: `${base}media/${name}` });
  });

  app.get('/:name', async (c) => {
    const entry = world.store.state.media.find((m) => m.name === c.req.param('name'));
    if (!entry?.name.startsWith(`${path}-`)) return c.notFound();
    const bytes = await readFile(join(world.store.folder, 'media', entry.name));
    return c.body(new Uint8Array(bytes), 200, {
      'content-type': entry.type,
      'x-content-type-options': 'nosniff'
    });
  });
  return app;
}

/** How long a clip is; without end where it cannot be read. */
async function secondsOf(bytes: Uint8Array): Promise<number> {
  const input = new Input({ formats: ALL_FORMATS, source: new BufferSource(bytes) });
  return input.computeDuration().catch(() => Infinity);
}
