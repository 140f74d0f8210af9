import { toProblem } from './retry.ts';
import {
  afterCommand,
  beforeCommand,
  nextCommand,
  type Command,
  type Held,
  type OutboxEntry,
  type Outcome
} from './outbox.ts';
import { isChange, type Payload } from './payload.ts';

/** The place as the outbox needs it. Each call may throw a PlaceError. */
export interface Target {
  /** Address of the item that carries this key, drafts included, or null. */
  findByKey(key: string): Promise<string | null>;
  /** @returns the address of the new item */
  publish(payload: Payload, key: string): Promise<string>;
  /** @returns the address, which may have changed */
  update(url: string, payload: Payload, key: string): Promise<string>;
  /** @param payload what was published: a change to an item is taken back, not the item */
  remove(url: string, key: string, payload: Payload): Promise<void>;
  /**
   * Readies what the place needs before it can take the payload, such as its files. It places
   * nothing, so it may be done any number of times and take any time.
   */
  prepare?(payload: Payload): Promise<void>;
  /** What stands at an address now, or null where that cannot be told or is nothing. */
  look?(url: string): Promise<Held | null>;
  /** Whether what stands there is what was sent, but for how the place writes it. */
  isAsSent?(held: Pick<Held, 'fingerprint'>, sent: Payload): boolean;
}

/** Where entries are kept. `save` resolves when the entry is safe. */
export interface EntryStore {
  load(key: string): Promise<OutboxEntry | null>;
  /** Saves what was learned, unless a newer wish was written in between: that one keeps its wish. */
  save(entry: OutboxEntry): Promise<void>;
}

export interface Surroundings {
  store: EntryStore;
  target: Target;
  /** Milliseconds since 1970. */
  now(): number;
  /** Between 0 and 1. */
  chance(): number;
}

/**
 * Works on one entry until it is delivered or has to wait. The caller sees to it that only one
 * holder at a time works on a key.
 * @returns the entry as it was last saved, or null if there is none
 */
export async function deliver(
  key: string,
  surroundings: Surroundings
): Promise<OutboxEntry | null> {
  const { store, target, now, chance } = surroundings;
  let looked = false;
  for (;;) {
    const entry = await store.load(key);
    if (!entry) return null;
    const command = nextCommand(entry, looked, now());
    if (command.do === 'wait') {
      const waiting: OutboxEntry = { ...entry, state: 'waiting', nextTry: command.until };
      await store.save(waiting);
      return waiting;
    }
    if (command.do === 'nothing') {
      if (entry.state !== 'waiting' && entry.state !== 'sending') return entry;
      const gone: OutboxEntry = { ...entry, state: 'removed', updated: now() };
      await store.save(gone);
      return gone;
    }
    const unready = await ready(command, entry, target);
    if (unready) {
      await store.save(afterCommand(entry, { do: 'find' }, unready, now(), chance()));
      continue;
    }
    const begun = beforeCommand(entry, command, now());
    await store.save(begun);
    const outcome =
      (await changedThere(command, begun, target)) ?? (await carryOut(command, begun, target));
    looked = outcome.came === 'not-found' ? true : command.do === 'find' ? looked : false;
    const after = afterCommand(begun, command, outcome, now(), chance());
    await store.save(after);
    if (outcome.came === 'published') await noteHeld(after, begun, target, store);
  }
}

/**
 * What somebody made of an item at its place since it was last sent: it is never overwritten unseen.
 * @returns null where nothing speaks against the update
 */
async function changedThere(
  command: Command,
  { held, sent, payload }: OutboxEntry,
  target: Target
): Promise<Outcome | null> {
  if (command.do !== 'update' || !target.look || isChange(payload)) return null;
  if (!held && !sent) return null;
  try {
    const there = await target.look(command.url);
    if (!there || there.fingerprint === held) return null;
    if (!held && sent && target.isAsSent?.(there, sent)) return null;
    return { came: 'changed', theirs: there };
  } catch (error) {
    return { came: 'problem', problem: toProblem(error) };
  }
}

/**
 * Notes how the place holds what it took, so that a later change by hand is told from it. Where it held the version
 * before just as it was sent and not this one, somebody may have been there between the two calls: nothing is noted, and
 * the next update compares with what was sent.
 */
async function noteHeld(
  after: OutboxEntry,
  { held, sent }: OutboxEntry,
  target: Target,
  store: EntryStore
): Promise<void> {
  if (!target.look || isChange(after.payload)) return;
  // Where it cannot be read now, the next update compares with what was sent as well.
  const there = await target.look(after.url).catch(() => null);
  if (!there) return;
  const isAsSent = (fingerprint: string, payload: Payload) =>
    target.isAsSent?.({ fingerprint }, payload) ?? true;
  const wasAsSent = held !== '' && sent !== null && isAsSent(held, sent);
  if (wasAsSent && !isAsSent(there.fingerprint, after.payload)) return;
  await store.save({ ...after, held: there.fingerprint });
}

/** The problem that keeps a command from being begun, or null. */
async function ready(
  command: Command,
  entry: OutboxEntry,
  target: Target
): Promise<Outcome | null> {
  if (!target.prepare || (command.do !== 'publish' && command.do !== 'update')) return null;
  try {
    await target.prepare(entry.payload);
    return null;
  } catch (error) {
    return { came: 'problem', problem: toProblem(error) };
  }
}

async function carryOut(command: Command, entry: OutboxEntry, target: Target): Promise<Outcome> {
  try {
    switch (command.do) {
      case 'find': {
        const url = await target.findByKey(entry.key);
        return url === null ? { came: 'not-found' } : { came: 'found', url };
      }
      case 'publish': {
        const url = await target.publish(entry.payload, entry.key);
        return { came: 'published', url, revision: entry.revision };
      }
      case 'update': {
        const url = await target.update(command.url, entry.payload, entry.key);
        return { came: 'published', url, revision: entry.revision };
      }
      case 'remove':
        await target.remove(command.url, entry.key, entry.payload);
        return { came: 'removed' };
      default:
        throw new Error(`Nothing to carry out: ${command.do}`);
    }
  } catch (error) {
    return { came: 'problem', problem: toProblem(error) };
  }
}
