import { wrap, type Remote } from 'comlink';
import type { TalkWorker } from './talk.worker.ts';

let remote: Remote<TalkWorker> | null = null;

/** The worker that turns what is said into text, with its models; started when first used. */
export function talkWorker(): Remote<TalkWorker> {
  remote ??= wrap<TalkWorker>(
    new Worker(new URL('./talk.worker.ts', import.meta.url), { type: 'module', name: 'talk' })
  );
  return remote;
}
