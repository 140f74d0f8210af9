import { wrap, type Remote } from 'comlink';
import { PlaceError } from '$lib/core/model/place.ts';

/** A worker that is started when it is first used. */
export interface Launcher<T> {
  (): Remote<T>;
  /** Ends the worker with all that it holds; it starts anew when it is used again. */
  end(): void;
}

/** Milliseconds between two looks at a worker that has something to do. */
const LOOK_EVERY = 5_000;
/** Milliseconds in which a worker has to answer that look, however busy it is. */
const PATIENCE = 60_000;
/** For workers that reckon with the user's own film and sound, which may take long on a slow machine. */
export const MEDIA_PATIENCE = 600_000;

/**
 * Readies a worker to be started when it is first used. One that does not come to itself for a minute,
 * as with input that was made to hold it up, is ended: its calls fail with `too-heavy`, and the next
 * call starts another one.
 * @param start makes the worker; its address must stand there, for the build to find it
 */
export function launch<T>(
  start: () => Worker,
  { lookEvery = LOOK_EVERY, patience = PATIENCE } = {}
): Launcher<T> {
  let running: { worker: Worker; remote: Remote<T>; forget: () => void } | null = null;
  const end = () => {
    running?.forget();
    running?.worker.terminate();
    running = null;
  };
  const begin = () => {
    const worker = start();
    const watched = watch(wrap<T>(worker), { lookEvery, patience }, () => {
      if (running?.worker === worker) end();
    });
    return { worker, ...watched };
  };
  const launcher = () => (running ??= begin()).remote;
  return Object.assign(launcher, { end });
}

type Call = (...given: unknown[]) => Promise<unknown>;

/** A remote whose calls fail when its worker does not answer any more. */
function watch<T>(
  remote: Remote<T>,
  { lookEvery, patience }: { lookEvery: number; patience: number },
  gaveUp: () => void
): { remote: Remote<T>; forget: () => void } {
  const waiting = new Set<(problem: PlaceError) => void>();
  let timer: ReturnType<typeof setTimeout> | undefined;

  const forget = () => clearTimeout(timer);
  const look = async () => {
    const late = setTimeout(() => {
      gaveUp();
      const problem = new PlaceError({ kind: 'too-heavy' });
      for (const fail of waiting) fail(problem);
      waiting.clear();
    }, patience);
    // Whatever is asked for is answered as soon as the worker comes to itself.
    await (remote as Record<string, unknown>).isAlive;
    clearTimeout(late);
    timer = waiting.size > 0 ? setTimeout(() => void look(), lookEvery) : undefined;
  };
  const watched = (call: Call): Call =>
    async function (...given) {
      let fail: (problem: PlaceError) => void = () => {};
      const hung = new Promise<never>((_, reject) => (fail = reject));
      waiting.add(fail);
      timer ??= setTimeout(() => void look(), lookEvery);
      try {
        return await Promise.race([call(...given), hung]);
      } finally {
        waiting.delete(fail);
      }
    };
  const calls = new Map<PropertyKey, Call>();
  return {
    forget,
    remote: new Proxy(remote as object, {
      get(target, name) {
        if (typeof name === 'symbol') return Reflect.get(target, name) as unknown;
        const call = calls.get(name) ?? watched(Reflect.get(target, name) as Call);
        calls.set(name, call);
        return call;
      }
    }) as Remote<T>
  };
}
