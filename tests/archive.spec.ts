import { readFile, writeFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, idle, openAlert, openDesk, row, test, within } from './app.ts';
import { forgetDecisions, makeArchive, retitle, rowsOf, TWILL } from './archiveView.ts';

const title = (page: Page) => page.getByRole('textbox', { name: 'Title', exact: true });
const importing = (page: Page) => page.getByRole('region', { name: 'Import an archive' });
const choose = (page: Page, file: string) =>
  importing(page).getByLabel('Choose an archive…').setInputFiles(file);

test('what was made in one browser goes on in another, keys and edits included', async ({
  home: page,
  browser,
  emptyApp
}, info) => {
  await retitle(page, 'Twill, told slowly');
  await page.goto('/archive');
  await idle(page);
  const file = await makeArchive(page, info, 'nine shuttles fly');
  await expect(page.getByText(/^Last archive: /)).toBeVisible();
  const before = await rowsOf(page);
  expect(before.items?.length).toBeGreaterThan(20);

  const context = await browser.newContext({ baseURL: emptyApp.origin });
  const other = await context.newPage();
  await other.goto('/');
  await other.getByRole('link', { name: 'Import it' }).click();
  await choose(other, file);
  const plan = importing(other);
  await expect(plan.getByRole('row', { name: /^Videos and posts/ })).toContainText(
    String(before.items?.length)
  );
  await plan.getByLabel('Passphrase of the keys').fill('eight shuttles fly');
  await plan.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(plan.getByRole('alert')).toHaveText(/This is not the passphrase/);
  expect((await rowsOf(other)).items).toEqual([]);
  await plan.getByLabel('Passphrase of the keys').fill('nine shuttles fly');
  await plan.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(plan.getByText(/^Imported \d+ rows from/)).toBeVisible();
  expect(await rowsOf(other)).toEqual(before);

  await plan.getByRole('link', { name: 'Go to In step' }).click();
  await expect(row(other, TWILL)).toBeVisible();
  await openDesk(other, TWILL);
  await expect(title(other)).toHaveValue('Twill, told slowly');
  // The key came with it.
  await expect(other.getByRole('button', { name: 'Save as draft' })).toBeEnabled();
  await context.close();
});

test('an archive is merged: what differs is shown, chosen, and can be undone', async ({
  home: page
}, info) => {
  await retitle(page, 'As archived');
  await page.goto('/archive');
  const file = await makeArchive(page, info);
  await page.goto('/');
  await retitle(page, 'As it is now');
  await page.goto('/archive');
  await choose(page, file);
  const plan = importing(page);
  const draft = plan.getByRole('row', { name: /Drafts on the desk/ }).last();
  await expect(draft.getByRole('checkbox')).not.toBeChecked();
  await expect(draft).toContainText('Threading');
  await draft.getByRole('checkbox').check();
  await plan.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(plan.getByText(/^Imported \d+ rows? from/)).toBeVisible();
  await plan.getByRole('link', { name: 'Go to In step' }).click();
  await openDesk(page, TWILL);
  await expect(title(page)).toHaveValue('As archived');

  await page.goto('/journal');
  await page.getByRole('button', { name: /^Undo: Archive imported/ }).click();
  await expect(page.getByRole('row', { name: /Brought back/ }).first()).toBeVisible();
  await page.goto('/');
  await openDesk(page, TWILL);
  await expect(title(page)).toHaveValue('As it is now');
});

test('damaged, cut off, and no archive at all: it says so, and nothing is lost', async ({
  home: page
}, info) => {
  await page.goto('/archive');
  const file = await makeArchive(page, info);
  const before = await rowsOf(page);
  const bytes = await readFile(file);
  const saved = async (name: string, data: Uint8Array) => {
    const path = info.outputPath(name);
    await writeFile(path, data);
    return path;
  };
  const alert = importing(page).getByRole('alert');
  await choose(page, await saved('cut.zip', bytes.subarray(0, bytes.length / 2)));
  await expect(alert).toHaveText(/The end of this file is missing, or it is damaged/);
  await choose(page, await saved('notes.zip', Buffer.from('Buy more weft.')));
  await expect(alert).toHaveText(/This file is not a Swift Twin archive/);
  // Some bytes of the catalogue change on the way: it is left out, the rest can be taken.
  const damaged = Buffer.from(bytes);
  const from = bytes.indexOf('tables/items.jsonl') + 100;
  damaged.fill(0, from, from + 60);
  await forgetDecisions(page);
  await choose(page, await saved('damaged.zip', damaged));
  await expect(alert).toContainText('tables/items.jsonl is damaged');
  await importing(page).getByRole('button', { name: 'Import', exact: true }).click();
  await expect(importing(page).getByText(/^Imported 2 rows from/)).toBeVisible();
  expect(await rowsOf(page)).toEqual(before);
});

test('where there is no room for an archive, it says so; with room again, it is made', async ({
  home: page
}, info) => {
  await page.goto('/archive');
  const client = await page.context().newCDPSession(page);
  const { origin } = new URL(page.url());
  await client.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 1_000 });
  const making = page.getByRole('region', { name: 'Make an archive' });
  await making.getByRole('button', { name: 'Make an archive' }).click();
  await expect(making.getByRole('alert')).toContainText('This browser could not save it');
  await expect(making.getByText('No archive has been made in this browser yet.')).toBeVisible();
  await client.send('Storage.overrideQuotaForOrigin', { origin });
  await makeArchive(page, info);
  await expect(making.getByText(/^Last archive: /)).toBeVisible();
});

test('a copy goes to a folder each day, the last seven stay, and the browser may ask again', async ({
  home: page
}) => {
  // The dialog of the system cannot be driven: a folder of the browser stands in for one of the machine.
  await page.addInitScript(() => {
    window.showDirectoryPicker = async () =>
      (await navigator.storage.getDirectory()).getDirectoryHandle('copies', { create: true });
    const query = FileSystemHandle.prototype.queryPermission;
    FileSystemHandle.prototype.queryPermission = function (wish) {
      return localStorage.getItem('asks-again')
        ? Promise.resolve('prompt')
        : query.call(this, wish);
    };
  });
  await page.goto('/archive');
  const daily = page.getByRole('region', { name: 'Daily copy to a folder' });
  await daily.getByRole('button', { name: 'Choose a folder…' }).click();
  await expect(daily.getByText(/^Last copy: /)).toBeVisible();
  const copies = () =>
    page.evaluate(async () => {
      const root = await navigator.storage.getDirectory();
      const names: string[] = [];
      for await (const name of (await root.getDirectoryHandle('copies')).keys()) names.push(name);
      return names.toSorted();
    });
  expect(await copies()).toEqual([expect.stringMatching(/^swift-twin-.*\.zip$/)]);

  /** As if the last copy had been made two days ago, and others before it. */
  const twoDaysLater = () =>
    page.evaluate(async () => {
      const root = await navigator.storage.getDirectory();
      const folder = await root.getDirectoryHandle('copies');
      for (let n = 1; n <= 8; n++)
        await folder.getFileHandle(`swift-twin-2026-01-0${n}-0900.zip`, { create: true });
      await folder.getFileHandle('mine.zip', { create: true });
      const asked = indexedDB.open('swift-twin');
      await new Promise((done) => (asked.onsuccess = done));
      const change = asked.result.transaction('settings', 'readwrite');
      const read = change.objectStore('settings').get('archive/folder');
      await new Promise((done) => (read.onsuccess = done));
      const { value } = read.result as { value: object };
      const last = new Date(Date.now() - 2 * 86_400_000).toISOString();
      change.objectStore('settings').put({ name: 'archive/folder', value: { ...value, last } });
      await new Promise((done) => (change.oncomplete = done));
      asked.result.close();
    });
  await twoDaysLater();
  await page.reload();
  await expect.poll(copies, within(20)).toHaveLength(8);
  // The oldest of ours went, and nothing else.
  expect(await copies()).toContain('mine.zip');
  expect((await copies()).join()).not.toMatch(/2026-01-0[12]/);
  expect((await copies()).join()).toMatch(/2026-01-08/);

  await twoDaysLater();
  await page.evaluate(() => localStorage.setItem('asks-again', 'yes'));
  await page.reload();
  await expect(daily.getByRole('alert')).toContainText('has to ask you again', within(20));
  await openAlert(page, 'the daily copy fails');
  await page.evaluate(() => localStorage.removeItem('asks-again'));
  await daily.getByRole('button', { name: 'Allow the folder' }).click();
  await expect(daily.getByRole('alert')).toBeHidden();

  await daily.getByRole('button', { name: 'Stop daily copies' }).click();
  await expect(daily.getByRole('button', { name: 'Choose a folder…' })).toBeVisible();
  expect(await copies()).toHaveLength(8);
});
