import type { Lane } from '$lib/core/lanes/lane.ts';
import type { Foreseen } from '$lib/workers/lanesApi.ts';
import { lanesWorker } from '$lib/workers/lanes.ts';

/** Milliseconds in which further changes are waited for. */
const SOON = 150;

/**
 * What a lane would find as it is set, asked anew whenever it is set otherwise.
 * @param lane reads the lane
 */
export function foreseen(lane: () => Lane): { readonly value: Foreseen | null } {
  let value = $state.raw<Foreseen | null>(null);
  $effect(() => {
    const now = $state.snapshot(lane()) as Lane;
    let isOld = false;
    const timer = setTimeout(async () => {
      const found = await lanesWorker().foresee(now, Date.now());
      if (!isOld) value = found;
    }, SOON);
    return () => {
      isOld = true;
      clearTimeout(timer);
    };
  });
  return {
    get value() {
      return value;
    }
  };
}
