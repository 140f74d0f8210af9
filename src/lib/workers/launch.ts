import { wrap, type Remote } from 'comlink';

/** A worker that is started when it is first used. */
export interface Launcher<T> {
  (): Remote<T>;
  /** Ends the worker with all that it holds; it starts anew when it is used again. */
  end(): void;
}

/**
 * Readies a worker to be started when it is first used.
 * @param start makes the worker; its address must stand there, for the build to find it
 */
export function launch<T>(start: () => Worker): Launcher<T> {
  let worker: Worker | null = null;
  let remote: Remote<T> | null = null;
  const launcher = () => (remote ??= wrap<T>((worker = start())));
  const end = () => {
    worker?.terminate();
    worker = remote = null;
  };
  return Object.assign(launcher, { end });
}
