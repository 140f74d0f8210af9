import { PlaceError } from './core/model/place.ts';

/**
 * Does work that is given up after a time, whether it listens to its signal or not. The limit is a
 * timer of our own, not `AbortSignal.any` with `AbortSignal.timeout`: Node 20 collects those while
 * the call they should end still runs.
 * @param milliseconds after which the work is given up
 * @param outer stops it as well
 * @param detail what a person reads about a time-out
 * @returns what the work returns
 * @throws PlaceError `timed-out` when the time is over, `stopped` when `outer` is aborted
 */
export async function withTimeLimit<T>(
  milliseconds: number,
  outer: AbortSignal | undefined,
  work: (signal: AbortSignal) => Promise<T>,
  detail = ''
): Promise<T> {
  const controller = new AbortController();
  let end: (problem: PlaceError) => void = () => {};
  const over = new Promise<never>((_, reject) => {
    end = (problem) => {
      reject(problem);
      controller.abort(problem);
    };
  });
  // Whoever loses the race may still fail afterwards; nobody is left to hear of it.
  over.catch(() => {});
  const timer = setTimeout(
    () => end(new PlaceError({ kind: 'timed-out', detail })),
    Math.min(milliseconds, MAX_TIMER)
  );
  const stop = () => end(new PlaceError({ kind: 'stopped' }));
  outer?.addEventListener('abort', stop);
  if (outer?.aborted) stop();
  try {
    const working = work(controller.signal);
    working.catch(() => {});
    return await Promise.race([working, over]);
  } finally {
    clearTimeout(timer);
    outer?.removeEventListener('abort', stop);
    controller.abort();
  }
}

/** Milliseconds that a timer takes at most. */
const MAX_TIMER = 2 ** 31 - 1;
