import { PlaceError } from '$lib/core/model/place.ts';
import { problemAnswer, refuseForeign } from '$lib/server/answers.ts';
import { askOutside } from '$lib/server/outside.ts';
import { outsidePolicy } from '$lib/server/policy.ts';
import type { RequestHandler } from './$types.js';

const ACCEPT =
  'text/html, application/atom+xml, application/rss+xml, application/feed+json, text/vtt, */*;q=0.5';

/** Reads another site's page, feed or captions for the browser. The bytes are never shown as a page. */
export const GET: RequestHandler = async ({ request, url }) => {
  const refusal = refuseForeign(request, url.origin);
  if (refusal) return refusal;
  try {
    const address = url.searchParams.get('url') ?? '';
    const range = rangeOf(url.searchParams.get('from'), url.searchParams.get('to'));
    const call = { url: address, method: 'GET', headers: { accept: ACCEPT, ...range } } as const;
    const outside = await askOutside(call, outsidePolicy(), request.signal);
    if (outside.status >= 400) throw statusProblem(outside.status, outside.url, outside.headers);
    return new Response(outside.bytes, {
      headers: {
        'Content-Type': 'application/octet-stream',
        'X-Content-Type-Options': 'nosniff',
        'Content-Security-Policy': "default-src 'none'; sandbox",
        'Cache-Control': 'no-store',
        'X-Read-Url': outside.url,
        'X-Read-Range': outside.headers['content-range'] ?? '',
        'X-Read-Type': (outside.headers['content-type'] ?? '').replace(/[^\x20-\x7e]/g, '')
      }
    });
  } catch (error) {
    return problemAnswer(error);
  }
};

/** A part of a file, by its first and last byte. */
function rangeOf(from: string | null, to: string | null): Record<string, string> {
  const isRange = /^\d{1,15}$/.test(from ?? '') && /^\d{1,15}$/.test(to ?? '');
  return isRange ? { range: `bytes=${from}-${to}`, 'accept-encoding': 'identity' } : {};
}

function statusProblem(status: number, url: string, headers: Record<string, string>): PlaceError {
  const kind =
    status === 404 || status === 410
      ? 'not-found'
      : status === 429 || status === 503
        ? 'busy'
        : status >= 500
          ? 'server-error'
          : 'refused';
  return new PlaceError({ kind, url, status, retryAfter: Number(headers['retry-after']) || null });
}
