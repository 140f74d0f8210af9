import assert from 'node:assert/strict';

/** Seconds no attack may reach: what hung took minutes. How fast readers are is for `npm run bench`. */
const HANGS = 20;

/** Does the work, which must not hang. */
export function endsSoon<T>(work: () => T): T {
  const begun = performance.now();
  const result = work();
  const took = (performance.now() - begun) / 1000;
  assert.ok(took < HANGS, `took ${took.toFixed(1)} s`);
  return result;
}
