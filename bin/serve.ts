/**
 * Starts the built application, called by `bin/serve`: on this machine alone, or with `HOST`, `ORIGIN`
 * and `PASSWORD` beyond it.
 */
import { createServer } from 'node:http';
import { loadApplication } from './application.ts';

const { env } = process;
env.HOST ??= '127.0.0.1';
env.PORT ??= '4810';
env.BODY_SIZE_LIMIT ??= '8M';

const server = createServer();
await new Promise<void>((done, fail) => {
  server.once('error', fail);
  server.listen(Number(env.PORT), env.HOST, done);
}).catch((error: Error) => {
  console.error(`Swift Twin is not started: ${error.message}. Set PORT to another one.`);
  process.exit(1);
});
const address = server.address();
const port = typeof address === 'object' && address ? address.port : env.PORT;
if (env.HOST === '127.0.0.1') env.ORIGIN ??= `http://127.0.0.1:${port}`;
try {
  server.on('request', await loadApplication());
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
console.log(`Swift Twin is at ${env.ORIGIN}, and listens at http://${env.HOST}:${port}`);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => process.exit(0));
