import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { PlaceError } from '../model/place.ts';
import {
  mergeSaved,
  newEntry,
  retryNow,
  TIMES,
  changeRequest,
  type OutboxEntry
} from './outbox.ts';
import { deliver, type EntryStore, type Target } from './deliver.ts';
import { aPostPayload } from '../testing.ts';
import type { Payload } from './payload.ts';

const payload = (title: string) => aPostPayload({ title, status: 'draft' });

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

/** A place, a store and a clock, all under the rule of a list of fates. */
class World {
  now = 1_000_000;
  readonly items = new Map<string, { key: string; title: string }>();
  readonly stored = new Map<string, OutboxEntry>();
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
    publish: (sent, key) =>
      this.#call(() => {
        const url = `https://b.example/${++this.made}`;
        this.items.set(url, { key, title: sent.title });
        return url;
      }, true),
    update: (url, sent, key) =>
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

  readonly store: EntryStore = {
    load: async (key) => this.stored.get(key) ?? null,
    save: async (entry) => {
      this.stored.set(entry.key, mergeSaved(this.stored.get(entry.key) ?? null, entry));
    }
  };

  async deliver(key: string): Promise<void> {
    try {
      await deliver(key, {
        store: this.store,
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
  await world.store.save(anEntry(world));
  await world.deliver(KEY);
  const entry = world.stored.get(KEY);
  assert.equal(entry?.state, 'published');
  assert.deepEqual([...world.items.values()], [{ key: KEY, title: 'first' }]);
  assert.ok(entry && world.items.has(entry.url));
});

test('publishing again replaces, removing removes, and publishing after that makes one once more', async () => {
  const world = new World([], []);
  await world.store.save(anEntry(world));
  await world.deliver(KEY);
  const change = (apply: (entry: OutboxEntry) => OutboxEntry) => {
    world.stored.set(KEY, apply(world.stored.get(KEY)!));
    return world.deliver(KEY);
  };
  await change((e) =>
    changeRequest(e, { wanted: 'published', payload: payload('second') }, world.now)
  );
  assert.deepEqual(
    [...world.items.values()].map((i) => i.title),
    ['second']
  );
  await change((e) => changeRequest(e, { wanted: 'removed' }, world.now));
  assert.equal(world.items.size, 0);
  assert.equal(world.stored.get(KEY)?.state, 'removed');
  await change((e) =>
    changeRequest(e, { wanted: 'published', payload: payload('third') }, world.now)
  );
  assert.deepEqual(
    [...world.items.values()].map((i) => i.title),
    ['third']
  );
});

test('a refusal is reported and not tried again; a passing fault is', async () => {
  const world = new World([], []);
  world.target.findByKey = async () => {
    throw new PlaceError({ kind: 'key-refused', detail: 'expired' });
  };
  await world.store.save(anEntry(world));
  await world.deliver(KEY);
  assert.equal(world.stored.get(KEY)?.state, 'failed');
  assert.equal(world.stored.get(KEY)?.problem?.detail, 'expired');

  const busy = new World(['busy'], []);
  await busy.store.save(anEntry(busy));
  await busy.deliver(KEY);
  const entry = busy.stored.get(KEY)!;
  assert.equal(entry.state, 'waiting');
  assert.ok(entry.nextTry - busy.now >= 2_900, 'Retry-After is honoured');
});

test('a wish written while another is sent is not lost', async () => {
  const world = new World([], []);
  await world.store.save(anEntry(world));
  const { publish } = world.target;
  world.target.publish = async (sent, key) => {
    world.stored.set(
      KEY,
      changeRequest(
        world.stored.get(KEY)!,
        { wanted: 'published', payload: payload('newer') },
        world.now
      )
    );
    return publish(sent, key);
  };
  await world.deliver(KEY);
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
        await world.store.save(anEntry(world));
        let wanted: { title: string } | null = { title: 'first' };
        const change = (apply: (entry: OutboxEntry) => OutboxEntry) =>
          world.stored.set(KEY, apply(world.stored.get(KEY)!));
        for (const s of steps) {
          if (s.do === 'work') await world.deliver(KEY);
          else if (s.do === 'wait') world.advance(s.ms);
          else if (s.do === 'change') {
            change((e) =>
              changeRequest(e, { wanted: 'published', payload: payload(s.title) }, world.now)
            );
            wanted = { title: s.title };
          } else if (s.do === 'remove') {
            change((e) => changeRequest(e, { wanted: 'removed' }, world.now));
            wanted = null;
          } else change((e) => retryNow(e, world.now));
          const ofKey = [...world.items.values()].filter((i) => i.key === KEY);
          assert.ok(ofKey.length <= 1, 'never two');
        }
        // The faults end, and someone keeps at it.
        world.fates.length = 0;
        for (let i = 0; i < 12; i++) {
          world.advance(300_000 + TIMES.callLimit);
          change((e) => retryNow(e, world.now));
          await world.deliver(KEY);
        }
        assert.deepEqual(
          [...world.items.values()].map((i) => i.title),
          wanted ? [wanted.title] : []
        );
        assert.equal(world.stored.get(KEY)?.state, wanted ? 'published' : 'removed');
      }
    ),
    { numRuns: 1000, seed: 20_260_101 }
  );
});

/** A place that can be read, where somebody may be writing as well. `alters`: how it writes what it takes. */
function readPlace(alters = (text: string) => text) {
  const place = { text: '', typed: [] as string[] };
  const world = new World([], []);
  const write = (sent: Payload) => {
    place.text = alters(sent.title);
    // Somebody who had the editor open saves it before it is read again.
    place.text = place.typed.shift() ?? place.text;
    return Promise.resolve('https://b.example/1');
  };
  const target: Target = {
    findByKey: () => Promise.resolve(null),
    publish: write,
    update: (_, sent) => write(sent),
    remove: () => Promise.resolve(),
    look: () =>
      Promise.resolve({
        ...{ fingerprint: place.text, title: place.text, html: '', status: 'draft', excerpt: '' },
        ...{ tags: [], picture: '' }
      }),
    isAsSent: ({ fingerprint }, sent) => fingerprint === sent.title
  };
  const send = async (title: string) => {
    const known = await world.store.load(KEY);
    const wish = known && changeRequest(known, { wanted: 'published', payload: payload(title) }, 1);
    await world.store.save(wish ?? { ...anEntry(world), payload: payload(title) });
    const surroundings = { store: world.store, target, now: () => (world.now += 10) };
    return deliver(KEY, { ...surroundings, chance: () => 1 });
  };
  return { place, send };
}

test('what was changed at the place since it was sent is not overwritten', async () => {
  const { place, send } = readPlace();
  await send('One');
  place.text = 'One, by hand';
  assert.equal((await send('Two'))?.theirs?.title, 'One, by hand');
  assert.equal(place.text, 'One, by hand');
});

test('nor is what was changed between an update and the look after it', async () => {
  const { place, send } = readPlace();
  await send('One');
  place.typed.push('By hand');
  assert.equal((await send('Two'))?.state, 'published');
  assert.equal((await send('Three'))?.theirs?.title, 'By hand');
  assert.equal(place.text, 'By hand');
});

test('a place that writes all it takes in a way of its own is no reason to ask', async () => {
  const { place, send } = readPlace((text) => text.toUpperCase());
  for (const title of ['One', 'Two', 'Three']) {
    assert.equal((await send(title))?.state, 'published');
    assert.equal(place.text, title.toUpperCase());
  }
  place.text = 'By hand';
  assert.equal((await send('Four'))?.theirs?.title, 'By hand');
});
