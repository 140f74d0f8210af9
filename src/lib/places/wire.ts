import { z } from 'zod';
import { PlaceError, problemSchema, type ProblemKind } from '$lib/core/model/place.ts';
import { TIMES } from '$lib/core/delivery/outbox.ts';
import { withTimeLimit } from '$lib/timeLimit.ts';
import type { Fetched } from '$lib/workers/coreApi.ts';

/** Milliseconds: what a place is given to answer a call, and to take a file. */
const [ANSWER_LIMIT, FILE_LIMIT] = [TIMES.callLimit, 10 * 60_000];

/** Reads another site's page or feed through the guarded route of our own server. */
export function readAddress(url: string, signal?: AbortSignal): Promise<Fetched> {
  const path = `/api/read?url=${encodeURIComponent(url)}`;
  return call(path, {}, url, signal, async (answer) => ({
    url: answer.headers.get('x-read-url') ?? url,
    contentType: answer.headers.get('x-read-type') ?? '',
    bytes: new Uint8Array(await answer.arrayBuffer())
  }));
}

/** Part of a file: its bytes, and how many the whole has. */
export interface FilePart {
  bytes: Uint8Array<ArrayBuffer>;
  total: number;
}

/**
 * Reads part of a file of another site through the guarded route of our own server. A site that knows no
 * parts gives the whole, where that is not too large.
 * @param from first byte
 * @param to last byte
 */
export function readPart(
  url: string,
  from: number,
  to: number,
  signal: AbortSignal
): Promise<FilePart> {
  const path = `/api/read?url=${encodeURIComponent(url)}&from=${from}&to=${to}`;
  return call(path, {}, url, signal, async (answer) => {
    const bytes = new Uint8Array(await answer.arrayBuffer());
    const told = /\/(\d+)$/.exec(answer.headers.get('x-read-range') ?? '')?.[1];
    return { bytes, total: told ? Number(told) : bytes.length };
  });
}

export interface Sent {
  status: number;
  location: string;
  body: unknown;
}

/**
 * Calls a place directly from the browser, which its policy allows for connected places: for
 * files, which are too large to go through our own server.
 * @param read what is wanted of the answer, read within the time limit
 * @throws PlaceError unless the place answered with success in time
 */
export function callDirectly<T>(
  url: string,
  init: RequestInit,
  key: string,
  read: (answer: Response) => T | Promise<T>
): Promise<T> {
  const limit = init.body instanceof FormData ? FILE_LIMIT : ANSWER_LIMIT;
  return hidingKey(key, () =>
    withTimeLimit(limit, undefined, async (signal) => {
      const headers = { ...init.headers, ...(key && { authorization: `Bearer ${key}` }) };
      const answer = await fetchOrProblem(url, { ...init, headers, signal }, url);
      if (answer.ok) return read(answer);
      const body: unknown = await answer.json().catch(() => '');
      const retryAfter = Number(answer.headers.get('retry-after')) || null;
      throw new PlaceError({ ...problemOf({ status: answer.status, body, retryAfter }), url });
    })
  );
}

/** Does something with a key. What a place says is kept in the journal and told by mail: not the key. */
async function hidingKey<T>(key: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof PlaceError) || key.length < SHORTEST_KEY) throw error;
    const { problem } = error;
    const hidden = (text: string) =>
      [key, encodeURIComponent(key)].reduce((all, k) => all.replaceAll(k, '•••'), text);
    throw new PlaceError({ ...problem, detail: hidden(problem.detail), url: hidden(problem.url) });
  }
}
/** A shorter one would hide parts of words. */
const SHORTEST_KEY = 4;

export const sendRequestSchema = z.object({
  url: z.string(),
  method: z.enum(['GET', 'POST']),
  /** The key of the place; it goes to that place's origin and nowhere else. */
  key: z.string().optional(),
  json: z.unknown().optional(),
  /** Instead of JSON: a message (RFC 5322). */
  message: z.string().optional()
});
export type SendRequest = z.infer<typeof sendRequestSchema>;

const sentSchema = z.object({
  status: z.number(),
  location: z.string(),
  retryAfter: z.number().nullable(),
  body: z.unknown()
});

/**
 * Calls a program interface of a place through our own server.
 * @throws PlaceError unless the place answered with success
 */
export async function sendTo(request: SendRequest, signal?: AbortSignal): Promise<Sent> {
  const init = {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(request)
  };
  return hidingKey(request.key ?? '', async () => {
    const sent = await call('/api/send', init, request.url, signal, async (answer) =>
      sentSchema.parse(await answer.json())
    );
    if (sent.status >= 400) throw new PlaceError({ ...problemOf(sent), url: request.url });
    return sent;
  });
}

const errorBodySchema = z.object({
  error: z.string().catch(''),
  error_description: z.string().catch('')
});

function problemOf({
  status,
  body,
  retryAfter
}: Pick<z.infer<typeof sentSchema>, 'status' | 'body' | 'retryAfter'>) {
  const said = errorBodySchema.safeParse(body).data;
  const detail = (
    said?.error_description ||
    said?.error ||
    (typeof body === 'string' ? body : '')
  ).slice(0, 300);
  const kind = kindOf(status, said?.error ?? '');
  return { kind, status, detail, retryAfter };
}

function kindOf(status: number, error: string): ProblemKind {
  if (status === 401 || error === 'unauthorized' || error === 'invalid_token') return 'key-refused';
  if (error === 'insufficient_scope') return 'right-missing';
  if (error === 'quota_exceeded') return 'over-quota';
  if (status === 413 || error === 'too_large') return 'too-large';
  if (status === 404 || status === 410) return 'not-found';
  if (status === 429 || status === 503) return 'busy';
  return status >= 500 ? 'server-error' : 'refused';
}

/** A call of our own server; its problems come as JSON. */
function call<T>(
  path: string,
  init: RequestInit,
  url: string,
  outer: AbortSignal | undefined,
  read: (answer: Response) => Promise<T>
): Promise<T> {
  return withTimeLimit(ANSWER_LIMIT, outer, async (signal) => {
    const answer = await fetchOrProblem(path, { ...init, signal }, url);
    if (answer.ok) return read(answer);
    const said = z
      .object({ problem: problemSchema })
      .safeParse(await answer.json().catch(() => null));
    throw new PlaceError(
      said.data?.problem ?? { kind: 'server-error', url, status: answer.status }
    );
  });
}

async function fetchOrProblem(path: string, init: RequestInit, url: string): Promise<Response> {
  try {
    return await fetch(path, init);
  } catch (error) {
    const isStopped = error instanceof DOMException && error.name === 'AbortError';
    throw new PlaceError({ kind: isStopped ? 'stopped' : 'no-answer', url });
  }
}
