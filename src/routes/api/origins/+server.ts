import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { plainOrigins } from '$lib/core/model/origins.ts';
import { refuseForeign } from '$lib/server/answers.ts';
import { rehearsalOrigin } from '$lib/server/policy.ts';
import type { RequestHandler } from './$types.js';

const originsSchema = z.array(z.string()).max(10_000);

/**
 * Keeps which origins are linked in this browser, for the policy of its pages.
 * @returns whether all were known before: if not, they may be framed by pages from now on
 */
export const PUT: RequestHandler = async ({ request, url, locals }) => {
  const refusal = refuseForeign(request, url.origin);
  if (refusal) return refusal;
  const asked = originsSchema.safeParse(await request.json().catch(() => null));
  if (!asked.success) return json({ problem: { kind: 'bad-address' } }, { status: 400 });
  const origins = plainOrigins(asked.data);
  const before = locals.session.origins ?? [];
  const known = new Set([...before, rehearsalOrigin()]);
  if (origins.join() !== before.join()) {
    locals.session.origins = origins;
    await locals.session.save();
  }
  return json({ wereKnown: origins.every((origin) => known.has(origin)) });
};
