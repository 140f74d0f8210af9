import type { Handle } from '@sveltejs/kit';
import { FRAME_COOKIE, originsFromCookie } from '$lib/data/linkedOrigins.ts';
import { rehearsalOrigin } from '$lib/server/policy.ts';

/**
 * Lets the page frame and show what comes from linked places, and only from those. Which they are
 * is known to the browser alone; it tells with a cookie of this origin.
 */
export const handle: Handle = async ({ event, resolve }) => {
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
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'strict-origin-when-cross-origin');
  return response;
};
