import { db } from './db.ts';

/**
 * Posts whose videos were being rendered when their page was closed, or still are. By itself, so that
 * looking for them at every start loads nothing of what videos are made of.
 */
export const runningRenders = (): Promise<string[]> =>
  db.renders.filter((r) => r.state === 'running').primaryKeys();
