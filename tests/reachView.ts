import type { Page } from '@playwright/test';
import { expect, type WorldControl } from './app.ts';

/** The address that the owner of the blog has in its log. */
export const OWN_ADDRESS = '203.0.113.7';

/** Imports the access log of the blog, as its owner downloads it, on the view of reach. */
export async function importLog(page: Page, world: WorldControl): Promise<void> {
  await page.getByRole('button', { name: 'Import access log…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Import an access log' });
  await dialog.getByLabel('Your own addresses, not counted').fill(OWN_ADDRESS);
  await dialog.getByLabel('Choose the log…').setInputFiles({
    name: 'access.log.gz',
    mimeType: 'application/gzip',
    buffer: await world.ownFile('access.log.gz')
  });
  await dialog.getByRole('button', { name: /^Add [\d,]+ visits$/ }).click();
  await expect(page.getByText(/^[\d,]+ visits added to Reach\.$/)).toBeVisible();
}

/** Imports what the channel exports of views by day. */
export async function importFigures(page: Page, world: WorldControl): Promise<void> {
  await page.getByRole('button', { name: 'Import CSV…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Import figures from a table' });
  await dialog.getByLabel('Choose a CSV file…').setInputFiles({
    name: 'figures.csv',
    mimeType: 'text/csv',
    buffer: await world.ownFile('figures.csv')
  });
  await dialog.getByRole('button', { name: /^Add [\d,]+ rows$/ }).click();
  await expect(page.getByText(/^[\d,]+ rows added to \d+ items\./)).toBeVisible();
}
