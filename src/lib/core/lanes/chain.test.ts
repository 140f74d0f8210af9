import { laneWorldOf, MemoryStore } from './testing.ts';
import { run } from './runner.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { itemSchema, type Item } from '../model/item.ts';

import { newLane, type Lane } from './lane.ts';
import { imprintOf as imprint, isAlike } from './likeness.ts';
import type { PostPayload } from '../delivery/payload.ts';
import { aPostPayload } from '../testing.ts';

const imprints = new Map<string, ReadonlySet<string>>();
function imprintOf(text: string): ReadonlySet<string> {
  const known = imprints.get(text) ?? imprint(text);
  imprints.set(text, known);
  return known;
}

const DAY = 86_400_000;
const BEGIN = Date.parse('2026-03-02T08:00:00Z');
const TEXTS = [
  'Wind the warp with even hands and count the ends in groups of ten before you tie the cross.',
  'Madder wants time: an hour below a simmer, a night in the pot, and a rinse in soft water.',
  'A reed is sleyed from the middle outwards, two ends in each dent, with the hook held low.'
];

/**
 * Three lanes in a ring, at places that strip every mark of where a thing came from. Each place shows
 * what was placed there as an item of its own.
 * @param retell what a place makes of a text
 */
const never = new AbortController().signal;
async function ring(retell: (text: string) => string): Promise<{ made: number; days: number }> {
  let now = BEGIN;
  const items: (Item & { text: string })[] = [];
  const store = new MemoryStore();
  const arrive = (placeId: string, text: string) => {
    const id = `${placeId}-${items.length}`;
    const item = itemSchema.parse({
      id,
      placeId,
      kind: 'post',
      nativeId: id,
      url: `https://${placeId}.example/${id}`,
      title: text.slice(0, 20),
      published: new Date(now).toISOString(),
      updated: null,
      visibility: 'public',
      author: '',
      language: 'en',
      licence: '',
      duration: null,
      summary: '',
      pictures: [],
      embedUrl: '',
      contentUrl: '',
      captions: [],
      tags: [],
      embeds: [],
      links: [],
      origin: null
    });
    items.push({ ...item, text });
  };
  const laneOf = (from: string, to: string): Lane => {
    const lane = newLane(`${from}>${to}`, '', 'Etc/UTC', BEGIN);
    return {
      ...lane,
      since: BEGIN,
      isOn: true,
      approval: { mode: 'always', upToDate: 'ask' },
      source: { ...lane.source, places: [from] },
      pace: { ...lane.pace, perRun: null },
      targets: [{ placeId: to, status: 'public', categories: [], tags: [] }]
    };
  };
  const lanes = [laneOf('a', 'b'), laneOf('b', 'c'), laneOf('c', 'a')];
  const world = laneWorldOf({
    now: () => now,
    store,
    candidates: (lane) =>
      items
        .filter((i) => lane.source.places.includes(i.placeId))
        .map(({ text, ...item }) => {
          const own = imprintOf(text);
          const like = [...store.outbox.values()].find((e) =>
            isAlike(own, imprintOf((e.payload as PostPayload).html))
          );
          return {
            item,
            words: 20,
            owner: '',
            isInPlaylist: false,
            likeMade: like && item.placeId === like.placeId ? like.payload.title : null,
            twin: { other: null, isSetAside: false, isInHand: false }
          };
        }),
    async make(_lane, { item }, { placeId }) {
      const text = items.find((i) => i.id === item.id)?.text ?? '';
      const payload = aPostPayload({ title: item.title, html: text });
      arrive(placeId, retell(text));
      return { key: `${item.id} at ${placeId}`, payload, findings: [], transfer: null };
    }
  });
  for (const text of TEXTS) arrive('a', text);
  let last = now;
  for (let day = 0; day < 200; day++) {
    const before = store.outbox.size;
    // A lane that its rate guard stopped stands still until its user has looked at it.
    for (const lane of lanes.filter((l) => l.isOn)) await run(lane, world, `day ${day}`, never);
    if (store.outbox.size > before) last = now;
    now += DAY / 4;
  }
  return { made: store.outbox.size, days: (last - BEGIN) / DAY };
}

test('a ring of lanes ends where it began, though its places strip all marks', async () => {
  const { made } = await ring((text) => `Read on: ${text.toUpperCase()} (c)`);
  assert.equal(made, TEXTS.length);
});

test('even where nothing can be recognised any more, the rateGuard ends it', async () => {
  let n = 0;
  const nonsense = () => Array.from({ length: 30 }, () => `w${n++}`).join(' ');
  const { made, days } = await ring(nonsense);
  assert.ok(made > TEXTS.length && made <= 3 * 21, `${made} were made`);
  assert.ok(days < 30, `it went on for ${days} days`);
});
