import type { Page } from '@playwright/test';
import { expect, idle, openDesk, test } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';

async function addWord(page: Page, word: string, url: string, about = '', isPaid = false) {
  const form = page.getByRole('form', { name: 'New word' });
  await form.getByLabel(/^Word/).fill(word);
  await form.getByLabel('Address').fill(url);
  await form.getByLabel(/^Meaning/).fill(about);
  if (isPaid) await form.getByRole('checkbox').check();
  await form.getByRole('button', { name: 'Add to the glossary' }).click();
}

test('words of the glossary are linked where the user says so, and paid links say what they are', async ({
  home: page,
  world
}) => {
  await page.goto('/glossary');
  await addWord(page, 'heddle', 'no address');
  await expect(page.getByRole('alert')).toContainText('This is no web address');
  await addWord(
    page,
    'heddle, string heddle',
    'https://tools.example/heddles',
    'A loop of wire or string on a shaft that holds one warp thread',
    true
  );
  await addWord(page, 'stool', 'https://words.example/stool', 'A sample that a doctor asks for');
  const words = page.getByRole('list', { name: 'Words' });
  await expect(words).toContainText('heddle, string heddle · paid link');
  await words.getByRole('button', { name: 'Remove stool' }).click();
  await expect(words.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(words.getByRole('listitem')).toHaveCount(2);

  await page.goto('/');
  await openDesk(page, TWILL);
  const links = page.getByRole('list', { name: 'Links to add' });
  const heddle = links.getByRole('checkbox', { name: 'Link “heddles” to heddle' });
  await expect(heddle).toBeChecked();
  await expect(links.getByRole('checkbox', { name: /to How I sley a reed$/ })).toBeChecked();
  // A word that may mean something else is only proposed.
  const stool = links.getByRole('listitem').filter({ hasText: 'words.example/stool' });
  await expect(stool).toContainText('It may mean something else here.');
  await expect(stool.getByRole('checkbox')).not.toBeChecked();
  await stool.getByRole('button', { name: 'Not here' }).click();
  await expect(stool).toHaveCount(0);

  const text = page.getByRole('textbox', { name: 'Text of the post' });
  await page.getByRole('button', { name: 'Add 2 links' }).press('Enter');
  await expect(text.locator('a[rel=sponsored]')).toHaveText('heddles');
  await expect(text).toContainText('heddles (paid link)');
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await expect(text.locator('a[rel=sponsored]')).toHaveCount(0);
  await page.getByRole('button', { name: 'Redo', exact: true }).first().click();
  await expect(text.locator('a[rel=sponsored]')).toHaveCount(1);

  await page.getByRole('radio', { name: 'Public, now' }).check();
  await page.getByRole('button', { name: 'Publish now' }).click();
  await expect(page.getByText(/^At the blog: public/)).toBeVisible();
  await idle(page);
  const html = await world.postHtml(TWILL);
  expect(html.match(/tools\.example/g)).toHaveLength(1);
  expect(html).toMatch(/rel="sponsored"[^>]*>heddles<\/a> \(paid link\)/);
  expect(html).toContain('posts/how-i-sley-a-reed');
});
