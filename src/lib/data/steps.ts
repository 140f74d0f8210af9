import { toProblem } from '$lib/core/delivery/retry.ts';
import type { Target } from '$lib/core/delivery/deliver.ts';
import type { Payload } from '$lib/core/delivery/payload.ts';

import { stepSchema, type Step } from '$lib/core/model/step.ts';
import { db } from './db.ts';

/** Letters that are kept of each text that was sent, and steps that are kept of one entry. */
const [MAX_LETTERS, MAX_STEPS] = [1_200, 40];

export const stepsOf = (key: string): Promise<Step[]> => db.steps.where({ key }).sortBy('id');

async function note(step: Omit<Step, 'at' | 'id'>): Promise<void> {
  await db.steps.add(stepSchema.parse({ ...step, at: new Date().toISOString() }));
  const ids = await db.steps.where({ key: step.key }).primaryKeys();
  if (ids.length > MAX_STEPS)
    await db.steps.bulkDelete(ids.sort((a, b) => a - b).slice(0, ids.length - MAX_STEPS));
}

const shortened = (_name: string, value: unknown): unknown =>
  typeof value === 'string' && value.length > MAX_LETTERS
    ? `${value.slice(0, MAX_LETTERS)}… (${value.length} letters)`
    : value;

/** A place whose every call is written down, with its answer. */
export function recorded(target: Target, key: string): Target {
  const call = async <T>(did: Step['did'], sent: string, work: () => Promise<T>): Promise<T> => {
    try {
      const answer = await work();
      await note({
        key,
        did,
        sent,
        answered: answer === null ? 'nothing' : String(answer ?? 'done')
      });
      return answer;
    } catch (error) {
      const { kind, status, detail } = toProblem(error);
      await note({ key, did, sent, answered: [kind, status ?? '', detail].join(' ').trim() });
      throw error;
    }
  };
  const text = (payload: Payload) => JSON.stringify(payload, shortened, 1);
  return {
    findByKey: (k) => call('find', k, () => target.findByKey(k)),
    publish: (payload, k) => call('publish', text(payload), () => target.publish(payload, k)),
    update: (url, payload, k) =>
      call('update', `${url}\n${text(payload)}`, () => target.update(url, payload, k)),
    remove: (url, k, payload) => call('remove', url, () => target.remove(url, k, payload)),
    ...(target.look && { look: (url: string) => target.look?.(url) ?? Promise.resolve(null) }),
    ...(target.isAsSent && { isAsSent: (held, sent) => target.isAsSent?.(held, sent) ?? false }),
    ...(target.prepare && {
      prepare: (payload: Payload) =>
        call('prepare', '', () => target.prepare?.(payload) ?? Promise.resolve())
    })
  };
}
