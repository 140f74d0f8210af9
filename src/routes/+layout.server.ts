import { env } from '$env/dynamic/private';
import { rehearsalOrigin, setup } from '$lib/server/policy.ts';
import type { LayoutServerLoad } from './$types.js';

/** What the demo begins with, as its starter wrote it into the environment; null without a demo. */
export const load: LayoutServerLoad = () => ({
  demo: env.DEMO_WORLD ? (JSON.parse(env.DEMO_WORLD) as unknown) : null,
  rehearsal: rehearsalOrigin(),
  hasPassword: setup().password !== ''
});
