import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { absoluteAddress, keyAddress } from '$lib/core/feeds/address.ts';
import { problemAnswer, refuseForeign } from '$lib/server/answers.ts';
import { askOutside } from '$lib/server/outside.ts';
import { outsidePolicy } from '$lib/server/policy.ts';
import type { RequestHandler } from './$types.js';

const requestSchema = z.object({
  url: z.string(),
  method: z.enum(['GET', 'POST']),
  key: z
    .string()
    .regex(/^[\x21-\x7e]*$/)
    .optional(),
  json: z.unknown().optional(),
  message: z.string().max(100_000).optional()
});
const LIMITS = { size: 4 * 1024 * 1024, time: 15_000, redirects: 0 };

/** Calls a program interface of a linked place. The key is used for this call and not kept. */
export const POST: RequestHandler = async ({ request, url }) => {
  const refusal = refuseForeign(request, url.origin);
  if (refusal) return refusal;
  const asked = requestSchema.safeParse(await request.json().catch(() => null));
  if (!asked.success) return json({ problem: { kind: 'bad-address' } }, { status: 400 });
  const { key, json: body, message, method, url: address } = asked.data;
  if (key && !keyAddress(address))
    return json({ problem: { kind: 'forbidden-address', url: address } }, { status: 403 });
  const written = message ?? asJson(body);
  if (written === null) return json({ problem: { kind: 'too-large' } }, { status: 413 });
  try {
    const outside = await askOutside(
      {
        url: address,
        method,
        headers: {
          accept: 'application/json',
          ...(key && { authorization: `Bearer ${key}` }),
          ...(body !== undefined && { 'content-type': 'application/json' }),
          ...(message !== undefined && { 'content-type': 'message/rfc822' })
        },
        body: written
      },
      outsidePolicy(),
      request.signal,
      LIMITS
    );
    const location = outside.headers.location ?? '';
    return json({
      status: outside.status,
      // An address of another scheme is not handed on.
      location: absoluteAddress(location, outside.url),
      retryAfter: retryAfter(outside.headers['retry-after']),
      body: readBody(outside.bytes)
    });
  } catch (error) {
    return problemAnswer(error);
  }
};

/** @returns null where it is nested too deeply to be written */
function asJson(body: unknown): string | undefined | null {
  try {
    return JSON.stringify(body);
  } catch {
    return null;
  }
}

/** Seconds, from a number or a date. */
function retryAfter(header: string | undefined): number | null {
  if (!header) return null;
  const seconds = /^\d+$/.test(header) ? Number(header) : (Date.parse(header) - Date.now()) / 1000;
  return Number.isFinite(seconds) ? Math.max(0, Math.ceil(seconds)) : null;
}

function readBody(bytes: Uint8Array): unknown {
  const text = new TextDecoder().decode(bytes);
  try {
    return JSON.parse(text);
  } catch {
    return text.slice(0, 300);
  }
}
