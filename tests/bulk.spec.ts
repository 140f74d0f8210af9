import { expect, idle, row, test, within } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
/** Posts that are made in one go. */
const COUNT = Number(process.env.BULK ?? 8);

test('posts of many videos are made in one go, also when the page is loaded anew, and undone as a whole', async ({
  page,
  backApp
}) => {
  test.slow();
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
  // What was told in a post years ago is not told in another, unless the user wants it.
  const left = dialog.getByRole('checkbox', {
    name: /^Leave out \d that seems? to have a post already$/
  });
  await expect(left).toBeChecked();
  await expect(dialog.getByRole('button', { name: /^Make [1-7] posts?$/ })).toBeEnabled();
  await left.uncheck();
  await dialog.getByRole('radio', { name: 'Spread evenly after I approve them' }).check();
  await expect(dialog.getByText('Mon, Fri, your time zone.')).toBeVisible();
  const from = Date.now();
  await dialog.getByRole('button', { name: `Make ${COUNT} posts` }).click();
  const deck = page.getByRole('contentinfo', { name: 'Deck' });
  if (!process.env.BULK) {
    await expect(deck.getByText(/^Making \d of/)).toBeVisible();
    await page.reload();
  }
  await page.goto(`${backApp.origin}/review`);
  // Findings are lists within its items.
  const made = page.getByRole('list', { name: 'Made by lanes' }).locator('> li');
  await expect(made).toHaveCount(COUNT, within(120));
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

test('posts of a selection are tagged, published and scheduled as one job, and undone as one', async ({
  home: page,
  world
}) => {
  const DRAFT = 'Hemstitching on the loom';
  const standings = page.getByRole('group', { name: 'Show by standing' });
  await standings.getByRole('button', { name: /^In progress/ }).click();
  await expect(row(page, DRAFT)).toBeVisible();
  await row(page, DRAFT).getByRole('checkbox').check();
  const open = () => page.getByRole('button', { name: 'Publish, schedule or tag…' }).click();
  await open();
  const dialog = page.getByRole('dialog', { name: 'Publish, schedule or tag' });
  await dialog.getByRole('radio', { name: 'Schedule 1 draft' }).check();
  // What no pace can be is put right.
  await dialog.getByLabel('Posts a week').fill('0');
  await dialog.getByLabel('Posts a week').press('Tab');
  await expect(dialog.getByLabel('Posts a week')).toHaveValue('1');
  await dialog.getByLabel('First day').fill('2030-09-02');
  await expect(dialog.getByRole('status')).toContainText(/2 Sept? 2030, 09:00, your time\s+zone/);
  await dialog.getByRole('button', { name: 'Schedule 1 draft' }).click();
  await expect(page.getByText('1 post changed.')).toBeVisible();
  await idle(page);
  await expect(row(page, DRAFT)).toContainText(/2 Sept? 2030/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row(page, DRAFT)).toContainText('draft');
  await idle(page);

  // All posts that are shown get a tag, while the blog loses answers.
  await standings.getByRole('button', { name: /^In step/ }).click();
  await page.locator('[data-row="0"]').focus();
  await page.keyboard.press('Control+a');
  await world.faults({ loseOneIn: '3' });
  await open();
  const add = dialog.getByLabel('Add tags');
  await add.fill('back catalogue');
  await add.press('Enter');
  await dialog.getByRole('button', { name: /^Change tags of \d posts/ }).press('Enter');
  await expect(page.getByText(/posts? changed\./)).toBeVisible(within(60));
  await world.faults({});
  await expect
    .poll(() => world.read('/blog/feed.xml'), within(40))
    .toMatch(/(?:back catalogue[\s\S]*){4}/);
});

test('narrated videos of several posts wait for review after one go', async ({ home: page }) => {
  await page
    .getByRole('group', { name: 'Show by standing' })
    .getByRole('button', { name: /^No video yet/ })
    .click();
  await page.locator('[data-row="0"]').focus();
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Make 3 videos…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Make videos of 3 posts' });
  await dialog.getByRole('radio', { name: 'Spread evenly after I approve them' }).check();
  await dialog.getByLabel('First day').fill('2030-09-02');
  await dialog.getByRole('button', { name: 'Make 3 videos' }).click();
  await expect(
    page.getByRole('contentinfo', { name: 'Deck' }).getByText(/^Making 1 of 3/)
  ).toBeVisible(within(30));
  await page.getByRole('link', { name: 'Lanes', exact: true }).first().click();
  const lane = page.getByRole('article', { name: /^Videos of 3 posts/ });
  await expect(lane).toContainText('A narrated video');
  // The others take minutes; one is enough to see that they come.
  await expect(lane).toContainText('1 to review', within(60));
  await expect(lane).toContainText('from 2 Sep 2030');
});
