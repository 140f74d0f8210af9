import { lookup } from 'node:dns';
import { Agent, request, type Dispatcher } from 'undici';
import { PlaceError } from '$lib/core/model/place.ts';
import { withTimeLimit } from '$lib/timeLimit.ts';
import { checkedUrl, ForbiddenAddress, publicOnly, type Policy } from './addresses.ts';

export interface Limits {
  /** Bytes, milliseconds, number. */
  size: number;
  time: number;
  redirects: number;
}

export const READ_LIMITS: Limits = { size: 16 * 1024 * 1024, time: 15_000, redirects: 5 };

export interface Outside {
  url: string;
  status: number;
  headers: Record<string, string>;
  bytes: Uint8Array<ArrayBuffer>;
}

const guarded = new Agent({ connect: { lookup: publicOnly(lookup), timeout: 8_000 } });
const unguarded = new Agent({ connect: { timeout: 8_000 } });

/** All that is ever told of us; nothing of the user's own request is passed on. */
const OUR_HEADERS = { 'user-agent': 'SwiftTwin/0.1 (reads what its user links)' };

interface Call {
  url: string;
  method: 'GET' | 'POST';
  headers?: Record<string, string>;
  body?: string;
}

/**
 * Asks another site, with its guards: only http(s), only public addresses, before and after each
 * redirect, within limits of size and time. Redirects are followed for reading only.
 * @throws PlaceError
 */
export async function askOutside(
  call: Call,
  policy: Policy,
  signal: AbortSignal,
  limits: Limits = READ_LIMITS
): Promise<Outside> {
  return withTimeLimit(limits.time, signal, (deadline) =>
    followRedirects(call, policy, limits, deadline, signal)
  );
}

async function followRedirects(
  call: Call,
  policy: Policy,
  limits: Limits,
  deadline: AbortSignal,
  signal: AbortSignal
): Promise<Outside> {
  let url = checkedUrl(call.url, policy);
  for (let redirects = 0; ; redirects++) {
    const answer = await ask(url, call, policy, deadline, signal);
    const location = headerOf(answer, 'location');
    const isRedirect = [301, 302, 303, 307, 308].includes(answer.statusCode) && location !== '';
    if (!isRedirect || call.method !== 'GET' || 'authorization' in (call.headers ?? {})) {
      return {
        url: url.href,
        status: answer.statusCode,
        headers: flat(answer.headers),
        bytes: await bodyOf(answer, url, limits, signal)
      };
    }
    await answer.body.dump({ limit: 0 }).catch(() => {});
    if (redirects >= limits.redirects)
      throw new PlaceError({ kind: 'too-many-redirects', url: url.href });
    if (!URL.canParse(location, url.href))
      throw new PlaceError({ kind: 'bad-address', url: location });
    url = checkedUrl(new URL(location, url).href, policy);
  }
}

async function ask(
  url: URL,
  call: Call,
  policy: Policy,
  deadline: AbortSignal,
  stopped: AbortSignal
) {
  try {
    return await request(url, {
      method: call.method,
      headers: { ...OUR_HEADERS, ...call.headers },
      body: call.body,
      signal: deadline,
      dispatcher: policy.excepted.has(url.origin) ? unguarded : guarded
    });
  } catch (error) {
    throw asProblem(error, url, stopped);
  }
}

/** Bytes that are made ready for an answer at first. */
const START_SIZE = 16_384;

async function bodyOf(
  answer: Dispatcher.ResponseData,
  url: URL,
  limits: Limits,
  stopped: AbortSignal
): Promise<Uint8Array<ArrayBuffer>> {
  const tooLarge = new PlaceError({ kind: 'too-large', url: url.href });
  if (Number(headerOf(answer, 'content-length')) > limits.size) {
    answer.body.on('error', () => {});
    answer.body.destroy();
    throw tooLarge;
  }
  // Copied as they come: a small piece would keep the large buffer that it was cut from.
  let bytes = new Uint8Array(START_SIZE);
  let size = 0;
  try {
    for await (const chunk of answer.body as AsyncIterable<Uint8Array>) {
      if (size + chunk.length > limits.size) throw tooLarge;
      if (size + chunk.length > bytes.length) {
        const larger = new Uint8Array(Math.max(size + chunk.length, 2 * bytes.length));
        larger.set(bytes.subarray(0, size));
        bytes = larger;
      }
      bytes.set(chunk, size);
      size += chunk.length;
    }
  } catch (error) {
    throw asProblem(error, url, stopped);
  }
  return bytes.slice(0, size);
}

function asProblem(error: unknown, url: URL, stopped: AbortSignal): PlaceError {
  if (error instanceof PlaceError) return error;
  const causes = [error, error instanceof Error ? error.cause : undefined];
  if (causes.some((e) => e instanceof ForbiddenAddress)) {
    return new PlaceError({ kind: 'forbidden-address', url: url.href });
  }
  if (stopped.aborted) return new PlaceError({ kind: 'stopped', url: url.href });
  const code = causes
    .map((e) => (e instanceof Error && 'code' in e ? String(e.code) : ''))
    .join(' ');
  const name = error instanceof Error ? error.name : '';
  const isLate = name === 'TimeoutError' || name === 'AbortError' || /TIMEOUT/.test(code);
  return new PlaceError({
    kind: isLate ? 'timed-out' : 'no-answer',
    url: url.href,
    detail: code.trim()
  });
}

function headerOf(answer: Dispatcher.ResponseData, name: string): string {
  const value = answer.headers[name];
  return (Array.isArray(value) ? value[0] : value) ?? '';
}

function flat(headers: Dispatcher.ResponseData['headers']): Record<string, string> {
  return Object.fromEntries(
    Object.entries(headers).map(([name, value]) => [
      name,
      Array.isArray(value) ? value.join(', ') : (value ?? '')
    ])
  );
}
