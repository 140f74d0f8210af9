import 'fake-indexeddb/auto';
import { expose } from 'comlink';

/**
 * What work and delivery need of a browser, on Node: locks, frames, and workers that run in
 * the same thread, each behind a port of its own.
 * To be imported before anything of theirs.
 */
const held = new Set<string>();
const waiting = new Map<string, (() => void)[]>();

type Work<T> = (lock: { name: string } | null) => Promise<T>;

/** One holder of a name at a time, as the Web Locks API has it. */
async function request<T>(
  name: string,
  options: { ifAvailable?: boolean } | Work<T>,
  given?: Work<T>
): Promise<T> {
  const work = typeof options === 'function' ? options : given!;
  if (held.has(name)) {
    if (typeof options !== 'function' && options.ifAvailable) return work(null);
    await new Promise<void>((go) => waiting.set(name, [...(waiting.get(name) ?? []), go]));
  }
  held.add(name);
  try {
    return await work({ name });
  } finally {
    held.delete(name);
    waiting.get(name)?.shift()?.();
  }
}

/** What is to happen much later ends with the page: it does not keep the process from ending either. */
const later = globalThis.setTimeout;
globalThis.setTimeout = ((...given: Parameters<typeof later>) => {
  const timer = later(...given);
  if ((given[1] ?? 0) > 2_000) timer.unref();
  return timer;
}) as typeof later;

/** Ports that are listened to do not keep the process from ending when the tests of a file are done. */
Object.defineProperty(MessagePort.prototype, 'addEventListener', {
  value(this: MessagePort, ...listener: Parameters<EventTarget['addEventListener']>) {
    EventTarget.prototype.addEventListener.apply(this, listener);
    (this as unknown as NodeJS.RefCounted).unref();
  }
});

/** What `workers/<name>.worker.ts` offers, from `workers/<name>Api.ts`. */
class SameThreadWorker {
  readonly #port: MessagePort;

  constructor(url: URL) {
    const name = /([a-z]+)\.worker\.ts$/.exec(url.pathname)?.[1] ?? '';
    const { port1, port2 } = new MessageChannel();
    this.#port = port1;
    void import(`../src/lib/workers/${name}Api.ts`).then((module: Record<string, unknown>) => {
      const api = module[`${name}Api`];
      expose(typeof api === 'function' ? api() : api, port2);
    });
  }
  postMessage(message: unknown, transfer: Transferable[] = []) {
    this.#port.postMessage(message, transfer);
  }
  addEventListener(...listener: Parameters<MessagePort['addEventListener']>) {
    this.#port.addEventListener(...listener);
  }
  removeEventListener(...listener: Parameters<MessagePort['removeEventListener']>) {
    this.#port.removeEventListener(...listener);
  }
}

Object.defineProperty(globalThis, 'navigator', {
  value: { locks: { request } },
  configurable: true
});
Object.assign(globalThis, {
  Worker: SameThreadWorker,
  requestAnimationFrame: (frame: () => void) => setTimeout(frame, 0)
});
