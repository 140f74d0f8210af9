import type { Render } from '$lib/core/narration/narration.ts';
import { db } from './db.ts';

/**
 * Posts whose videos were being rendered when their page was closed, or still are. By itself, so that
 * looking for them at every start loads nothing of what videos are made of.
 */
export const runningRenders = (): Promise<string[]> =>
  db.renders.filter((r) => r.state === 'running').primaryKeys();

/** All of them, those that were made last first. */
export async function rendersByTime(): Promise<Pick<Render, 'id' | 'state'>[]> {
  const renders = await db.renders.toArray();
  return renders.sort((a, b) => b.changed.localeCompare(a.changed));
}
