import { execFileSync } from 'node:child_process';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BrowserContext, Page } from '@playwright/test';
import { startDemo } from './demoServer.ts';
import { browserPid, watchMemory } from './memory.ts';
import { median, ms, report } from './report.ts';

const KEY = 'wrenfold-notebook-key';

/** Posts drawn from the talks of the demo world, a heading every few paragraphs. */
async function longPost(words: number): Promise<string> {
  const folder = new URL('../../hosts/world/speech/', import.meta.url);
  const html: string[] = [];
  let count = 0;
  for (const name of (await readdir(folder)).sort()) {
    if (name.startsWith('kette')) continue;
    for (const line of (await readFile(new URL(name, folder), 'utf8')).split('\n')) {
      const text = line.replace(/\[\[\d+\]\]/g, '').trim();
      if (!text || count >= words) continue;
      html.push(text.startsWith('# ') ? `<h2>${text.slice(2)}</h2>` : `<p>${text}</p>`);
      count += text.split(/\s+/).length;
    }
  }
  return html.join('\n');
}

async function place(hosts: string, name: string, words: number): Promise<void> {
  await fetch(`${hosts}/blog/micropub`, {
    method: 'POST',
    headers: { authorization: `Bearer ${KEY}`, 'content-type': 'application/json' },
    body: JSON.stringify({
      type: ['h-entry'],
      properties: { name: [name], content: [{ html: await longPost(words) }] }
    })
  });
}

/** From a post to a finished video in the built application, and the encoder alone against ffmpeg. */
export async function benchBooth(
  launch: (profile: string) => Promise<BrowserContext>
): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'world-'));
  const { app, hosts, stop } = await startDemo(folder, ['--recent']);
  try {
    await place(hosts, 'Three minutes', 530);
    await place(hosts, 'Thirty minutes', 5700);
    const of = async (title: string, motion: Motion, run: string, keep: string | null = null) =>
      fromPost(await launch(join(folder, `profile-${run}`)), app, title, motion, keep);
    const middle = (runs: Made[]): Made => ({
      seconds: runs[0]!.seconds,
      cold: median(runs.map((r) => r.cold)),
      warm: median(runs.map((r) => r.warm)),
      memory: median(runs.map((r) => r.memory))
    });
    const calm: Made[] = [];
    const moving: Made[] = [];
    for (const run of ['a', 'b', 'c']) {
      calm.push(await of('Three minutes', 'calm', `calm-${run}`, join(folder, 'short.webm')));
      moving.push(await of('Three minutes', 'moving', `moving-${run}`));
    }
    const [short, moved] = [middle(calm), middle(moving)];
    const long = await of('Thirty minutes', 'calm', 'long');
    const times = (seconds: number, took: number) =>
      `${(seconds / took).toFixed(1)} times: ${seconds.toFixed(0)} s in ${ms(took * 1000)}`;
    const speed = (what: string, seconds: number, took: number, bar: number) =>
      report(what, `at least ${bar} times real time`, times(seconds, took), seconds / took >= bar);
    const three = 'A post of three minutes to a finished WebM (1280x720), speech and all';
    speed(`${three}, calm, from cold caches (median of three)`, short.seconds, short.cold, 30);
    speed(
      'The same again with sentences kept; pictures, mix and file made anew',
      short.seconds,
      short.warm,
      60
    );
    speed(
      `${three}, with motion, from cold caches (median of three)`,
      moved.seconds,
      moved.cold,
      15
    );
    speed(
      'The same again with sentences kept; pictures, mix and file made anew',
      moved.seconds,
      moved.warm,
      25
    );
    speed('A post of thirty minutes, calm, from cold caches', long.seconds, long.cold, 27);
    const more = (long.memory - short.memory) / 1e6;
    report(
      'Memory of the browser while it makes thirty minutes, over that for three (highest sum of its processes)',
      'within 100 MB',
      `${more.toFixed(0)} MB more (${(short.memory / 1e6).toFixed(0)} and ${(long.memory / 1e6).toFixed(0)} MB)`,
      more <= 100
    );
    await againstFfmpeg(
      await launch(join(folder, 'profile-encode')),
      app,
      join(folder, 'short.webm'),
      folder
    );
  } finally {
    stop();
    await rm(folder, { recursive: true, force: true });
  }
}

type Motion = 'calm' | 'moving';

interface Made {
  /** Of the video. */
  seconds: number;
  /** Seconds it took. */
  cold: number;
  warm: number;
  /** Bytes, the highest while it was made from cold caches. */
  memory: number;
}

async function fromPost(
  context: BrowserContext,
  app: string,
  title: string,
  motion: Motion,
  keep: string | null
): Promise<Made> {
  const page = await context.newPage();
  await page.goto(app);
  const row = page.getByRole('row', { name: new RegExp(`^${title}:`) });
  await row.waitFor();
  await page.waitForTimeout(2000);
  await row.focus();
  const memory = watchMemory(browserPid());
  let from = performance.now();
  await page.keyboard.press('v');
  if (motion === 'calm') await page.getByRole('radio', { name: 'Calm, nothing moves' }).check();
  await page.getByRole('button', { name: /^Render / }).click();
  await finished(page);
  const cold = (performance.now() - from) / 1000;
  const highest = memory();
  const slider = page.getByRole('slider', { name: 'Place in the video' });
  const seconds = Number(await slider.getAttribute('max'));
  if (keep) {
    await page.getByText('Export', { exact: true }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Video file' }).click()
    ]);
    await download.saveAs(keep);
  }
  // Another typeface and other pauses: no part and no mix of before fits any more.
  await page.getByRole('combobox', { name: 'Typeface' }).selectOption('sans');
  await page.getByLabel('Around headings').fill('0.9');
  await page.waitForTimeout(3000);
  from = performance.now();
  await page.getByRole('button', { name: /^Render / }).click();
  await finished(page);
  const warm = (performance.now() - from) / 1000;
  await context.close();
  return { seconds, cold, warm, memory: highest };
}

async function finished(page: Page): Promise<void> {
  await page.getByText(/^Rendering… The deck/).waitFor();
  // Looked at now and then, and quickly: what looks takes time from what is measured.
  const isMade = () => document.body.textContent?.includes('Made:') ?? false;
  await page.waitForFunction(isMade, undefined, { polling: 200, timeout: 600_000 });
}

/** The same frames, encoded by the browser as the booth does and by Debian's ffmpeg at the same quantizer. */
async function againstFfmpeg(
  context: BrowserContext,
  app: string,
  film: string,
  folder: string
): Promise<void> {
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-i',
    film,
    '-fps_mode',
    'passthrough',
    '-pix_fmt',
    'rgb24',
    join(folder, 'f%04d.png')
  ]);
  const names = (await readdir(folder)).filter((n) => /^f\d+\.png$/.test(n)).sort();
  const frames = await Promise.all(
    names.map(async (n) => (await readFile(join(folder, n))).toString('base64'))
  );
  const page = await context.newPage();
  await page.addInitScript('globalThis.__name ??= (f) => f');
  await page.goto(app);
  const ours = await page.evaluate(encodeFrames, frames);
  await context.close();
  const from = performance.now();
  const out = join(folder, 'native.webm');
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-framerate',
    '10',
    '-i',
    join(folder, 'f%04d.png'),
    '-pix_fmt',
    'yuv420p',
    '-c:v',
    'libvpx-vp9',
    '-deadline',
    'realtime',
    '-cpu-used',
    '6',
    '-row-mt',
    '1',
    '-b:v',
    '0',
    '-crf',
    '20',
    '-g',
    '9999',
    out
  ]);
  const native = performance.now() - from;
  const { size } = await (await import('node:fs/promises')).stat(out);
  report(
    `Encoding ${names.length} cards (1280x720, VP9, quantizer 20) in the browser, over native ffmpeg on the same frames, PNG read in both`,
    'within 1.3 times',
    `${(ours.took / native).toFixed(2)} times its time (${ms(ours.took)} and ${ms(native)}); ${(ours.bytes / 1e6).toFixed(2)} and ${(size / 1e6).toFixed(2)} MB`,
    ours.took / native <= 1.3
  );
}

async function encodeFrames(frames: string[]): Promise<{ took: number; bytes: number }> {
  const blobs = await Promise.all(
    frames.map(async (f) => {
      const bytes = Uint8Array.from(atob(f), (c) => c.charCodeAt(0));
      return new Blob([bytes], { type: 'image/png' });
    })
  );
  const from = performance.now();
  let bytes = 0;
  const encoder = new VideoEncoder({
    output: (chunk) => (bytes += chunk.byteLength),
    error: (error) => console.error(error)
  });
  encoder.configure({
    codec: 'vp09.00.31.08',
    width: 1280,
    height: 720,
    bitrateMode: 'quantizer',
    latencyMode: 'realtime'
  } as VideoEncoderConfig);
  for (const [i, blob] of blobs.entries()) {
    const picture = await createImageBitmap(blob);
    const frame = new VideoFrame(picture, { timestamp: i * 100_000 });
    encoder.encode(frame, {
      keyFrame: i === 0,
      vp9: { quantizer: 20 }
    } as VideoEncoderEncodeOptions);
    frame.close();
    picture.close();
    while (encoder.encodeQueueSize > 4) await new Promise((done) => setTimeout(done, 1));
  }
  await encoder.flush();
  encoder.close();
  return { took: performance.now() - from, bytes };
}
