import type { Page } from '@playwright/test';
import { expect, idle, within } from './app.ts';

export const station = (page: Page, name: string) =>
  page.getByRole('list', { name: /^Stations of/ }).getByRole('button', { name });

/** A lane as the view makes it, open to be set. */
export async function newLane(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Lanes', exact: true }).click();
  await page.getByRole('button', { name: 'New lane' }).click();
}

/** A lane from the channel to the blog that takes the catalogue and is open at all hours. */
export async function catalogueLane(page: Page): Promise<void> {
  await newLane(page);
  await station(page, 'Filter').click();
  await page.getByRole('radio', { name: 'The catalogue, newest first' }).check();
  await page.getByRole('checkbox', { name: 'With captions' }).check();
  await station(page, 'Pace').click();
  await page.getByRole('spinbutton', { name: 'Most per day' }).fill('9');
  await page.getByRole('spinbutton', { name: 'Minutes between items' }).fill('0');
  await page.getByRole('spinbutton', { name: 'To (hour)' }).fill('24');
  await page.getByRole('spinbutton', { name: 'From (hour)' }).fill('0');
  await page.getByRole('spinbutton', { name: 'From (hour)' }).press('Tab');
  await expect(station(page, 'Pace')).toContainText('9 a day, at any hour');
  await station(page, 'Places').click();
  await page.getByRole('combobox', { name: 'Visibility' }).selectOption('public');
  await expect(station(page, 'Places')).toContainText('The Wrenfold Notebook, public');
}

/** A lane that has planned three posts: one a day at nine, from Monday 2 September 2030 on. */
export async function plannedLane(page: Page): Promise<void> {
  await newLane(page);
  await station(page, 'Filter').click();
  await page.getByRole('radio', { name: 'The catalogue, newest first' }).check();
  await page.getByRole('checkbox', { name: 'With captions' }).check();
  await station(page, 'Pace').click();
  await page.getByRole('spinbutton', { name: 'From (hour)' }).fill('9');
  await page.getByRole('spinbutton', { name: 'To (hour)' }).fill('18');
  await page.getByLabel('First day').fill('2030-09-02');
  await page.getByLabel('First day').press('Tab');
  await station(page, 'Approval').click();
  await page.getByRole('radio', { name: 'Publish without approval', exact: true }).check();
  await station(page, 'Places').click();
  await page.getByRole('combobox', { name: 'Visibility' }).selectOption('public');
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(page.getByText(/left out \d+ and made 3\.$/)).toBeVisible(within(60));
  await idle(page);
}
