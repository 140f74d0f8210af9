import { z } from 'zod';
import { withSpan, type LogSpan } from '$lib/core/reach/log/span.ts';
import { readSetting, saveSetting } from './settings.ts';

const schema = z
  .array(z.object({ from: z.number(), to: z.number(), inLast: z.number() }))
  .catch([]);
const nameOf = (placeId: string) => `reach/log-spans/${placeId}`;

/** The stretches of time of which logs of a blog were imported. */
export const readSpans = (placeId: string): Promise<LogSpan[]> =>
  readSetting(nameOf(placeId), schema);
export const restoreSpans = (placeId: string, spans: readonly LogSpan[]): Promise<unknown> =>
  saveSetting(nameOf(placeId), spans);
export const addSpan = async (placeId: string, span: LogSpan): Promise<unknown> =>
  restoreSpans(placeId, withSpan(await readSpans(placeId), span));
