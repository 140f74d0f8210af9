/**
 * Measures the bars of speed and size and writes them to docs/benchmarks.md: `npm run bench`; some parts of
 * them by name: `npm run bench -- pairs archive`.
 * Needs a build and Chromium. Inputs are made by code from fixed seeds.
 */
import { spawn } from 'node:child_process';
import { createServer } from 'node:http';
import { chromium, type Browser, type Page } from '@playwright/test';
import { readFeed } from '../../src/lib/core/feeds/read.ts';
import { anItem } from '../../src/lib/core/testing.ts';
import { pairTwins } from '../../src/lib/core/twins/pair.ts';
import { benchArchive } from './archive.ts';
import { benchBooth } from './booth.ts';
import { benchDesk } from './desk.ts';
import { benchDirector } from './director.ts';
import { benchJournal, benchLanes } from './lanes.ts';
import { benchPairs } from './pairs.ts';
import { benchReach } from './reach.ts';
import { benchQuiz } from './quiz.ts';
import { median, ms, report, rows } from './report.ts';
import { benchSpeech } from './speech.ts';
import { writePart } from './table.ts';
import { benchText } from './text.ts';

const PROSE =
  'The shuttle goes over two threads and under two, and the diagonal climbs to the right. ';
const BEGAN = Date.UTC(2026, 0, 1);
const day = (n: number) => new Date(BEGAN - n * 3_600_000).toISOString();

function blogFeed(count: number, words: number, channel: string): string {
  const entry = (i: number) =>
    `<entry><id>tag:post/${i}</id><title>Post ${i} about a twill</title><link href="/posts/${i}"/><published>${day(i)}</published><updated>${day(i)}</updated><content type="html"><![CDATA[<p>${PROSE.repeat(words)}</p>${i % 3 ? `<iframe src="${channel}/embed/${i}"></iframe>` : ''}<p>See <a href="/posts/${i + 1}">the next</a>.</p>]]></content></entry>`;
  return `<feed xmlns="http://www.w3.org/2005/Atom"><title>Bench blog</title><id>b</id><link href="/blog"/>${Array.from({ length: count }, (_, i) => entry(i)).join('')}</feed>`;
}

function channelFeed(count: number): string {
  const entry = (i: number) =>
    `<entry><id>tag:video/${i}</id><title>Video ${i} about a twill</title><link href="/watch/${i}"/><published>${day(i)}</published><updated>${day(i)}</updated><media:group><media:player url="/embed/${i}"/><media:content url="/clip/${i}.webm" type="video/webm" medium="video" duration="${60 + (i % 900)}"/><media:thumbnail url="/t/${i}.png" width="320" height="180"/></media:group></entry>`;
  return `<feed xmlns="http://www.w3.org/2005/Atom" xmlns:media="http://search.yahoo.com/mrss/"><title>Bench channel</title><id>c</id><link href="/channel"/>${Array.from({ length: count }, (_, i) => entry(i)).join('')}</feed>`;
}

function benchCore(): void {
  const feed = blogFeed(5000, 8, '');
  const times = Array.from({ length: 5 }, () => {
    const from = performance.now();
    readFeed(feed, 'https://bench.example/feed.xml', day(0));
    return performance.now() - from;
  });
  const size = `${(feed.length / 1e6).toFixed(1)} MB`;
  report(
    `Feed of 5,000 entries (${size}) to items, on Node`,
    'under 1 s',
    `${ms(median(times))}, first ${ms(times[0] ?? 0)}`,
    median(times) < 1000
  );

  const videos = Array.from({ length: 10_000 }, (_, i) => anItem({ id: `v${i}`, kind: 'video' }));
  const posts = Array.from({ length: 10_000 }, (_, i) =>
    anItem({
      id: `p${i}`,
      kind: 'post',
      links: [`https://x.example/${i}`, `https://video.example/v${(i * 7) % 13_000}`]
    })
  );
  const pairing = Array.from({ length: 5 }, () => {
    const from = performance.now();
    pairTwins(videos, posts);
    return performance.now() - from;
  });
  report(
    '10,000 videos and 10,000 posts paired by frames and links, on Node',
    'under 3 s',
    ms(median(pairing)),
    median(pairing) < 3000
  );
}

/** The built application, and a site with large feeds that it may reach. */
async function startServers(): Promise<{ app: string; site: string; stop(): void }> {
  const documents = new Map<string, string>();
  const server = createServer((request, response) => {
    const text = documents.get(request.url ?? '');
    response.writeHead(text ? 200 : 404, { 'content-type': 'application/atom+xml' }).end(text);
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const address = server.address();
  const site = `http://127.0.0.1:${typeof address === 'object' ? address?.port : ''}`;
  documents.set('/small.xml', blogFeed(5000, 8, site));
  documents.set('/channel.xml', channelFeed(10_000));
  documents.set('/blog.xml', blogFeed(10_000, 8, site));
  const port = 20_000 + (process.pid % 20_000);
  const app = `http://127.0.0.1:${port}`;
  const env = {
    ...process.env,
    PORT: String(port),
    HOST: '127.0.0.1',
    ORIGIN: app,
    REHEARSAL_ORIGIN: site
  };
  const child = spawn(process.execPath, ['build/index.js'], {
    env,
    stdio: ['ignore', 'pipe', 'inherit']
  });
  await new Promise((ready) => child.stdout.once('data', ready));
  return {
    app,
    site,
    stop() {
      child.kill();
      server.close();
    }
  };
}

async function link(page: Page, address: string, kind: string, count: string): Promise<number> {
  await page.getByRole('textbox', { name: 'Connect a channel or blog' }).fill(address);
  await page.getByRole('button', { name: 'Find' }).click();
  const button = page.getByRole('button', { name: 'Connect (read only)' });
  await button.waitFor({ timeout: 60_000 });
  const from = performance.now();
  await button.click();
  await page
    .getByRole('article', { name: `Bench ${kind}` })
    .getByText(count)
    .waitFor({ timeout: 120_000 });
  await page.waitForFunction(() => !document.querySelector('footer progress'));
  return performance.now() - from;
}

async function benchFirstLoad(browser: Browser, app: string): Promise<void> {
  const page = await browser.newPage();
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  const scripts = new Set<string>();
  let bytes = 0;
  session.on('Network.responseReceived', ({ requestId, type }) => {
    if (type === 'Script') scripts.add(requestId);
  });
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (scripts.has(requestId)) bytes += encodedDataLength;
  });
  await page.goto(app, { waitUntil: 'networkidle' });
  await page.close();
  report(
    'Script of the first load of In step, gzip',
    'under 250 KB',
    `${Math.round(bytes / 1000)} KB`,
    bytes > 0 && bytes < 250_000
  );
}

async function benchLargeFeed(browser: Browser, app: string, site: string): Promise<void> {
  const page = await browser.newPage();
  await page.goto(`${app}/places`);
  const time = await link(page, `${site}/small.xml`, 'blog', '5,000 items');
  const worker = page.workers()[0];
  const readings = await worker?.evaluate(() =>
    performance.getEntriesByName('read feed').map((entry) => entry.duration)
  );
  const [first = Infinity] = readings ?? [];
  report(
    'The same feed to items in the worker, its very first reading',
    'under 1 s',
    ms(first),
    first < 1000
  );
  report(
    'The same feed in the application: fetched, read, stored and paired',
    '(none set)',
    ms(time),
    true
  );
  await page.context().close();
}

/** Milliseconds between frames while scrolling by so many pixels a frame. */
const scroll = (page: Page, step: number): Promise<number[]> =>
  page.evaluate(async (pixels) => {
    const scroller = document.querySelector('[role=grid]')?.parentElement;
    if (!scroller) return [];
    scroller.scrollTop = 0;
    await new Promise((done) => setTimeout(done, 1500));
    const gaps: number[] = [];
    let last = await new Promise<number>(requestAnimationFrame);
    for (let i = 0; i < 130; i++) {
      scroller.scrollTop += pixels;
      const now = await new Promise<number>(requestAnimationFrame);
      gaps.push(now - last);
      last = now;
    }
    // The first frames wake what has slept.
    return gaps.slice(10);
  }, step);

async function benchHome(browser: Browser, app: string, site: string): Promise<void> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(`${app}/places`);
  await link(page, `${site}/channel.xml`, 'channel', '10,000 items');
  await page.waitForLoadState('networkidle');
  const time = await link(page, `${site}/blog.xml`, 'blog', '10,000 items');
  report(
    '10,000 posts fetched, stored and paired with 10,000 videos in the application',
    '(none set)',
    ms(time),
    true
  );

  // The three steps of a first visit stand before the list.
  await page.goto(app);
  await page.getByRole('button', { name: 'Show all videos and posts' }).click();
  await page.locator('[role=row]').first().waitFor();
  const shown: number[] = [];
  for (let i = 0; i < 5; i++) {
    await page.goto('about:blank');
    await page.goto(app, { waitUntil: 'commit' });
    await page.locator('[role=row]').first().waitFor();
    shown.push(await page.evaluate(() => performance.now()));
  }
  report(
    'In step with 20,000 items: rows shown after the start of the page',
    'under 1 s',
    `${ms(median(shown))}, longest ${ms(Math.max(...shown))}`,
    median(shown) < 1000
  );

  for (const [how, step, isBar] of [
    ['a fast wheel, 5,400 pixels a second', 90, true],
    ['the scroll bar dragged, a whole screen replaced each frame', 2000, false]
  ] as const) {
    const frames = await scroll(page, step);
    const late = frames.filter((gap) => gap > 34).length;
    const told = `median ${median(frames).toFixed(1)} ms a frame, ${late} of ${frames.length} late`;
    report(
      `The same, ${how}`,
      isBar ? 'no dropped frames' : '(none set)',
      told,
      !isBar || late === 0
    );
  }
  await context.close();
}

/** How fast the machine is just now: figures of a shared machine differ by a factor of two and more. */
function referenceLoop(): number {
  const from = performance.now();
  let sum = 0;
  for (let i = 0; i < 3e8; i++) sum += i % 7;
  return sum > 0 ? performance.now() - from : 0;
}

/** Parts that are asked for by name; all of them where none is. */
const asked = process.argv.slice(2);

const HOW = {
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update'
  ]
};

/** In one browser, one after the other. */
async function benchBrowser(): Promise<void> {
  const servers = await startServers();
  const browser = await chromium.launch(HOW);
  try {
    await benchFirstLoad(browser, servers.app);
    await benchLargeFeed(browser, servers.app, servers.site);
    await benchHome(browser, servers.app, servers.site);
    await benchDesk(browser);
    await benchJournal(browser, servers.app);
    await benchReach(browser);
  } finally {
    await browser.close();
    servers.stop();
  }
}

/**
 * Those with profiles of their own on disk come before the others in a browser: their memory is measured, and they
 * should be alone. Without a profile, what a browser stores lies in memory.
 */
const PARTS: Record<string, () => void | Promise<void>> = {
  text: benchText,
  speech: benchSpeech,
  quiz: benchQuiz,
  core: benchCore,
  pairs: benchPairs,
  lanes: benchLanes,
  director: benchDirector,
  booth: () =>
    benchBooth((profile) =>
      chromium.launchPersistentContext(profile, {
        ...HOW,
        viewport: { width: 1280, height: 800 }
      })
    ),
  archive: () =>
    benchArchive((profile) =>
      chromium.launchPersistentContext(profile, { ...HOW, acceptDownloads: true })
    ),
  browser: benchBrowser
};

const order = Object.keys(PARTS);
for (const part of order.filter((name) => asked.length === 0 || asked.includes(name))) {
  const from = rows.length;
  const before = referenceLoop();
  await PARTS[part]!();
  await writePart(part, { rows: rows.slice(from), loop: [before, referenceLoop()] }, order);
}
process.exitCode = rows.every((r) => r.holds) ? 0 : 1;
