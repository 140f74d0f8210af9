import { createWriteStream } from 'node:fs';
import { once } from 'node:events';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { seeded } from '../../src/lib/core/seeded.ts';
import { startDemo } from './demoServer.ts';
import { browserPid, watchMemory } from './memory.ts';
import { median, ms, report } from './report.ts';

const LINES = 1_000_000;
const ITEMS = 20_000;
const DAYS = 730;
const MEGABYTE = 1_000_000;

/** The log of a million lines, read in the worker; and the first chart of two years of 20,000 items. */
export async function benchReach(browser: Browser): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'reach-'));
  const demo = await startDemo(join(folder, 'world'), ['--recent']);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  try {
    await context.addInitScript('globalThis.__name ??= (f) => f');
    const page = await context.newPage();
    await page.goto(demo.app);
    await page.getByRole('row').nth(3).waitFor({ timeout: 60_000 });
    const log = join(folder, 'million.log');
    await writeLog(log, `/blog/posts/winding-a-warp-on-a-board`);
    await benchLog(page, log);
    await benchChart(page);
  } finally {
    await context.close();
    demo.stop();
    await rm(folder, { recursive: true });
  }
}

/** Lines of sixty days: a third of them views of pages by people and programs, and every visitor another one. */
async function writeLog(path: string, page: string): Promise<void> {
  const next = seeded(7);
  const out = createWriteStream(path);
  let at = Date.UTC(2026, 8, 1);
  const few = (n: number) => Math.floor(next() * n);
  for (let i = 0; i < LINES; i++) {
    at += next() * 10_368;
    const kind = next();
    const target =
      kind < 0.35
        ? `${page}?utm_campaign=c${few(300)}`
        : kind < 0.8
          ? `/assets/${few(100)}.css`
          : kind < 0.9
            ? '/blog/feed.xml'
            : `/nothing/${few(1e6)}`;
    const agent =
      next() < 0.17
        ? `ExampleBot/${few(60)}.0 (+https://bot.example/)`
        : `Mozilla/5.0 (X11; Linux x86_64; rv:${100 + few(300)}.0) Gecko/20100101 Firefox/140.0`;
    const referrer = next() < 0.4 ? `https://site${few(2000)}.example/find?q=${few(5000)}` : '-';
    const address = [few(223), few(255), few(4), few(255)].join('.');
    const line = `${address} - - [${stampOf(at)}] "GET ${target} HTTP/1.1" ${kind < 0.9 ? 200 : 404} ${few(90_000)} "${referrer}" "${agent}"\n`;
    if (!out.write(line)) await once(out, 'drain');
  }
  out.end();
  await once(out, 'finish');
}

function stampOf(at: number): string {
  // As `Tue, 01 Sep 2026 00:00:00 GMT`.
  const [, day, month, year, time] = new Date(at).toUTCString().split(' ');
  return `${day}/${month}/${year}:${time} +0000`;
}

async function benchLog(page: Page, log: string): Promise<void> {
  await page.goto(`${new URL(page.url()).origin}/reach`);
  const times: number[] = [];
  const still = watchMemory(browserPid());
  await page.waitForTimeout(1000);
  const before = still();
  const highest = watchMemory(browserPid());
  for (let run = 0; run < 3; run++) {
    await page.getByRole('button', { name: 'Import access log…' }).click();
    const dialog = page.getByRole('dialog');
    const began = performance.now();
    await dialog.getByLabel('Choose the log…').setInputFiles(log);
    await dialog.getByText(/Left out of 1,000,000 lines/).waitFor({ timeout: 120_000 });
    times.push(performance.now() - began);
    await dialog.getByRole('button', { name: 'Close' }).click();
  }
  const grown = Math.round((highest() - before) / MEGABYTE);
  report(
    'An access log of a million lines (175 MB), read in the browser',
    'under 6 s',
    `${ms(median(times))}; the browser grew by ${grown} MB`,
    median(times) < 6000
  );
}

async function benchChart(page: Page): Promise<void> {
  await page.evaluate(fillReach, { items: ITEMS, days: DAYS });
  const times: number[] = [];
  for (let run = 0; run < 5; run++) {
    await page.goto(`${new URL(page.url()).origin}/journal`);
    await page.getByRole('heading', { level: 1 }).waitFor();
    const began = await page.evaluate(() => performance.now());
    await page.getByRole('link', { name: 'Reach', exact: true }).click();
    await page.locator('canvas').waitFor();
    const drawn = await page.evaluate(firstInk);
    times.push(drawn - began);
  }
  report(
    'Reach of 20,000 items and two years of days: from the press to the first chart',
    'under 500 ms',
    `${ms(median(times))}, slowest ${ms(Math.max(...times))}`,
    median(times) < 500
  );
}

/** When the canvas of the page has something drawn on it. */
function firstInk(): Promise<number> {
  return new Promise((done) => {
    const look = () => {
      const canvas = document.querySelector('canvas');
      const { width = 0, height = 0 } = canvas ?? {};
      const pixels =
        width && height ? canvas?.getContext('2d')?.getImageData(0, 0, width, height) : null;
      if (pixels?.data.some((value) => value > 0)) done(performance.now());
      else requestAnimationFrame(look);
    };
    look();
  });
}

/** Writes two years of figures of many items beside those of the demo. */
function fillReach({ items, days }: { items: number; days: number }): Promise<void> {
  return new Promise((done, fail) => {
    const asked = indexedDB.open('swift-twin');
    asked.onerror = () => fail(asked.error);
    asked.onsuccess = () => {
      const db = asked.result;
      const places = db.transaction('places').objectStore('places').getAll();
      places.onsuccess = () => {
        const ids = (places.result as { id: string; kind: string }[]).map(({ id, kind }) => ({
          id,
          kind: kind === 'channel' ? 'video' : 'post'
        }));
        const today = Math.floor(Date.now() / 86_400_000);
        const first = today - days + 1;
        const change = db.transaction(['reach', 'reachTotals', 'reachDays', 'items'], 'readwrite');
        change.onerror = () => fail(change.error);
        change.oncomplete = () => done();
        for (let i = 0; i < items; i++) {
          const { id: placeId, kind } = ids[i % ids.length]!;
          const id = `bench-${i}`;
          const list = Array.from({ length: days }, (_, d) => first + d);
          const totals = list.map((_, d) => d * (1 + (i % 9)));
          const views = { days: list, totals, until: today };
          const isPost = kind === 'post';
          const visits = { direct: { days: list, counts: list.map(() => 1 + (i % 9)) } };
          const published = new Date((today - (i % days)) * 86_400_000).toISOString();
          change.objectStore('reach').put({
            id,
            placeId,
            kind,
            counters: isPost ? {} : { views },
            visits: isPost ? visits : {},
            stars: null,
            changed: ''
          });
          const last = totals.at(-1);
          change.objectStore('reachTotals').put({
            id,
            placeId,
            kind,
            totals: isPost ? { visits: last } : { views: last },
            read: today
          });
          change.objectStore('items').put({
            id,
            placeId,
            kind,
            nativeId: id,
            url: `https://bench.example/${i}`,
            title: `Item ${i}`,
            published,
            updated: published,
            visibility: 'public',
            author: '',
            language: 'en',
            licence: '',
            duration: 300,
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
        }
        for (const { id: placeId, kind } of ids)
          for (let d = 0; d < days; d++)
            change.objectStore('reachDays').put({
              id: `${placeId} ${kind} ${first + d}`,
              placeId,
              kind,
              day: first + d,
              gained:
                kind === 'video' ? { views: 1000 + (d % 60) * 9 } : { visits: 400 + (d % 45) * 7 }
            });
      };
    };
  });
}
