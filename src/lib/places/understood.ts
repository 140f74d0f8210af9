import type { z } from 'zod';
import { PlaceError } from '$lib/core/model/place.ts';

/**
 * What a place answered, by the schema of what it should answer.
 * @param url what was called
 * @throws PlaceError `not-understood` where the answer is anything else: it is never taken for an
 * empty one
 */
export function understood<T>(schema: z.ZodType<T>, answer: unknown, url: string): T {
  const read = schema.safeParse(answer);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  const where = issue?.path.join('.') ?? '';
  const detail = issue ? `${where ? `${where}: ` : ''}${issue.message}` : '';
  throw new PlaceError({ kind: 'not-understood', url, detail: detail.slice(0, 300) });
}
