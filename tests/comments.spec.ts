import type { Page } from '@playwright/test';
import { expect, openAlert, test, within } from './app.ts';

const POST = 'Winding a warp on a board, start to finish';
const URL_OF_POST = '/blog/posts/winding-a-warp-on-a-board';

/** Chooses on the channel's card what becomes of comments on its videos. */
async function chooseRule(page: Page, rule: string): Promise<void> {
  await page.goto('/places');
  await page.getByLabel('Comments on its videos').selectOption(rule);
}

const conversation = (page: Page) =>
  page.getByRole('region', { name: `Comments on ${POST}`, exact: true });

test('comments are looked through, and those that are chosen stand in the post', async ({
  home: page,
  world
}) => {
  await page.goto('/comments');
  await expect(page.getByText('Comments are not shown in posts')).toBeVisible();
  await page.getByRole('link', { name: 'Go to Places' }).click();
  await chooseRule(page, 'I choose which to show in posts');
  await openAlert(page, /^9 new comments$/);
  const comments = conversation(page).getByRole('listitem');
  await expect(comments).toHaveCount(4);
  await expect(comments.filter({ hasText: 'answers Orla Fennick' })).toHaveCount(1);
  const spam = comments.filter({ hasText: 'best prices' });
  await expect(spam).toContainText('has links');
  await expect(spam.locator('img, script, [onclick]')).toHaveCount(0);

  // Two at once, by the keyboard, while the blog loses its first answer.
  await world.faults({ loseOneIn: '3' });
  for (const author of ['Orla Fennick', 'Isolde Wrenfold']) {
    const box = conversation(page).getByRole('checkbox', { name: `comment by ${author}` });
    await box.focus();
    await page.keyboard.press('Space');
  }
  await page.getByRole('button', { name: 'Show 2 in posts' }).press('Enter');
  await expect(comments).toHaveCount(2);
  await world.faults({});
  const shown = async () =>
    [...(await world.read(URL_OF_POST)).matchAll(/p-author">([^<]+)<\/span>\s*at/g)].map(
      (m) => m[1]
    );
  await expect.poll(shown, within(40)).toEqual(['Orla Fennick', 'Isolde Wrenfold']);
  expect(await world.read(URL_OF_POST)).toMatch(/p-publication">Wrenfold Loomworks</);

  // The advertisement is left out, and can be found again.
  await spam.getByRole('button', { name: /^Leave out/ }).click();
  await expect(comments).toHaveCount(1);
  await page.getByRole('radio', { name: 'Left out (1)' }).check();
  await expect(comments).toContainText('best prices');

  await page.getByRole('radio', { name: 'Shown in posts (2)' }).check();
  await page.getByRole('button', { name: /Remove the comment by Isolde/ }).click();
  await expect.poll(shown, within(40)).toEqual(['Orla Fennick']);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(shown, within(40)).toEqual(['Orla Fennick', 'Isolde Wrenfold']);
  await page.goto('/journal');
  await expect(page.getByText('Comments added to the post').first()).toBeVisible();
});

test('a blog that lets nothing be changed shows none, and says so', async ({ home: page }) => {
  await page.goto('/places');
  const blog = page.getByRole('article', { name: 'The Wrenfold Notebook' });
  await blog.getByRole('button', { name: /^Remove the key/ }).click();
  await expect(blog.getByRole('button', { name: /^Remove the key/ })).toHaveCount(0);
  await chooseRule(page, 'I choose which to show in posts');
  await openAlert(page, /^9 new comments$/);
  await expect(conversation(page)).toContainText('is connected read only');
  await expect(
    conversation(page).getByRole('button', { name: /^Show the comment by Orla/ })
  ).toBeDisabled();
});
