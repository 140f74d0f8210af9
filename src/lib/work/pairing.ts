import { onChange } from '$lib/data/changes.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { attempt } from './tasks.svelte.ts';

/** Milliseconds in which further changes are waited for. */
const SOON = 60;

/**
 * Keeps the twins true for as long as this page is open: whenever something changes that they
 * depend on, in whichever tab, they are paired anew. The only place that does.
 * @returns what ends it
 */
export function keepPaired(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let isPairing = false;
  let isStale = false;
  const pair = async (): Promise<void> => {
    if (isPairing) {
      isStale = true;
      return;
    }
    isPairing = true;
    isStale = false;
    await attempt(() => coreWorker().pairAgain());
    isPairing = false;
    if (isStale) soon();
  };
  const soon = () => {
    clearTimeout(timer);
    timer = setTimeout(() => void pair(), SOON);
  };
  const end = onChange(
    [
      'items',
      'decisions',
      'ties',
      'drafts',
      'narrations',
      'outbox',
      'transfers',
      'places',
      'details',
      'baselines'
    ],
    soon
  );
  // What changed while no page was open.
  soon();
  return () => {
    clearTimeout(timer);
    end();
  };
}
