import { launch } from './launch.ts';
import type { TalkApi } from './talkApi.ts';

const start = (name: string): Worker =>
  new Worker(new URL('./talk.worker.ts', import.meta.url), { type: 'module', name });

/** The worker that turns what is said into text, with its models. */
export const talkWorker = launch<TalkApi>(() => start('talk'));

/** Another one, so that what lanes make does not hold up the desk. */
export const lanesTalkWorker = launch<TalkApi>(() => start('talk of lanes'));
