import type { Target } from '$lib/core/lanes/settle.ts';
import type { Payload } from '$lib/core/lanes/outbox.ts';
import { toProblem } from '$lib/core/lanes/outbox.ts';
import { stepSchema, type Step } from '$lib/core/model/step.ts';
import { db } from './db.ts';

/** Letters that are kept of each text that was sent, and steps that are kept of one entry. */
const [MOST_LETTERS, MOST_STEPS] = [1_200, 40];

export const stepsOf = (key: string): Promise<Step[]> => db.steps.where({ key }).sortBy('id');

async function note(step: Omit<Step, 'at' | 'id'>): Promise<void> {
  await db.steps.add(stepSchema.parse({ ...step, at: new Date().toISOString() }));
  const ids = await db.steps.where({ key: step.key }).primaryKeys();
  if (ids.length > MOST_STEPS)
    await db.steps.bulkDelete(ids.sort((a, b) => a - b).slice(0, ids.length - MOST_STEPS));
}

const shortened = (_name: string, value: unknown): unknown =>
  typeof value === 'string' && value.length > MOST_LETTERS
    ? `${value.slice(0, MOST_LETTERS)}… (${value.length} letters)`
    : value;

/** A place whose every call is noted down, with its answer. */
export function noted(target: Target, key: string): Target {
  const tell = async <T>(did: Step['did'], sent: string, call: () => Promise<T>): Promise<T> => {
    try {
      const answer = await call();
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
    findByKey: (k) => tell('find', k, () => target.findByKey(k)),
    place: (payload, k) => tell('place', text(payload), () => target.place(payload, k)),
    replace: (url, payload, k) =>
      tell('replace', `${url}\n${text(payload)}`, () => target.replace(url, payload, k)),
    remove: (url, k) => tell('remove', url, () => target.remove(url, k)),
    ...(target.prepare && {
      prepare: (payload: Payload) =>
        tell('prepare', '', () => target.prepare?.(payload) ?? Promise.resolve())
    })
  };
}
