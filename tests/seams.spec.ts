import { join } from 'node:path';
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import type { Page } from '@playwright/test';
import { expect, idle, openBooth, openDesk, row, test, within } from './app.ts';
import { catalogueLane, station } from './lanesView.ts';
import { frameTimes, makeMedia } from './media.ts';
import { exportFromBooth } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
const COSTS = 'What a woven metre costs, and why';
const REFRESH = /^Refresh\s*: Wrenfold Loomworks$/;

/** All rows of a table of this browser's database. */
const table = <T>(page: Page, name: string): Promise<T[]> =>
  page.evaluate(async (store) => {
    const asked = indexedDB.open('swift-twin');
    await new Promise((done) => (asked.onsuccess = done));
    const all = asked.result.transaction(store).objectStore(store).getAll();
    await new Promise((done) => (all.onsuccess = done));
    asked.result.close();
    return all.result as never[];
  }, name) as Promise<T[]>;

/** Runs of four words of a text. */
function runsOf(text: string): Set<string> {
  const words =
    text
      .replace(/<[^>]*>/g, ' ')
      .toLowerCase()
      .match(/[\p{L}\p{N}’']+/gu) ?? [];
  return new Set(words.slice(3).map((_, i) => words.slice(i, i + 4).join(' ')));
}

test('two lanes that run at once over one channel: each post has the text of its own video', async ({
  home: page
}) => {
  await catalogueLane(page);
  await page.getByRole('button', { name: 'Duplicate' }).click();
  const lanes = ['Lane 1', 'Lane 1, copy'].map((name) =>
    page.getByRole('article', { name, exact: true })
  );
  await expect(lanes[1]!).toBeVisible();
  for (const [i, word] of ['twill', 'stream'].entries()) {
    await lanes[i]!.getByRole('button', { name: /^Source/ }).click();
    await lanes[i]!.getByRole('textbox', { name: 'With all of these words' }).fill(word);
    await page.keyboard.press('Enter');
    await expect(lanes[i]!.getByRole('button', { name: /^Source/ })).toContainText(`with ${word}`);
  }
  for (const lane of lanes) await lane.getByRole('button', { name: 'Run now' }).click();
  for (const lane of lanes)
    await expect(lane.getByRole('button', { name: /^Make/ })).toContainText(
      /[1-9] made/,
      within(60)
    );
  await idle(page);
  const entries = await table<{ itemId: string; payload: { title: string; html: string } }>(
    page,
    'outbox'
  );
  const details = await table<{ id: string; cues: { text: string }[] }>(page, 'details');
  expect(entries.length).toBeGreaterThanOrEqual(2);
  for (const { itemId, payload } of entries) {
    const cues = details.find((d) => d.id === itemId)?.cues ?? [];
    const said = runsOf(cues.map((c) => c.text).join(' '));
    // The transcript stands in the post whole, so most of its runs must be the talk's.
    const written = [...runsOf(payload.html)];
    const own = written.filter((run) => said.has(run)).length / written.length;
    expect(own, payload.title).toBeGreaterThan(0.5);
  }
  expect(
    await table(page, 'records').then((r) => (r as { state: string }[]).length)
  ).toBeGreaterThan(1);
});

test('a channel that is read from two tabs at the same instant keeps all of its uploads', async ({
  home: page,
  context,
  world
}) => {
  const videos = async () =>
    (await table<{ kind: string }>(page, 'items')).filter((i) => i.kind === 'video').length;
  const before = await videos();
  expect(before).toBeGreaterThan(10);
  const other = await context.newPage();
  for (const tab of [page, other]) await tab.goto('/places');
  await world.faults({ slow: '150' });
  for (let round = 0; round < 3; round++) {
    await Promise.all(
      [page, other].map((tab) => tab.getByRole('button', { name: REFRESH }).click())
    );
    for (const tab of [page, other]) await idle(tab);
    expect(await videos()).toBe(before);
  }
});

test('a lane that is changed in another tab is shown as it is, and its settings are kept apart', async ({
  home: page,
  context
}) => {
  await catalogueLane(page);
  const other = await context.newPage();
  await other.goto('/lanes');
  const note = page.getByRole('textbox', { name: 'Note on the lane' });
  await expect(other.getByRole('switch')).not.toBeChecked();
  await page.getByRole('switch').click();
  await expect(other.getByRole('switch')).toBeChecked();
  await other.getByRole('switch').click();
  await expect(page.getByRole('switch')).not.toBeChecked();
  // A field that is saved here afterwards switches nothing on again.
  await note.fill('For the neighbours');
  await note.press('Tab');
  await expect(other.getByRole('textbox', { name: 'Note on the lane' })).toHaveValue(
    'For the neighbours'
  );
  await expect(other.getByRole('switch')).not.toBeChecked();
  await page.reload();
  await expect(page.getByRole('switch')).not.toBeChecked();
});

test('typing that the database refuses is reported, tried again, and kept', async ({
  home: page
}) => {
  await openDesk(page, TWILL);
  await page.evaluate(() => {
    const { put } = IDBObjectStore.prototype;
    IDBObjectStore.prototype.put = function (...args: Parameters<IDBObjectStore['put']>) {
      if (this.name === 'drafts' && !Object.hasOwn(window, 'isRoom'))
        throw new DOMException('The disk is full.', 'QuotaExceededError');
      return put.apply(this, args);
    };
  });
  const title = page.getByRole('textbox', { name: 'Title', exact: true });
  await title.fill('Twill, threaded');
  const alert = page.getByRole('alert').filter({ hasText: 'Your last changes are not saved' });
  await expect(alert).toContainText('This browser could not save it.');
  await page.evaluate(() => Object.assign(window, { isRoom: true }));
  await alert.getByRole('button', { name: 'Save again' }).click();
  await expect(alert).toHaveCount(0);
  await page.reload();
  await expect(title).toHaveValue('Twill, threaded');
});

test('a run that was undone can be made again', async ({ home: page, world }) => {
  test.slow();
  await catalogueLane(page);
  await station(page, 'Source').click();
  await page.getByRole('textbox', { name: 'With all of these words' }).fill('twill');
  await page.keyboard.press('Enter');
  await station(page, 'Approval').click();
  await page.getByRole('radio', { name: 'Publish without approval' }).check();
  await page.getByRole('switch').click();
  await expect(station(page, 'Places')).toContainText('1 published', within(60));
  expect(await world.posts(TWILL)).toBe(1);
  await page.getByText(/^History: /).click();
  await page.getByRole('button', { name: 'Undo this run…' }).click();
  await page.getByRole('button', { name: 'Delete what it published' }).click();
  await expect(page.getByText('1 item was undone.')).toBeVisible(within(30));
  expect(await world.posts(TWILL)).toBe(0);
  await page.getByRole('button', { name: /^Make again/ }).click();
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(station(page, 'Places')).toContainText('1 published', within(60));
  expect(await world.posts(TWILL)).toBe(1);
});

test('a video that is private until a date is scheduled, then open, embedded and in step', async ({
  home: page,
  world
}) => {
  test.slow();
  await openBooth(page, COSTS);
  await page.getByRole('button', { name: 'Render the video' }).click();
  await expect(page.getByRole('button', { name: 'Watch it' })).toBeVisible(within(120));
  await page.getByLabel('Visibility').selectOption('dated');
  const inTwoHours = new Date(Date.now() + 2 * 3_600_000 - new Date().getTimezoneOffset() * 60_000);
  await page.getByLabel(/^Date and time \(/).fill(inTwoHours.toISOString().slice(0, 16));
  await expect(page.getByRole('checkbox', { name: /^Embed it in the post/ })).toBeEnabled();
  await page.getByRole('button', { name: /^Schedule for/ }).click();
  await expect(page.getByText(/Wrenfold Loomworks: Private until /)).toBeVisible(within(60));
  // Its page would be a 404 for whoever is not signed in there.
  await expect(page.getByRole('link', { name: 'View video' })).toHaveCount(0);
  await idle(page);
  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await expect(row(page, COSTS)).toHaveAccessibleName(/In progress/);

  await world.openVideo(COSTS);
  await page.goto('/places');
  await page.getByRole('button', { name: REFRESH }).click();
  await idle(page);
  await page.goto('/');
  await expect(row(page, COSTS)).toHaveAccessibleName(/In step/, within(60));
  await page.getByRole('link', { name: 'Journal', exact: true }).click();
  await expect(page.getByRole('cell', { name: 'Embedded in its post' })).toHaveCount(1);
});

test('a clip in front is whole, though the render was stopped while it was made', async ({
  home: page
}) => {
  test.slow();
  const folder = await mkdtemp(join(tmpdir(), 'clips-'));
  const clip = join(folder, 'opening.mp4');
  // Four seconds in which every frame differs.
  makeMedia(clip, '-f', 'lavfi', '-i', 'testsrc2=d=4:s=1280x720:r=30', '-pix_fmt', 'yuv420p');
  await openBooth(page, COSTS);
  await page.getByLabel('for: Clip in front').setInputFiles(clip);
  await expect(page.getByText('opening.mp4, 4 s')).toBeVisible();
  await idle(page);
  const render = page.getByRole('button', { name: /^(Render the video|Continue rendering)$/ });
  for (const wait of [700, 1_100, 1_500]) {
    await render.click();
    await page.waitForTimeout(wait);
    const stop = page.getByRole('button', { name: /^Stop: Rendering/ });
    if (await stop.isVisible()) await stop.click();
    await expect(page.getByRole('button', { name: /^Stop: Rendering/ })).toHaveCount(0);
  }
  await render.or(page.getByRole('button', { name: 'Render again' })).click();
  const failed = page.getByText('Rendering failed.');
  const done = page.getByRole('button', { name: 'Watch it' });
  await expect(done.or(failed)).toBeVisible(within(120));
  await expect(failed).toHaveCount(0);
  const path = await exportFromBooth(page, 'Video file', join(folder, 'made.webm'));
  // Nearly all of its hundred and twenty frames, and no freeze.
  expect(frameTimes(path).filter((t) => t < 4).length).toBeGreaterThan(100);
  const captions = await exportFromBooth(page, 'Captions (WebVTT)', join(folder, 'made.vtt'));
  const { readFile } = await import('node:fs/promises');
  const [first = ''] = /\d\d:\d\d[:.\d]* -->/.exec(await readFile(captions, 'utf8')) ?? [];
  expect(first).toMatch(/^(?:00:)?00:04\.|^(?:00:)?00:05\./);
});
