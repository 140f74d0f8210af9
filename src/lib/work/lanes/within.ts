import { PlaceError } from '$lib/core/model/place.ts';

/**
 * Does work that is given up after some minutes, whether it listens to its signal or not.
 * @throws PlaceError `timed-out` when the time is over, `stopped` when `outer` is aborted
 */
export async function within<T>(
  minutes: number,
  outer: AbortSignal,
  work: (signal: AbortSignal) => Promise<T>
): Promise<T> {
  const controller = new AbortController();
  const over = new Promise<never>((_, reject) => {
    const end = (problem: PlaceError) => {
      reject(problem);
      controller.abort();
    };
    const timer = setTimeout(
      () =>
        end(
          new PlaceError({
            kind: 'timed-out',
            detail: `Making it took longer than ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}.`
          })
        ),
      minutes * 60_000
    );
    const stop = () => end(new PlaceError({ kind: 'stopped' }));
    outer.addEventListener('abort', stop);
    controller.signal.addEventListener('abort', () => {
      clearTimeout(timer);
      outer.removeEventListener('abort', stop);
    });
    if (outer.aborted) stop();
  });
  try {
    return await Promise.race([work(controller.signal), over]);
  } finally {
    controller.abort();
  }
}
