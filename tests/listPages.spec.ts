import { expect, idle, row, test, within } from './app.ts';

const ADDRESS = '/blog/posts/videos';

test('a list page is set up, published, and follows what is read', async ({
  home: page,
  world
}) => {
  await page.getByRole('link', { name: 'List pages' }).click();
  await page.getByRole('button', { name: 'Create the first list page' }).press('Enter');
  const preview = page.getByRole('group', { name: /^Preview of/ });
  await expect(preview.getByRole('listitem')).toHaveCount(12);
  await page.getByLabel('Title', { exact: true }).fill('All our videos');
  await page.getByLabel('Text above the list').fill('Everything, newest first.');
  await page.getByRole('radio', { name: 'A heading for each month' }).check();
  await expect(
    preview.getByRole('heading', { name: 'November 2026' }).or(preview.getByRole('heading').first())
  ).toBeVisible();
  await page.getByRole('radio', { name: 'With a tag' }).check();
  await page.getByLabel('Tag', { exact: true }).fill('no such tag');
  await expect(page.getByText('Nothing to list')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Publish the page with 0 items' })).toBeDisabled();
  await page.getByRole('radio', { name: 'All videos' }).check();

  // The blog loses its answer; the page still stands there once.
  await world.faults({ loseOneIn: '2' });
  await page.getByRole('button', { name: 'Publish the page with 12 items' }).click();
  await expect(page.getByText(/^At the blog: public/)).toBeVisible(within(60));
  await world.faults({});
  await idle(page);
  expect(await world.posts('All our videos')).toBe(1);
  const html = await world.read(ADDRESS);
  expect(html).toContain('<p>Everything, newest first.</p>');
  expect(html).not.toContain('Camera test');

  // It is no post that lacks a video, and what the owner shows later comes by itself.
  await world.changeUpload('camera-test', { visibility: 'public' });
  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await page.getByRole('button', { name: 'Refresh' }).click();
  await idle(page);
  await expect(row(page, 'All our videos')).toHaveCount(0);
  await expect.poll(() => world.read(ADDRESS), within(30)).toMatch(/watch\/camera-test/);

  // What was typed is still there, and deleting the page deletes it at the blog.
  await page.getByRole('link', { name: 'List pages' }).click();
  const list = page.getByRole('list', { name: 'List pages' });
  await expect(list).toContainText('13 items, updated automatically');
  await list.getByRole('link', { name: 'All our videos' }).click();
  await expect(page.getByLabel('Text above the list')).toHaveValue('Everything, newest first.');
  await page.getByRole('button', { name: /^Delete page/ }).click();
  await page
    .getByRole('button', { name: /^Delete it there|^Delete/ })
    .last()
    .click();
  await expect(page.getByText('No list pages yet')).toBeVisible();
  expect(await world.read(ADDRESS)).toContain('This post was removed');
});

test('a playlist is found at the channel, and its videos are listed alone', async ({
  home: page
}) => {
  await page.goto('/list-pages');
  await page.getByRole('button', { name: 'New list page' }).click();
  await page.getByRole('radio', { name: 'In a playlist' }).check();
  await page.getByRole('combobox', { name: 'Playlist' }).selectOption('Colour and dye');
  const preview = page.getByRole('group', { name: /^Preview of/ });
  await expect(preview.getByRole('listitem')).toHaveText([/^Madder red/]);
  await page.getByRole('radio', { name: 'With picture and summary' }).check();
  await expect(preview.getByRole('img')).toHaveCount(0);
  await expect(preview.locator('img')).toHaveCount(1);
  // The undo brings the list back.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(preview.getByRole('listitem')).toHaveCount(1);
});
