import { expect, idle, row, test } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
/** Posts that are made in one go. */
const COUNT = Number(process.env.BULK ?? 8);

test('posts of many videos are made in one go, also when the page is loaded anew, and undone as a whole', async ({
  page,
  backApp
}) => {
  test.setTimeout(180_000);
  await page.goto(backApp.origin);
  await expect(row(page, TWILL)).toBeVisible();
  await idle(page);
  const standings = page.getByRole('group', { name: 'Show by standing' });
  await standings.getByRole('button', { name: /^No post yet/ }).click();
  const grid = page.getByRole('grid');
  const rows = Number(await grid.getAttribute('aria-rowcount'));
  expect(rows).toBeGreaterThan(COUNT);
  // From the last one on, which are out and have captions.
  await page.locator('[data-row="0"]').focus();
  await page.keyboard.press('End');
  for (let i = 1; i < COUNT; i++) {
    await expect(page.locator(`[data-row="${rows - i}"]`)).toBeFocused();
    await page.keyboard.press('Shift+ArrowUp');
  }
  await expect(page.getByText(`${COUNT} selected`)).toBeVisible();
  await page.getByRole('button', { name: `Make ${COUNT} posts…` }).click();
  const dialog = page.getByRole('dialog', { name: `Make posts of ${COUNT} videos` });
  await dialog.getByRole('radio', { name: 'Spread evenly after I approve them' }).check();
  await expect(dialog.getByText('Mon, Fri, your time zone.')).toBeVisible();
  const from = Date.now();
  await dialog.getByRole('button', { name: `Make ${COUNT} posts` }).click();
  const deck = page.getByRole('contentinfo', { name: 'Deck' });
  if (!process.env.BULK) {
    await expect(deck.getByText(/^Making [2-5] of/)).toBeVisible();
    await page.reload();
  }
  await page.goto(`${backApp.origin}/review`);
  const made = page.getByRole('list', { name: 'Made by lanes' }).getByRole('listitem');
  await expect(made).toHaveCount(COUNT, { timeout: 120_000 });
  if (process.env.BULK) console.log(`${COUNT} posts in ${(Date.now() - from) / 1000} s`);
  await idle(page);

  await page.getByRole('link', { name: 'Lanes', exact: true }).first().click();
  const lane = page.getByRole('article', { name: /^Posts of/ });
  await expect(lane).toContainText(`${COUNT} to review`);
  await expect(lane).toContainText('2 a week');
  // What was made before the page was loaded anew is a run of its own, and so is the rest.
  const runs = lane.getByRole('button', { name: 'Undo this run…' });
  await lane.getByText(/^History/).click();
  await expect(runs.first()).toBeVisible();
  for (let left = await runs.count(); left > 0; left--) {
    await runs.nth(left - 1).click();
    await lane.getByRole('button', { name: 'Delete what it published' }).click();
    await expect(page.getByText(/undone/i).first()).toBeVisible();
    await idle(page);
  }
  await expect(lane).toContainText('0 to review');
});
