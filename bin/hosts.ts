/** Starts the rehearsal hosts alone: `node build/bin/hosts.js [port]`. */
import { resolve } from 'node:path';
import { startHosts } from '../hosts/serve.ts';

const hosts = await startHosts({
  port: Number(process.argv[2] ?? 0),
  folder: resolve('.world'),
  hasBackCatalogue: true
});
console.log(`The rehearsal hosts are at ${hosts.origin}`);
