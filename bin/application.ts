import type { RequestListener } from 'node:http';
import { ROOT } from '../hosts/root.ts';
import { HEADERS } from '../src/lib/server/headers.ts';

/**
 * The built application, as it is set up by the environment (`ORIGIN`, `HOST`, `PASSWORD`). Its files
 * are served before its own code is asked, so what every answer says is set in front of both.
 */
export async function loadApplication(): Promise<RequestListener> {
  const built = new URL('build/handler.js', ROOT).href;
  const { handler } = (await import(built)) as { handler: RequestListener };
  return (request, response) => {
    for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
    handler(request, response);
  };
}
