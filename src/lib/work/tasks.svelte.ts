import { toProblem } from '$lib/core/delivery/retry.ts';
import { PlaceError, type Problem } from '$lib/core/model/place.ts';

/** Something that takes time and can be stopped. */
export interface Task {
  id: number;
  label: string;
  /** What it is at, in a few words. */
  step: string;
  /** Between 0 and 1, or null while the end is not known. */
  done: number | null;
  stop(): void;
}

/** Milliseconds between two reports that are shown. */
const TELL_EVERY = 100;
let next = 1;
const running = $state<Task[]>([]);

/** The work in progress, as the deck shows it. */
export const tasks = {
  get running(): readonly Task[] {
    return running;
  }
};

export type Report = (step: string, done?: number) => void;

/**
 * Runs work under the eyes of the deck.
 * @param outer stops it as well
 * @throws PlaceError `stopped` when the user stops it
 */
export async function runTask<T>(
  label: string,
  work: (signal: AbortSignal, report: Report) => Promise<T>,
  outer?: AbortSignal
): Promise<T> {
  const controller = new AbortController();
  const stop = () => controller.abort();
  if (outer?.aborted) stop();
  outer?.addEventListener('abort', stop);
  const id = next++;
  running.push({ id, label, step: '', done: null, stop });
  const task = running.at(-1);
  try {
    let reportedAt = 0;
    return await work(controller.signal, (step, done) => {
      // A page that draws progress takes time from the work itself.
      if (!task || performance.now() - reportedAt < TELL_EVERY) return;
      reportedAt = performance.now();
      task.step = step;
      task.done = done ?? null;
    });
  } catch (error) {
    if (controller.signal.aborted) throw new PlaceError({ kind: 'stopped' });
    throw error;
  } finally {
    outer?.removeEventListener('abort', stop);
    const at = running.findIndex((t) => t.id === id);
    if (at >= 0) running.splice(at, 1);
  }
}

/** Runs work and gives its problem as data. */
export async function attempt<T>(
  work: () => Promise<T>
): Promise<{ value: T; problem: null } | { value: null; problem: Problem }> {
  try {
    return { value: await work(), problem: null };
  } catch (error) {
    return { value: null, problem: toProblem(error) };
  }
}
