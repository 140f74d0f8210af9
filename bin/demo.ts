/**
 * Starts the built application and the rehearsal hosts in one process and prints the address.
 * Called by `bin/demo`; `--reset` starts the world anew, `--empty` leaves the browser unlinked,
 * `--recent` leaves
 * the uploads and posts of earlier years out; `--world DIR` and `--port N` are for tests.
 */
import { createServer } from 'node:http';
import { rm } from 'node:fs/promises';
import { createServer as createProbe } from 'node:net';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { NETWORKS } from '../hosts/network/kinds.ts';
import { startHosts } from '../hosts/serve.ts';
import { loadApplication } from './application.ts';

const { values } = parseArgs({
  options: {
    reset: { type: 'boolean', default: false },
    empty: { type: 'boolean', default: false },
    recent: { type: 'boolean', default: false },
    world: { type: 'string', default: '.world' },
    port: { type: 'string' }
  }
});
const HOST = '127.0.0.1';
/** Tried first, so that the browser finds its data again; any free one otherwise. */
const USUAL = { app: 4810, hosts: 4811 };

function isFree(port: number): Promise<boolean> {
  return new Promise((done) => {
    const probe = createProbe();
    probe.once('error', () => done(false));
    probe.listen(port, HOST, () => probe.close(() => done(true)));
  });
}
const choose = async (usual: number): Promise<number> =>
  values.port === undefined && (await isFree(usual)) ? usual : 0;

const folder = resolve(values.world);
const hasBackCatalogue = !values.recent;
if (values.reset) await rm(folder, { recursive: true, force: true });
let hosts = await startHosts({ port: await choose(USUAL.hosts), folder, hasBackCatalogue });

const server = createServer();
const wanted = values.port === undefined ? await choose(USUAL.app) : Number(values.port);
await new Promise<void>((done) => server.listen(wanted, HOST, done));
const address = server.address();
const origin = `http://${HOST}:${typeof address === 'object' && address ? address.port : wanted}`;

process.env.ORIGIN = origin;
process.env.HOST = HOST;
process.env.BODY_SIZE_LIMIT = '8M';
process.env.REHEARSAL_ORIGIN = hosts.origin;
if (!values.empty) {
  process.env.DEMO_WORLD = JSON.stringify({
    places: [
      { address: `${hosts.origin}/channel/`, key: 'wrenfold-loomworks-key' },
      { address: `${hosts.origin}/blog/`, key: 'wrenfold-notebook-key' }
    ],
    networks: NETWORKS.map(({ path }) => ({
      address: `${hosts.origin}/${path}/`,
      key: 'wrenfold-updates-key'
    })),
    mailbox: { address: `${hosts.origin}/mailbox/`, key: 'wrenfold-mailbox-key' },
    byHand: [{ title: 'Board at the Mill Gate', url: `${hosts.origin}/board/` }],
    setAside: [
      `${hosts.origin}/channel/watch/bobbin-in-forty-seconds`,
      `${hosts.origin}/blog/posts/open-studio-dates`
    ]
  });
}
server.on('request', await loadApplication());

console.log(`Swift Twin is at ${origin}`);
console.log(`The rehearsal hosts are at ${hosts.origin}/control/`);
console.log('Stop with Ctrl C.');
const stop = () => process.exit(0);
/** The hosts alone end and begin again, as a host does whose machine is restarted. */
process.on('SIGHUP', () => {
  void (async () => {
    const port = Number(new URL(hosts.origin).port);
    await hosts.close();
    hosts = await startHosts({ port, folder, hasBackCatalogue });
    console.log('The rehearsal hosts have begun again.');
  })();
});
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
