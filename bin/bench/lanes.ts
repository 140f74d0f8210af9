import type { Browser } from '@playwright/test';
import { laneModel } from '../../src/lib/core/lanes/laneModel.testing.ts';
import { newLane } from '../../src/lib/core/lanes/lane.ts';
import { planSlots } from '../../src/lib/core/lanes/pace.ts';
import { dropReason, inOrder, type Candidate } from '../../src/lib/core/lanes/filter.ts';
import { anItem } from '../../src/lib/core/testing.ts';
import { median, ms, report } from './report.ts';

const NOW = Date.UTC(2026, 5, 1);
const DAY = 86_400_000;
/** Random worlds, and items of the large ones. */
const [WORLDS, LARGE, ITEMS] = [400, 4, 1000];

/** The filter and the pace of lanes, and their runs against a model. */
export async function benchLanes(): Promise<void> {
  const lane = newLane('l', 'Lane', 'Europe/Berlin', NOW - 400 * DAY);
  lane.filter = { ...lane.filter, scope: 'oldest-first', keep: ['twill', 'warp'], drop: ['test'] };
  lane.pace = { ...lane.pace, perDay: 6, gap: 30 };
  const candidates = Array.from({ length: 10_000 }, (_, i): Candidate => {
    const title = `Part ${i}: ${['a twill', 'a warp', 'a reed', 'a test of twill'][i % 4]}`;
    return {
      item: { ...anItem({ id: `v${i}`, kind: 'video' }), title, published: iso(i) },
      words: 100,
      owner: '',
      likeMade: null,
      isInPlaylist: false,
      twin: { other: i % 5 === 0 ? 'A post' : null, isSetAside: false, isInHand: false }
    };
  });
  let passed = 0;
  const times = Array.from({ length: 5 }, () => {
    const from = performance.now();
    const passing = inOrder(candidates, lane.filter).filter((c) => !dropReason(c, lane, NOW));
    const slots = planSlots(
      lane.pace,
      { placed: [], since: 0, allowances: [] },
      NOW,
      passing.length
    );
    passed = slots.length;
    return performance.now() - from;
  });
  report(
    `10,000 items through filter and pace (${passed.toLocaleString('en')} planned), on Node`,
    'under 500 ms',
    `${ms(median(times))}, first ${ms(times[0] ?? 0)}`,
    median(times) < 500
  );

  let wrong = 0;
  const seed = Math.floor(Date.now() / 1000);
  for (let i = 0; i < WORLDS; i++)
    wrong += (await laneModel({ seed: seed + i, items: 1 + (i % 20), faults: (i % 9) / 10 }))
      .length;
  for (let i = 0; i < LARGE; i++)
    wrong += (await laneModel({ seed: seed + i, items: ITEMS, faults: 0.3 })).length;
  report(
    `${WORLDS} random worlds of lanes and ${LARGE} of ${ITEMS.toLocaleString('en')} items at 30 faults in a hundred, from seed ${seed}`,
    'none lost, none twice, no pace broken',
    wrong === 0 ? 'none' : `${wrong} wrong`,
    wrong === 0
  );
}

const iso = (i: number) => new Date(NOW - i * 3_600_000).toISOString();

/** A journal of 100,000 lines in the built application: how long a filter takes until it is shown. */
export async function benchJournal(browser: Browser, app: string): Promise<void> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  try {
    await context.addInitScript('globalThis.__name ??= (f) => f');
    const page = await context.newPage();
    await page.goto(`${app}/journal`);
    await page.getByRole('heading', { level: 1 }).waitFor();
    await page.evaluate(fillJournal, 100_000);
    await page.reload();
    await page.getByText(/100,?000 of 100,?000 lines/).waitFor({ timeout: 60_000 });
    const times = await page.evaluate(filterTimes, [
      'Part 77',
      'Part 12345',
      'x',
      'Part 9',
      'Part 41'
    ]);
    const late = await page.evaluate(lateFrames);
    report(
      'A journal of 100,000 lines: filtered and shown',
      'under 200 ms',
      `${ms(median(times))}, slowest ${ms(Math.max(...times))}`,
      median(times) < 200
    );
    report(
      'Frames later than 34 ms while it is scrolled by wheel, of 120',
      'none',
      `${late}`,
      late === 0
    );
  } finally {
    await context.close();
  }
}

function fillJournal(count: number): Promise<void> {
  return new Promise((done, fail) => {
    const asked = indexedDB.open('swift-twin');
    asked.onerror = () => fail(asked.error);
    asked.onsuccess = () => {
      const change = asked.result.transaction('journal', 'readwrite');
      const store = change.objectStore('journal');
      for (let i = 0; i < count; i++)
        store.add({
          at: new Date(Date.UTC(2026, 0, 1) + i * 60_000).toISOString(),
          what: i % 9 === 0 ? 'publish-failed' : 'published',
          placeId: `p${i % 5}`,
          itemId: `v${i % 700}`,
          laneId: `l${i % 3}`,
          key: `k${i % 900}`,
          title: `Part ${i}`,
          url: `https://b.example/${i}`,
          count: null,
          problem: null
        });
      change.oncomplete = () => done();
      change.onerror = () => fail(change.error);
    };
  });
}

/** Types each filter at once and waits until the count that is shown has changed. */
async function filterTimes(filters: string[]): Promise<number[]> {
  const field = document.querySelector<HTMLInputElement>('input[type="search"]');
  const status = () => document.querySelector('main [role="status"]')?.textContent ?? '';
  const times: number[] = [];
  for (const words of filters) {
    const before = status();
    const from = performance.now();
    field!.value = words;
    field!.dispatchEvent(new Event('input', { bubbles: true }));
    while (status() === before && performance.now() - from < 5000)
      await new Promise(requestAnimationFrame);
    times.push(performance.now() - from);
  }
  field!.value = '';
  field!.dispatchEvent(new Event('input', { bubbles: true }));
  await new Promise((done) => setTimeout(done, 500));
  return times;
}

async function lateFrames(): Promise<number> {
  const view = document.querySelector('main .overflow-y-auto')!;
  let late = 0;
  let last = performance.now();
  for (let i = 0; i < 120; i++) {
    view.scrollTop += 90;
    await new Promise(requestAnimationFrame);
    const now = performance.now();
    if (now - last > 34) late++;
    last = now;
  }
  return late;
}
