import './browserOf.ts';
import assert from 'node:assert/strict';
import { gzipSync } from 'node:zlib';
import { after, before, beforeEach, test } from 'node:test';
import { attention } from '../hosts/audience/model.ts';
import { TestHosts } from '../hosts/testing.ts';
import type { UpdatePayload } from '../src/lib/core/delivery/payload.ts';
import { placementKey } from '../src/lib/core/model/ids.ts';
import { rhythmOf } from '../src/lib/core/reach/rhythm.ts';
import { visitsBySource } from '../src/lib/core/reach/reachRow.ts';
import { db } from '../src/lib/data/db.ts';
import { requestPublish } from '../src/lib/data/outbox.ts';
import { recountDays } from '../src/lib/data/reach.ts';
import { deliverEntry } from '../src/lib/delivery/deliverEntry.ts';
import { connectMailbox, findMailbox } from '../src/lib/work/mailbox.ts';
import { saveReportSetting, sendReportWhenDue } from '../src/lib/work/reach/mailReport.ts';
import { addVisits, readAccessLog } from '../src/lib/work/reach/accessLog.ts';
import { importTable } from '../src/lib/work/reach/figuresTable.ts';
import { guessColumns, readFiguresTable } from '../src/lib/core/reach/csvFigures.ts';
import { readPlaces } from '../src/lib/work/read.ts';
import { connectBoth, connectWithKey } from './connected.ts';
import { outside, sendAsUsual, sendStraight } from './outside.ts';

/** What is found of the audience of the rehearsal hosts, held against the model behind it. */
const hosts = new TestHosts();
before(sendStraight);
after(sendAsUsual);

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

interface Truth {
  visits: number;
  again: number;
  bots: number;
  hiddenBots: number;
  own: number;
  prefetched: number;
  bySource: Record<string, Record<string, number>>;
}

const OWN = { addresses: ['203.0.113.7'], marks: [] };
const logFile = async (name = 'access.log') => {
  const answer = await outside(`${hosts.origin}/control/${name}`);
  return new File([await answer.arrayBuffer()], name);
};
const truthOf = async () =>
  (await (await outside(`${hosts.origin}/control/audience.json`)).json()) as Truth;

/** How alike two orders are (Spearman): equal ones share their rank. */
function rankCorrelation(a: readonly number[], b: readonly number[]): number {
  const ranks = (values: readonly number[]) => {
    const sorted = [...values].sort((x, y) => x - y);
    return values.map((v) => (sorted.indexOf(v) + sorted.lastIndexOf(v)) / 2);
  };
  const [x, y] = [ranks(a), ranks(b)];
  const mean = (a.length - 1) / 2;
  const product = (p: number[], q: number[]) =>
    p.reduce((sum, v, i) => sum + (v - mean) * (q[i]! - mean), 0);
  return product(x, y) / Math.sqrt(product(x, x) * product(y, y));
}
const isClose = (found: number, right: number) => Math.abs(found - right) <= 0.02 * right;

test('after sixty days the hours of the audience are found, and bots and own visits left out', async () => {
  const { blog } = await connectBoth(hosts);
  await hosts.control('clock', { hours: String(60 * 24) });
  const found = (await readAccessLog(blog, await logFile(), OWN))!;
  const { counts, hours } = found.findings;
  const truth = await truthOf();
  const of = (name: keyof Truth) => `${name}: ${counts[name as 'own']} of ${truth[name] as number}`;
  assert.ok(isClose(counts.visits, truth.visits), of('visits'));
  assert.ok(isClose(counts.own, truth.own), of('own'));
  const bots = counts.bots + counts.hiddenBots;
  assert.ok(isClose(bots, truth.bots + truth.hiddenBots), `${bots} bots`);
  assert.ok(isClose(counts.prefetched, truth.prefetched), of('prefetched'));
  assert.equal(counts.unreadable, 0);

  const last60 = hours
    .map(({ day, hours: h }) => ({ id: `${day}`, placeId: blog.id, day, hours: h }))
    .sort((a, b) => a.day - b.day)
    .slice(-60);
  const rhythm = rhythmOf(last60, 'UTC')!;
  const monday = Date.parse('2026-11-23T00:00:00Z');
  const right = Array.from({ length: 168 }, (_, i) => attention(monday + i * 3_600_000));
  const correlation = rankCorrelation(rhythm.shares.flat(), right);
  console.log(`rank correlation ${correlation.toFixed(3)} from ${rhythm.visits} visits`);
  assert.ok(correlation >= 0.8, `rank correlation ${correlation}`);
});

test('visits come to their posts by source, packed or not, once, and go again by undo', async () => {
  const { blog } = await connectBoth(hosts);
  const truth = await truthOf();
  const packed = (await readAccessLog(blog, await logFile('access.log.gz'), OWN))!;
  const undo = await addVisits(blog, packed);
  const post = (await db.items.toArray()).find(({ url }) =>
    url.endsWith('winding-a-warp-on-a-board')
  )!;
  const { visits } = (await db.reach.get(post.id))!;
  const bySource = new Map(visitsBySource(visits).map(({ source, count }) => [source, count]));
  const video = [...bySource].find(([source]) => source.startsWith('video '))!;
  const right = truth.bySource['winding-a-warp-on-a-board']!;
  assert.ok(Math.abs(video[1] - right.video!) <= 2, `${video[1]} of ${right.video}`);
  assert.ok(Math.abs(bySource.get('direct')! - right.direct!) <= 2);

  const days = await db.reachDays.toArray();
  const sum = days.reduce((total, { gained }) => total + (gained.visits ?? 0), 0);
  assert.equal(sum, packed.findings.counts.visits);
  const stored = JSON.stringify([await db.reach.toArray(), await db.visitHours.toArray()]);
  assert.ok(!stored.includes('2001:db8') && !stored.includes('203.0.113'));
  await recountDays();
  const order = (rows: { id: string }[]) => rows.sort((a, b) => (a.id < b.id ? -1 : 1));
  assert.deepEqual(order(await db.reachDays.toArray()), order(days));

  const again = (await readAccessLog(blog, await logFile(), OWN))!;
  assert.equal(again.findings.counts.visits, 0);
  await undo();
  assert.deepEqual((await db.reach.get(post.id))?.visits, {});
  assert.equal(await db.visitHours.count(), 0);
  const anew = (await readAccessLog(blog, await logFile(), OWN))!;
  assert.equal(anew.findings.counts.visits, packed.findings.counts.visits);
});

test('a log that is damaged or none is told, and nothing of it is kept', async () => {
  const { blog } = await connectBoth(hosts);
  const cut = gzipSync('x'.repeat(100_000)).subarray(0, 60);
  cut.fill(0xff, 20, 40);
  assert.equal(await readAccessLog(blog, new File([cut], 'cut.gz'), OWN), null);
  const none = (await readAccessLog(blog, new File(['a letter\nto nobody\n'], 'letter.txt'), OWN))!;
  assert.equal(none.findings.counts.unreadable, none.findings.counts.lines);
});

test('figures of the channel are kept by day, and a table of earlier days leads up to them', async () => {
  const { channel } = await connectBoth(hosts);
  const rows = async () =>
    (await db.reach.toArray()).filter(({ placeId }) => placeId === channel.id);
  const first = await rows();
  assert.ok(first.length > 5);
  assert.ok(first.every(({ counters }) => counters.views!.totals.length === 1));
  assert.ok(first.some(({ stars, counters }) => (stars ?? 0) > 0 && counters.likes));

  await hosts.control('clock', { hours: '30' });
  await readPlaces();
  const second = await rows();
  // The same day here: the later reading takes the place of the first.
  const grown = second.filter(
    ({ id, counters }) =>
      counters.views!.totals[0]! > first.find((row) => row.id === id)!.counters.views!.totals[0]!
  );
  assert.ok(grown.length > 0);

  const csv = await (await outside(`${hosts.origin}/control/figures.csv`)).text();
  const { table } = readFiguresTable(csv);
  const choice = guessColumns(table!);
  assert.deepEqual(choice, { item: 2, date: 0, counters: { views: 3 }, isPerDay: true });
  const told = await importTable(table!, choice, 'figures.csv');
  assert.deepEqual(told.unknown, []);
  const [row] = (await rows()).sort(
    (a, b) => b.counters.views!.days.length - a.counters.views!.days.length
  );
  assert.ok(row!.counters.views!.days.length > 30);
  await told.undo();
  assert.deepEqual(
    (await rows()).map(({ counters }) => counters),
    second.map(({ counters }) => counters)
  );
});

const UPDATE: UpdatePayload = {
  kind: 'update',
  form: 'poll',
  title: 'Which loom?',
  hasTitle: false,
  text: 'Which loom?',
  hashtags: [],
  options: ['Floor', 'Table'].map((text) => ({ text, right: false })),
  why: '',
  closes: null,
  picture: null,
  button: null,
  clip: null,
  part: null
};

interface Counted {
  totalItems: number;
}
const sumOf = (counted: readonly Counted[]): number =>
  counted.reduce((sum, { totalItems }) => sum + totalItems, 0);

/** What a network tells of the update that it took last. */
async function toldOf(actor: string) {
  const answer = await fetch(new URL('outbox', actor));
  const { orderedItems } = (await answer.json()) as {
    orderedItems: {
      object: Record<'likes' | 'shares' | 'replies', Counted> & { oneOf: { replies: Counted }[] };
    }[];
  };
  return orderedItems[0]!.object;
}

test('what a network tells of updates is kept with the places’ figures', async () => {
  const { channel } = await connectBoth(hosts);
  const network = await connectWithKey(hosts, 'notes');
  const [item] = (await db.items.toArray()).filter(({ placeId }) => placeId === channel.id);
  const key = placementKey(item!.url, 'update', network.actor);
  const request = { key, itemId: item!.id, placeId: network.id, payload: UPDATE };
  await requestPublish(request, Date.now());
  await deliverEntry(key);
  await hosts.control('clock', { hours: '48' });
  await readPlaces();
  const row = (await db.reach.get(key))!;
  assert.equal(row.kind, 'update');
  // How many there are depends on the hour at which an update goes out, and may be none.
  const { likes, shares, replies, oneOf } = await toldOf(network.actor);
  const told = [likes, shares, replies, { totalItems: sumOf(oneOf.map((o) => o.replies)) }];
  for (const [i, counter] of (['likes', 'shares', 'comments', 'votes'] as const).entries())
    assert.deepEqual(row.counters[counter]?.totals, [told[i]!.totalItems], counter);
  assert.ok(told[3]!.totalItems > 0);
  // A network that is down keeps nobody from reading the rest.
  await hosts.control('faults', { failOneIn: '1' });
  await readPlaces();
  assert.deepEqual((await db.reach.get(key))?.counters, row.counters);
});

test('the report of a month goes out once, where it is wanted', async () => {
  const signal = new AbortController().signal;
  await connectMailbox(
    await findMailbox(`${hosts.origin}/mailbox/`, signal),
    'wrenfold-mailbox-key'
  );
  const built: string[] = [];
  const build = (month: string) => {
    built.push(month);
    return Promise.resolve({ month: `Month ${month}`, totals: [], charts: [], sections: [] });
  };
  await sendReportWhenDue(build);
  assert.deepEqual(built, []);
  await saveReportSetting({ isWanted: true, last: '' });
  await sendReportWhenDue(build);
  await sendReportWhenDue(build);
  assert.equal(built.length, 1);
  const page = await (await outside(`${hosts.origin}/mailbox/`)).text();
  assert.ok(page.includes(`Reach in Month ${built[0]}`));
});
