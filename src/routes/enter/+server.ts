import { redirect } from '@sveltejs/kit';
import { setup } from '$lib/server/policy.ts';
import { isPassword, Visitors } from '$lib/server/visitors.ts';
import { enterPage } from '$lib/server/enterPage.ts';
import type { RequestHandler } from './$types.js';

/** Tries at the password that one address has in a minute. */
const tries = new Visitors({ atOnce: 2, aMinute: 10 });

const answer = (problem: string, status: number): Response => {
  const { html, policy } = enterPage(problem);
  const headers = {
    'Content-Type': 'text/html; charset=utf-8',
    'Content-Security-Policy': policy,
    'Cache-Control': 'no-store'
  };
  return new Response(html, { status, headers });
};

export const GET: RequestHandler = ({ locals }) => {
  if (!setup().password || locals.session.hasEntered) redirect(303, '/');
  return answer('', 200);
};

export const POST: RequestHandler = async ({ request, locals, getClientAddress }) => {
  const leave = tries.enter(getClientAddress());
  if (!leave) return answer('Too many tries. Wait a minute, then try again.', 429);
  try {
    const form = await request.formData().catch(() => null);
    if (!isPassword(String(form?.get('password') ?? ''), setup()))
      return answer('That is not the password. Try again.', 403);
    locals.session.hasEntered = true;
    await locals.session.save();
  } finally {
    leave();
  }
  redirect(303, '/');
};
