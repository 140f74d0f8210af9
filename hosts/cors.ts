import type { MiddlewareHandler } from 'hono';
import { cors } from 'hono/cors';

/** Lets pages of other origins call, with a key that they hold; cookies are not used here. */
export const allowOthers = (...allowMethods: string[]): MiddlewareHandler =>
  cors({
    origin: '*',
    allowMethods,
    allowHeaders: ['authorization', 'content-type'],
    exposeHeaders: ['location', 'retry-after']
  });
