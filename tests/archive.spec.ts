import { readFile, writeFile } from 'node:fs/promises';
import type { Download, Page, TestInfo } from '@playwright/test';
import { expect, idle, openDesk, row, test } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
const title = (page: Page) => page.getByRole('textbox', { name: 'Title', exact: true });
const importing = (page: Page) => page.getByRole('region', { name: 'Import an archive' });
const choose = (page: Page, file: string) =>
  importing(page).getByLabel('Choose an archive…').setInputFiles(file);

/** Makes an archive on the view that is open. @returns where it was saved */
async function makeArchive(page: Page, info: TestInfo, passphrase = ''): Promise<string> {
  const making = page.getByRole('region', { name: 'Make an archive' });
  if (passphrase) {
    await making.getByLabel('Keys of your places').check();
    await making.getByLabel('Passphrase', { exact: true }).fill(passphrase);
    await expect(making.getByRole('button', { name: 'Make an archive' })).toBeDisabled();
    await making.getByLabel('Repeat the passphrase').fill(passphrase);
  }
  const coming = page.waitForEvent('download');
  await making.getByRole('button', { name: 'Make an archive' }).click();
  const download: Download = await coming;
  expect(download.suggestedFilename()).toMatch(/^swift-twin-\d{4}-\d\d-\d\d-\d{4}\.zip$/);
  const file = info.outputPath(download.suggestedFilename());
  await download.saveAs(file);
  return file;
}

/** All rows of a browser as text, blobs by their bytes, but for what is of one browser or reckoned anew. */
const rowsOf = (page: Page): Promise<Record<string, string[]>> =>
  page.evaluate(async () => {
    const asked = indexedDB.open('swift-twin');
    await new Promise((done) => (asked.onsuccess = done));
    const all: Record<string, string[]> = {};
    for (const name of asked.result.objectStoreNames) {
      if (/^(?:keys|twins|pauses|trash|speech|samples|settings|journal|baselines)$/.test(name))
        continue;
      const read = asked.result.transaction(name).objectStore(name).getAll();
      await new Promise((done) => (read.onsuccess = done));
      all[name] = await Promise.all(
        (read.result as Record<string, unknown>[]).map(async (row) => {
          const { blob } = row;
          const bytes = blob instanceof Blob ? [...new Uint8Array(await blob.arrayBuffer())] : [];
          const fields = Object.entries({ ...row, bytes });
          return JSON.stringify(fields.toSorted(([a], [b]) => (a < b ? -1 : 1)));
        })
      );
    }
    asked.result.close();
    return all;
  });

/** Edits the title of the post on the desk, and waits until that is kept. */
async function retitle(page: Page, words: string): Promise<void> {
  await openDesk(page, TWILL);
  await title(page).fill(words);
  await expect.poll(async () => (await rowsOf(page)).drafts?.join()).toContain(words);
}

/** Forgets what was set aside, as if it had been decided after the archive was made. */
const forgetDecisions = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const asked = indexedDB.open('swift-twin');
    await new Promise((done) => (asked.onsuccess = done));
    const change = asked.result.transaction('decisions', 'readwrite');
    change.objectStore('decisions').clear();
    await new Promise((done) => (change.oncomplete = done));
    asked.result.close();
  });

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

test('a copy goes to a folder each day, and the folder can be changed and left', async ({
  home: page
}) => {
  // The dialog of the system cannot be driven: a folder of the browser stands in for one of the machine.
  await page.addInitScript(() => {
    window.showDirectoryPicker = async () =>
      (await navigator.storage.getDirectory()).getDirectoryHandle('copies', { create: true });
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
      return names;
    });
  expect(await copies()).toEqual([expect.stringMatching(/^swift-twin-.*\.zip$/)]);
  await daily.getByRole('button', { name: 'Stop daily copies' }).click();
  await expect(daily.getByRole('button', { name: 'Choose a folder…' })).toBeVisible();
  expect(await copies()).toHaveLength(1);
});
