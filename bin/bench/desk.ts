import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { startDemo } from './demoServer.ts';
import { median, ms, report } from './report.ts';
import { longCaptions } from './talks.ts';

const STREAM = 'Studio stream: finishing the heron blanket';

/** The desk in the built application: an hour of captions in its worker, and how free the page stays. */
export async function benchDesk(browser: Browser): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'world-'));
  const { app, stop } = await startDemo(folder, ['--recent']);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  try {
    // tsx wraps named functions in a helper that the page does not have.
    await context.addInitScript('globalThis.__name ??= (f) => f');
    const page = await context.newPage();
    await page.goto(app);
    await page.getByRole('row').nth(1).waitFor();
    await benchWorker(page);
    await benchPage(page);
  } finally {
    await context.close();
    stop();
    await rm(folder, { recursive: true, force: true });
  }
}

async function benchWorker(page: Page): Promise<void> {
  const names = await readdir('build/client/_app/immutable/workers');
  const script = names.find((name) => /^talk\.worker.*\.js$/.test(name)) ?? '';
  for (const [what, words, bar] of [
    ['One hour of captions (9,000 words, no marks)', 9000, 1000],
    ['Three hours (27,000 words)', 27_000, 3000]
  ] as const) {
    const times = await page.evaluate(runInWorker, {
      address: `/_app/immutable/workers/${script}`,
      cues: longCaptions(words)
    });
    report(
      `${what} to sentences, chapters and article, in the worker`,
      `under ${bar / 1000} s`,
      `${ms(median(times.slice(1)))}; the very first, with its models to load, ${ms(times[0] ?? 0)}`,
      median(times.slice(1)) < bar
    );
  }
}

/** Speaks to the worker as Comlink does. */
async function runInWorker({
  address,
  cues
}: {
  address: string;
  cues: { start: number; end: number; text: string }[];
}): Promise<number[]> {
  const worker = new Worker(address, { type: 'module' });
  const call = (name: string, ...values: unknown[]) =>
    new Promise<unknown>((done, fail) => {
      const id = crypto.randomUUID();
      const listen = ({ data }: MessageEvent<{ id: string; type: string; value: unknown }>) => {
        if (data.id !== id) return;
        worker.removeEventListener('message', listen);
        // What the worker throws comes by a handler of its own.
        if (data.type === 'RAW') done(data.value);
        else fail(new Error(`${name}: ${JSON.stringify(data.value)}`));
      };
      worker.addEventListener('message', listen);
      worker.postMessage({
        id,
        type: 'APPLY',
        path: [name],
        argumentList: values.map((value) => ({ type: 'RAW', value }))
      });
    });
  const times: number[] = [];
  const tidy = { soundNotes: true, speakers: true, fillers: true, stutters: true };
  for (let i = 0; i < 4; i++) {
    const from = performance.now();
    // Another beginning, so that nothing is kept from the time before.
    const own = cues.map((cue, k) => (k === 0 ? { ...cue, text: `${cue.text} ${i}` } : cue));
    const source = { cues: own, tidy, language: 'en' };
    const read = (await call('read', source, 0)) as { proposed: unknown[] };
    const made = (await call('extract', source, {
      title: 'A talk',
      length: 'medium',
      chapters: read.proposed,
      pictures: []
    })) as { article: { words: number } };
    if (made.article.words === 0) throw new Error('There is no article.');
    times.push(performance.now() - from);
  }
  worker.terminate();
  return times;
}

async function benchPage(page: Page): Promise<void> {
  const row = page.getByRole('row', { name: new RegExp(`^${STREAM}`) });
  await row.scrollIntoViewIfNeeded();
  await row.focus();
  await page.evaluate(() => {
    const kept = ((window as { tasks?: number[] }).tasks = []) as number[];
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) kept.push(Math.round(entry.duration));
    }).observe({ type: 'longtask' });
  });
  const take = () => page.evaluate(() => (window as { tasks?: number[] }).tasks?.splice(0) ?? []);
  await page.keyboard.press('p');
  const text = page.getByRole('textbox', { name: 'Text of the post' });
  await text.waitFor();
  await page.waitForTimeout(3000);
  const opening = await take();
  await page.getByText('Length of the article:').click();
  await page.getByRole('radio', { name: /^Short/ }).check();
  await page.waitForTimeout(1500);
  const recomputing = await take();
  await text.locator('p').first().click();
  await page.keyboard.type('The hour is written about here, word by word, without haste.', {
    delay: 40
  });
  await page.waitForTimeout(1500);
  const writing = await take();
  const told = (tasks: number[]) =>
    tasks.length === 0
      ? 'none over 50 ms'
      : `${tasks.length} over 50 ms, longest ${Math.max(...tasks)} ms`;
  report(
    'The hour-long stream: tasks of the page while the desk opens',
    '(none set)',
    told(opening),
    true
  );
  report(
    'The same, while the article is made anew at another length',
    'none over 50 ms',
    told(recomputing),
    recomputing.length === 0
  );
  report(
    'The same, while one writes in it',
    'none over 50 ms',
    told(writing),
    writing.length === 0
  );
}
