import { randomBytes } from 'node:crypto';
import { readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Hono, type Context } from 'hono';
import type { World } from '../context.ts';
import { allowOthers } from '../cors.ts';
import { scopesOf } from '../keys.ts';
import { readMessage, type Message } from './message.ts';
import { listPage, messagePage, missingPage, NAME } from './pages.ts';

/** The key that reads the mailbox. It is public: this is a rehearsal. */
const KEYS: Record<string, string[]> = { 'wrenfold-mailbox-key': ['read', 'delete'] };
const MOST_BYTES = 24_000_000;
const PAGE = 50;

const ADDRESS = 'studio@wrenfold.example';

/**
 * A mailbox. Whoever likes may deliver a message (RFC 5322), as by mail; reading takes a key. A
 * message that comes twice under one Message-ID is kept once.
 */
export function mailbox(world: World): Hono {
  const app = new Hono();
  const base = `${world.origin}/mailbox/`;
  const file = (id: string) => join(world.store.folder, 'mail', `${id}.eml`);
  const refuse = (c: Context, status: 400 | 401 | 403 | 404 | 413, error: string, why: string) =>
    c.json({ error, error_description: why }, status);
  const noKey = (c: Context) =>
    refuse(c, 401, 'unauthorized', 'The key is missing, unknown or has expired.');
  const find = (id: string | undefined) => world.store.state.messages.find((m) => m.id === id);
  const newest = () => world.store.state.messages.toSorted((a, b) => b.at - a.at);

  app.get('/', (c) => c.html(listPage(base, newest())));
  app.get('/read/:id', async (c) => {
    const message = find(c.req.param('id'));
    const read = message && (await readMessage(await readFile(file(message.id))));
    return read ? c.html(messagePage(base, read)) : c.html(missingPage(base), 404);
  });
  app.get('/about.json', (c) =>
    c.json({ name: NAME, address: ADDRESS, messages: `${base}messages` })
  );

  app.use('/messages/*', allowOthers('GET', 'DELETE'));
  app.post('/messages', async (c) => {
    const type = (c.req.header('content-type') ?? '').split(';')[0];
    if (type !== 'message/rfc822')
      return refuse(c, 400, 'invalid_request', 'Messages of the type message/rfc822 are taken.');
    const raw = new Uint8Array(await c.req.arrayBuffer());
    if (raw.byteLength > MOST_BYTES)
      return refuse(c, 413, 'too_large', `A message has at most ${MOST_BYTES} bytes here.`);
    const read = await readMessage(raw);
    if (!read) return refuse(c, 400, 'invalid_request', 'This is no message.');
    if (world.store.state.faults.overQuota)
      return refuse(c, 403, 'quota_exceeded', 'The mailbox is full.');
    const known = world.store.state.messages.find((m) => m.messageId === read.messageId);
    const id = known?.id ?? randomBytes(6).toString('hex');
    await writeFile(file(id), raw);
    const message: Message = {
      id,
      messageId: read.messageId ?? '',
      inReplyTo: read.inReplyTo ?? '',
      from: read.from?.address ?? '',
      subject: read.subject ?? '',
      at: world.now()
    };
    await world.store.change((state) => {
      state.messages = [...state.messages.filter((m) => m.id !== id), message];
    });
    return c.body(null, 201, { location: `${base}read/${id}` });
  });

  app.get('/messages', (c) => {
    if (!scopesOf(c, world, KEYS)) return noKey(c);
    const to = c.req.query('in-reply-to');
    const id = c.req.query('message-id');
    const messages = newest()
      .filter((m) => (!to || m.inReplyTo === to) && (!id || m.messageId === id))
      .slice(0, PAGE);
    return c.json({
      messages: messages.map((m) => ({
        url: `${base}read/${m.id}`,
        raw: `${base}messages/${m.id}`,
        messageId: m.messageId,
        inReplyTo: m.inReplyTo,
        at: new Date(m.at).toISOString()
      }))
    });
  });
  app.get('/messages/:id', async (c) => {
    if (!scopesOf(c, world, KEYS)) return noKey(c);
    const message = find(c.req.param('id'));
    if (!message) return refuse(c, 404, 'not_found', 'There is no such message.');
    const raw = new Uint8Array(await readFile(file(message.id)));
    return c.body(raw, 200, { 'content-type': 'message/rfc822' });
  });
  app.delete('/messages/:id', async (c) => {
    if (!scopesOf(c, world, KEYS)) return noKey(c);
    const message = find(c.req.param('id'));
    if (!message) return refuse(c, 404, 'not_found', 'There is no such message.');
    await world.store.change((state) => {
      state.messages = state.messages.filter((m) => m.id !== message.id);
    });
    await rm(file(message.id), { force: true });
    return c.body(null, 204);
  });
  return app;
}
