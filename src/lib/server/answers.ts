import { json } from '@sveltejs/kit';
import { PlaceError, type ProblemKind } from '$lib/core/model/place.ts';

const STATUS: Partial<Record<ProblemKind, number>> = {
  'bad-address': 400,
  'forbidden-address': 403,
  'not-found': 404,
  'too-large': 413,
  'timed-out': 504
};

/** A problem as an answer of our own routes. */
export function problemAnswer(error: unknown): Response {
  if (!(error instanceof PlaceError)) throw error;
  return json({ problem: error.problem }, { status: STATUS[error.problem.kind] ?? 502 });
}

/**
 * Refuses calls that are not made by our own pages. Browsers tell from where a call comes; what does
 * not tell is no page of ours.
 */
export function refuseForeign(request: Request, origin: string): Response | null {
  const site = request.headers.get('sec-fetch-site');
  const from = request.headers.get('origin');
  const isTold = site !== null || from !== null;
  const isOurs =
    isTold && (site === null || site === 'same-origin') && (from === null || from === origin);
  return isOurs ? null : new Response('This route serves the application itself.', { status: 403 });
}
