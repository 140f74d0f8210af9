import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { PlaceError } from '../model/place.ts';
import {
  mergeSaved,
  newEntry,
  retryNow,
  TIMES,
  wantAnew,
  type OutboxEntry,
  type PostPayload
} from './outbox.ts';
import { settle, type Shelf, type Target } from './settle.ts';

const payload = (title: string): PostPayload => ({
  ...{ title, html: '', slug: '', excerpt: '', author: '', categories: [], tags: [] },
  ...{ comments: 'open', picture: null, status: 'draft', date: null }
});

/** What befalls one call or one save. */
type Fate =
  | 'well'
  | 'fails-before'
  | 'done-answer-lost'
  | 'done-late'
  | 'answers-500-after'
  | 'busy'
  | 'crash-before'
  | 'crash-after';

class Crash extends Error {}

/** A place, a shelf and a clock, all under the rule of a list of fates. */
class World {
  now = 1_000_000;
  readonly items = new Map<string, { key: string; title: string }>();
  readonly shelved = new Map<string, OutboxEntry>();
  late: { at: number; act: () => void }[] = [];
  made = 0;

  constructor(
    readonly fates: Fate[],
    readonly delays: number[]
  ) {}

  advance(ms: number): void {
    this.now += ms;
    const due = this.late.filter((l) => l.at <= this.now).sort((a, b) => a.at - b.at);
    this.late = this.late.filter((l) => l.at > this.now);
    for (const { act } of due) act();
  }

  #fate(): Fate {
    return this.fates.shift() ?? 'well';
  }

  async #call<T>(act: () => T, isWrite: boolean): Promise<T> {
    const fate = this.#fate();
    this.advance(50);
    if (fate === 'crash-before') throw new Crash();
    if (fate === 'fails-before') throw new PlaceError({ kind: 'server-error' });
    if (fate === 'busy') throw new PlaceError({ kind: 'busy', retryAfter: 3 });
    if (isWrite && fate === 'done-late') {
      const delay = this.delays.shift() ?? TIMES.callLimit - 100;
      this.late.push({ at: this.now + delay, act: () => void attemptLate(act) });
      throw new PlaceError({ kind: 'timed-out' });
    }
    if (!isWrite && fate === 'done-late') throw new PlaceError({ kind: 'timed-out' });
    const result = act();
    if (fate === 'crash-after') throw new Crash();
    if (fate === 'done-answer-lost') throw new PlaceError({ kind: 'no-answer' });
    if (fate === 'answers-500-after') throw new PlaceError({ kind: 'server-error' });
    return result;
  }

  readonly target: Target = {
    findByKey: (key) =>
      this.#call(() => [...this.items].find(([, item]) => item.key === key)?.[0] ?? null, false),
    place: (sent, key) =>
      this.#call(() => {
        const url = `https://b.example/${++this.made}`;
        this.items.set(url, { key, title: sent.title });
        return url;
      }, true),
    replace: (url, sent, key) =>
      this.#call(() => {
        if (!this.items.has(url)) throw new PlaceError({ kind: 'not-found' });
        this.items.set(url, { key, title: sent.title });
        return url;
      }, true),
    remove: (url) =>
      this.#call(() => {
        if (!this.items.delete(url)) throw new PlaceError({ kind: 'not-found' });
      }, true)
  };

  readonly shelf: Shelf = {
    load: async (key) => this.shelved.get(key) ?? null,
    save: async (entry) => {
      this.shelved.set(entry.key, mergeSaved(this.shelved.get(entry.key) ?? null, entry));
    }
  };

  async settle(key: string): Promise<void> {
    try {
      await settle(key, {
        shelf: this.shelf,
        target: this.target,
        now: () => this.now,
        chance: () => 0.5
      });
    } catch (error) {
      // The tab is gone; what it had written down is all that is left of it.
      if (!(error instanceof Crash)) throw error;
    }
  }
}

function attemptLate(act: () => unknown): void {
  try {
    act();
  } catch {
    // A late call that finds nothing to change changes nothing.
  }
}

const KEY = 'key-1';
const anEntry = (world: World) =>
  newEntry({ key: KEY, itemId: 'v', placeId: 'b', payload: payload('first') }, world.now);

test('one item, its address known', async () => {
  const world = new World([], []);
  await world.shelf.save(anEntry(world));
  await world.settle(KEY);
  const entry = world.shelved.get(KEY);
  assert.equal(entry?.state, 'placed');
  assert.deepEqual([...world.items.values()], [{ key: KEY, title: 'first' }]);
  assert.ok(entry && world.items.has(entry.url));
});

test('placing again replaces, removing removes, and placing after that makes one once more', async () => {
  const world = new World([], []);
  await world.shelf.save(anEntry(world));
  await world.settle(KEY);
  const change = (apply: (entry: OutboxEntry) => OutboxEntry) => {
    world.shelved.set(KEY, apply(world.shelved.get(KEY)!));
    return world.settle(KEY);
  };
  await change((e) => wantAnew(e, { wanted: 'placed', payload: payload('second') }, world.now));
  assert.deepEqual(
    [...world.items.values()].map((i) => i.title),
    ['second']
  );
  await change((e) => wantAnew(e, { wanted: 'removed' }, world.now));
  assert.equal(world.items.size, 0);
  assert.equal(world.shelved.get(KEY)?.state, 'removed');
  await change((e) => wantAnew(e, { wanted: 'placed', payload: payload('third') }, world.now));
  assert.deepEqual(
    [...world.items.values()].map((i) => i.title),
    ['third']
  );
});

test('a refusal is told and not tried again; a passing fault is', async () => {
  const world = new World([], []);
  world.target.findByKey = async () => {
    throw new PlaceError({ kind: 'key-refused', detail: 'expired' });
  };
  await world.shelf.save(anEntry(world));
  await world.settle(KEY);
  assert.equal(world.shelved.get(KEY)?.state, 'failed');
  assert.equal(world.shelved.get(KEY)?.problem?.detail, 'expired');

  const busy = new World(['busy'], []);
  await busy.shelf.save(anEntry(busy));
  await busy.settle(KEY);
  const entry = busy.shelved.get(KEY)!;
  assert.equal(entry.state, 'waiting');
  assert.ok(entry.nextTry - busy.now >= 2_900, 'Retry-After is honoured');
});

test('a wish written while another is sent is not lost', async () => {
  const world = new World([], []);
  await world.shelf.save(anEntry(world));
  const { place } = world.target;
  world.target.place = async (sent, key) => {
    world.shelved.set(
      KEY,
      wantAnew(world.shelved.get(KEY)!, { wanted: 'placed', payload: payload('newer') }, world.now)
    );
    return place(sent, key);
  };
  await world.settle(KEY);
  assert.deepEqual(
    [...world.items.values()].map((i) => i.title),
    ['newer']
  );
});

const fate = fc.constantFrom<Fate>(
  ...(['well', 'well', 'fails-before', 'done-answer-lost', 'done-late'] as const),
  ...(['answers-500-after', 'busy', 'crash-before', 'crash-after'] as const)
);
const step = fc.oneof(
  { weight: 6, arbitrary: fc.record({ do: fc.constant('work' as const) }) },
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant('wait' as const),
      ms: fc.integer({ min: 1, max: 25_000 })
    })
  },
  {
    weight: 2,
    arbitrary: fc.record({
      do: fc.constant('change' as const),
      title: fc.constantFrom('a', 'b', 'c')
    })
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('remove' as const) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('retry' as const) }) }
);

test('whatever fails, crashes or comes late: exactly what is wanted, exactly once', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fate, { maxLength: 30 }),
      fc.array(fc.integer({ min: 1, max: TIMES.callLimit - 100 }), { maxLength: 10 }),
      fc.array(step, { maxLength: 25 }),
      async (fates, delays, steps) => {
        const world = new World(fates, delays);
        await world.shelf.save(anEntry(world));
        let wanted: { title: string } | null = { title: 'first' };
        const change = (apply: (entry: OutboxEntry) => OutboxEntry) =>
          world.shelved.set(KEY, apply(world.shelved.get(KEY)!));
        for (const s of steps) {
          if (s.do === 'work') await world.settle(KEY);
          else if (s.do === 'wait') world.advance(s.ms);
          else if (s.do === 'change') {
            change((e) => wantAnew(e, { wanted: 'placed', payload: payload(s.title) }, world.now));
            wanted = { title: s.title };
          } else if (s.do === 'remove') {
            change((e) => wantAnew(e, { wanted: 'removed' }, world.now));
            wanted = null;
          } else change((e) => retryNow(e, world.now));
          const ofKey = [...world.items.values()].filter((i) => i.key === KEY);
          assert.ok(ofKey.length <= 1, 'never two');
        }
        // The faults end, and someone keeps at it.
        world.fates.length = 0;
        for (let i = 0; i < 12; i++) {
          world.advance(TIMES.longestWait + TIMES.callLimit);
          change((e) => retryNow(e, world.now));
          await world.settle(KEY);
        }
        assert.deepEqual(
          [...world.items.values()].map((i) => i.title),
          wanted ? [wanted.title] : []
        );
        assert.equal(world.shelved.get(KEY)?.state, wanted ? 'placed' : 'removed');
      }
    ),
    { numRuns: 1000, seed: 20_260_101 }
  );
});
