import { json, type Handle, type ServerInit } from '@sveltejs/kit';
import { dev } from '$app/environment';
import { FRAME_COOKIE, originsFromCookie } from '$lib/data/linkedOrigins.ts';
import { rehearsalOrigin, setup } from '$lib/server/policy.ts';
import { isOurName, mayEnter, setupProblem, Visitors } from '$lib/server/visitors.ts';

export const init: ServerInit = () => {
  const problem = dev ? '' : setupProblem(setup());
  if (problem) throw new Error(`Swift Twin is not started. ${problem}`);
};

const visitors = new Visitors();
/** Bytes of a body. */
const LARGEST_BODY = 8_000_000;

/** Only calls by our own name, of those who may, and not more of them than people make. */
export const handle: Handle = async (given) => {
  const { request, getClientAddress, url } = given.event;
  const { headers } = request;
  if (!dev && !isOurName(headers.get('host'), setup()))
    return new Response('This server has another name.', { status: 421 });
  if (!mayEnter(headers.get('authorization'), setup()))
    return new Response('Swift Twin asks for its password.', {
      status: 401,
      headers: { 'www-authenticate': 'Basic realm="Swift Twin", charset="UTF-8"' }
    });
  if (Number(headers.get('content-length') ?? 0) > LARGEST_BODY)
    return json({ problem: { kind: 'too-large' } }, { status: 413 });
  if (!url.pathname.startsWith('/api/')) return protectedAnswer(given);
  const leave = visitors.enter(getClientAddress());
  if (!leave)
    return json({ problem: { kind: 'busy' } }, { status: 429, headers: { 'retry-after': '10' } });
  try {
    return await protectedAnswer(given);
  } finally {
    leave();
  }
};

/**
 * Lets the page frame and show what comes from linked places, and only from those. Which they are
 * is known to the browser alone; it tells with a cookie of this origin.
 */
async function protectedAnswer({ event, resolve }: Parameters<Handle>[0]): Promise<Response> {
  const response = await resolve(event);
  const policy = response.headers.get('content-security-policy');
  if (
    policy &&
    response.headers.get('content-type')?.startsWith('text/html') &&
    !policy.includes('sandbox')
  ) {
    const linked = originsFromCookie(event.cookies.get(FRAME_COOKIE));
    const origins = [
      ...new Set([...linked, ...(rehearsalOrigin() ? [rehearsalOrigin()] : [])])
    ].join(' ');
    // Files go to channels straight from the browser, by tus.
    const widened = policy.replace("connect-src 'self'", `connect-src 'self' ${origins}`);
    response.headers.set(
      'content-security-policy',
      `${widened}; frame-src 'self' ${origins}; media-src 'self' blob: ${origins}; img-src 'self' data: blob: ${origins}`
    );
  }
  for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
  return response;
}

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'strict-origin-when-cross-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  // The booth records a voice; nothing else of the device is asked for.
  'permissions-policy':
    'camera=(), geolocation=(), microphone=(self), payment=(), usb=(), serial=(), bluetooth=(), midi=(), display-capture=()'
};
