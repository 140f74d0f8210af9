import { serve, type HttpBindings } from '@hono/node-server';
import { Hono } from 'hono';
import { ZodError } from 'zod';
import { board } from './board/board.ts';
import { blog } from './blog/blog.ts';
import { channel } from './channel/channel.ts';
import { channelMicropub } from './channel/micropub.ts';
import { receive } from './channel/receive.ts';
import { World } from './context.ts';
import { control } from './control.ts';
import { allowOthers } from './cors.ts';
import { faults } from './faults.ts';
import { mailbox } from './mailbox/mailbox.ts';
import { NETWORKS } from './network/kinds.ts';
import { network } from './network/network.ts';
import { noFaults, Store } from './state.ts';
import { worldCommentsAt, worldPostsAt } from './world/world.ts';

export interface Hosts {
  origin: string;
  close(): Promise<void>;
}

/**
 * Starts the rehearsal hosts on an origin of their own.
 * @param options.port 0 takes a free one
 * @param options.folder where their state is kept
 * @param options.hasBackCatalogue whether a world that begins now has uploads and posts of earlier years
 */
export async function startHosts(options: {
  port: number;
  folder: string;
  hostname?: string;
  hasBackCatalogue?: boolean;
}): Promise<Hosts> {
  const hostname = options.hostname ?? '127.0.0.1';
  const hasBackCatalogue = options.hasBackCatalogue ?? false;
  const app = new Hono<{ Bindings: HttpBindings }>({ strict: false });
  // The port is open before all routes are known; who calls in between waits.
  let begin = () => {};
  const stands = new Promise<void>((done) => (begin = done));
  const server = serve({
    fetch: (request, env) => stands.then(() => app.fetch(request, env)),
    port: options.port,
    hostname
  });
  await new Promise<void>((resolve, reject) => {
    server.once('listening', resolve);
    server.once('error', reject);
  });
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : options.port;
  const origin = `http://${hostname}:${port}`;

  const store = await Store.open(options.folder, origin, () => {
    const began = Date.now();
    return {
      origin,
      began,
      clockOffset: 0,
      faults: noFaults,
      hasBackCatalogue,
      posts: worldPostsAt(began, `${origin}/channel/`, hasBackCatalogue),
      media: [],
      titles: {},
      edits: {},
      uploads: [],
      updates: [],
      messages: [],
      notices: [],
      comments: worldCommentsAt(began)
    };
  });
  const world = new World(store, origin);
  app.get('/', (c) => c.redirect('/control/'));
  // Even what faults answer can be read by the pages that asked.
  for (const path of ['/mailbox/messages', ...NETWORKS.map((n) => `/${n.path}/media`)])
    app.use(path, allowOthers('GET', 'POST'));
  // Faults strike what programs call; the pages that people look at stay as they are.
  for (const path of [
    '/blog/micropub',
    '/blog/media',
    '/blog/token',
    '/blog/feed.xml',
    '/channel/feed.xml',
    '/channel/micropub',
    '/channel/token',
    ...NETWORKS.flatMap(({ path }) => [
      `/${path}/outbox`,
      `/${path}/media`,
      `/${path}/limits.json`
    ]),
    '/mailbox/messages'
  ]) {
    app.use(path, faults(store));
  }
  app.route('/control', control(world));
  app.route('/channel/uploads', receive(world));
  app.route('/channel', channelMicropub(world));
  app.route('/channel', channel(world));
  app.route('/blog', blog(world));
  app.route('/mailbox', mailbox(world));
  app.route('/board', board(world));
  for (const kind of NETWORKS) app.route(`/${kind.path}`, network(world, kind));
  app.onError((error, c) => {
    if (error instanceof ZodError) return c.text('The form is not complete.', 400);
    console.error(error);
    return c.text('The rehearsal hosts made a mistake.', 500);
  });
  begin();

  return {
    origin,
    close: () =>
      new Promise((resolve, reject) => {
        server.close((error) => (error ? reject(error) : resolve()));
        // A program that stops does not wait for those who are still talking to it.
        if ('closeAllConnections' in server) server.closeAllConnections();
      })
  };
}
