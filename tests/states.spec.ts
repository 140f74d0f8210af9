import { expect, idle, openDesk, row, test } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';

test('a standing that no twin has says so, with a way out', async ({ home: page }) => {
  await page
    .getByRole('button', { name: /^Drifted/ })
    .first()
    .click();
  await row(page, 'Sleying a reed without crossed ends')
    .getByRole('button', { name: 'Drifted: look' })
    .click();
  await page.getByRole('button', { name: 'Leave both as they are' }).click();
  await expect(page.getByRole('heading', { name: 'No twin is drifted' })).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(row(page, TWILL)).toBeVisible();
});

test('reading can be stopped, and says that nothing was lost', async ({ home: page, world }) => {
  await world.faults({ slow: '4000' });
  await page.getByRole('button', { name: 'Read places' }).click();
  await page.getByRole('button', { name: /^Stop: Reading/ }).click();
  await expect(
    page.getByRole('status').filter({ hasText: 'Stopped. Nothing was lost.' })
  ).toBeVisible();
  await idle(page);
  await expect(row(page, TWILL)).toBeVisible();
});

test('a video that is not here', async ({ home: page }) => {
  await page.goto('/desk/no-such-video');
  await expect(page.getByRole('heading', { name: 'This video is not here' })).toBeVisible();
  await page.goto('/no-such-page');
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
});

test('several twins are set aside at once', async ({ home: page }) => {
  for (const title of [TWILL, 'Straight selvedges: five things that helped']) {
    await row(page, title).getByRole('checkbox').check();
  }
  await expect(page.getByText('2 twins selected')).toBeVisible();
  await page.getByRole('button', { name: 'Set aside or take up' }).click();
  await expect(page.getByRole('button', { name: /^Set aside 4/ })).toBeVisible();
  await page.getByRole('link', { name: 'Journal' }).click();
  await page.getByRole('searchbox', { name: 'Filter' }).fill('set aside');
  await expect(page.getByRole('cell', { name: 'Set aside' })).toHaveCount(2);
  await page.getByRole('searchbox', { name: 'Filter' }).fill('nothing like it');
  await expect(page.getByRole('heading', { name: 'No line says that' })).toBeVisible();
});

test('captions that cannot be read are told, and can be read again', async ({ home: page }) => {
  await page.route('**/api/read?url=*captions.vtt', (route) => route.abort());
  await openDesk(page, TWILL);
  const told = page.getByRole('region', { name: 'Transcript' }).first().getByRole('alert');
  await expect(told).toContainText('did not answer');
  await page.unroute('**/api/read?url=*captions.vtt');
  await told.getByRole('button', { name: 'Read them again' }).click();
  await expect(page.getByRole('button', { name: 'Play from 44 seconds' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Counting the heddles' }).first()).toBeVisible();
});

test('a browser without a voice says so', async ({ home: page }) => {
  await page.evaluate(() => (speechSynthesis.getVoices = () => []));
  await openDesk(page, TWILL);
  await page.getByRole('button', { name: 'Read aloud' }).click();
  await expect(page.getByText('This browser has no voice')).toBeVisible();
});

test('light and dark are kept', async ({ home: page }) => {
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').fill('light and dark');
  await page.keyboard.press('Enter');
  await expect(page.locator('html')).toHaveAttribute('data-mode', 'dark');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-mode', 'dark');
  await expect(page.getByRole('button', { name: 'Use light colours' })).toBeVisible();
});

test('the HTML can be copied', async ({ home: page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openDesk(page, TWILL);
  await page.getByText('HTML', { exact: true }).click();
  await page.getByText('Take it out').click();
  await page.getByRole('button', { name: 'Copy HTML' }).click();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied).toContain('<iframe');
  expect(await page.getByRole('textbox', { name: 'HTML of the post' }).inputValue()).toBe(copied);
});
