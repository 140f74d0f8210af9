import { wrap, type Remote } from 'comlink';
import { PlaceError } from '$lib/core/model/place.ts';

/** A worker that is started when it is first used. */
export interface Launcher<T> {
  (): Remote<T>;
  /** Whether calls are under way. */
  isBusy(): boolean;
  /**
   * Ends the worker with all that it holds; it starts anew when it is used again. Calls that are under
   * way fail with `stopped`.
   */
  end(): void;
}

/** Milliseconds between two looks at a worker that has something to do. */
const LOOK_EVERY = 5_000;
/** Milliseconds in which a worker has to answer that look, however busy it is. */
const PATIENCE = 60_000;
/** For workers that reckon with the user's own film and sound, which may take long on a slow machine. */
export const MEDIA_PATIENCE = 600_000;
const NOT_LOADED = 'A part of this application could not be loaded. Is its server running?';
type ProblemFields = ConstructorParameters<typeof PlaceError>[0];

/**
 * Readies a worker to be started when it is first used. One that does not come to itself for a minute,
 * as with input that was made to hold it up, is ended: its calls fail with `too-heavy`, and the next
 * call starts another one. So it is with one whose program cannot be loaded, at once and with `internal`.
 * @param start makes the worker; its address must stand there, for the build to find it
 */
export function launch<T>(
  start: () => Worker,
  { lookEvery = LOOK_EVERY, patience = PATIENCE } = {}
): Launcher<T> {
  let running: { worker: Worker; watched: Watched<T> } | null = null;
  const endWith = (problem: ProblemFields) => {
    const ended = running;
    running = null;
    ended?.worker.terminate();
    ended?.watched.fail(problem);
  };
  const begin = () => {
    const worker = start();
    const endThis = (problem: ProblemFields) => {
      if (running?.worker === worker) endWith(problem);
    };
    let hasAnswered = false;
    worker.addEventListener('message', () => (hasAnswered = true));
    worker.addEventListener('error', () => {
      if (!hasAnswered) endThis({ kind: 'internal', detail: NOT_LOADED });
    });
    const giveUp = () => endThis({ kind: 'too-heavy' });
    return { worker, watched: watch(wrap<T>(worker), { lookEvery, patience }, giveUp) };
  };
  const launcher = () => (running ??= begin()).watched.remote;
  return Object.assign(launcher, {
    isBusy: () => running?.watched.isBusy() ?? false,
    end: () => endWith({ kind: 'stopped' })
  });
}

type Call = (...given: unknown[]) => Promise<unknown>;

interface Watched<T> {
  remote: Remote<T>;
  isBusy(): boolean;
  /** Fails all calls, those that are under way and those to come: the worker is not there any more. */
  fail(problem: ProblemFields): void;
}

/** A remote whose calls can be failed, and that is given up when its worker does not answer any more. */
function watch<T>(
  remote: Remote<T>,
  { lookEvery, patience }: { lookEvery: number; patience: number },
  giveUp: () => void
): Watched<T> {
  const waiting = new Set<(problem: PlaceError) => void>();
  let over: PlaceError | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let late: ReturnType<typeof setTimeout> | undefined;

  const fail = (fields: ProblemFields) => {
    clearTimeout(timer);
    clearTimeout(late);
    over = new PlaceError(fields);
    for (const failOne of waiting) failOne(over);
    waiting.clear();
  };
  const look = async () => {
    late = setTimeout(giveUp, patience);
    // Whatever is asked for is answered as soon as the worker comes to itself.
    await (remote as Record<string, unknown>).isAlive;
    clearTimeout(late);
    timer = waiting.size > 0 ? setTimeout(() => void look(), lookEvery) : undefined;
  };
  const watched = (call: Call): Call =>
    async function (...given) {
      if (over) throw over;
      let failThis: (problem: PlaceError) => void = () => {};
      const failed = new Promise<never>((_, reject) => (failThis = reject));
      waiting.add(failThis);
      timer ??= setTimeout(() => void look(), lookEvery);
      try {
        return await Promise.race([call(...given), failed]);
      } finally {
        waiting.delete(failThis);
      }
    };
  const calls = new Map<PropertyKey, Call>();
  return {
    isBusy: () => waiting.size > 0,
    fail,
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
