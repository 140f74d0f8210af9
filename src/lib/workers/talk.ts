import { wrap, type Remote } from 'comlink';
import type { TalkWorker } from './talk.worker.ts';

let remote: Remote<TalkWorker> | null = null;
let apart: Remote<TalkWorker> | null = null;

const start = (): Remote<TalkWorker> =>
  wrap<TalkWorker>(new Worker(new URL('./talk.worker.ts', import.meta.url), { type: 'module' }));

/** The worker that turns what is said into text, with its models; started when first used. */
export function talkWorker(): Remote<TalkWorker> {
  remote ??= start();
  return remote;
}

/** The same for what is made without the desk, so that the talk on the desk stays as it is. */
export function lanesTalkWorker(): Remote<TalkWorker> {
  apart ??= start();
  return apart;
}
