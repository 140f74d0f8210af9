import type { Page } from '@playwright/test';
import { expect, idle } from './app.ts';

/** Opens Updates on an item, as from the list of items. */
export async function openUpdates(page: Page, title: string): Promise<void> {
  await page.getByRole('link', { name: 'Updates', exact: true }).click();
  await page.getByRole('searchbox', { name: 'Filter' }).fill(title);
  await page
    .getByRole('link', { name: new RegExp(`^Share the .*: ${title}$`) })
    .last()
    .click();
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Publish to 4 places/ })).toBeEnabled();
  await idle(page);
}
export const at = (page: Page, name: string) => page.getByRole('region', { name });
export const NOTES = 'Hearthside Notes';
export const FOLLOWERS = 'Wrenfold Loomworks: followers';
