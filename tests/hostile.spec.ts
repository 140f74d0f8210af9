import { expect, idle, openDesk, test } from './app.ts';
import { scriptOf } from './scriptOf.ts';

test.describe('in the browser’s own parser', () => {
  // What is run here is no part of the page.
  test.use({ bypassCSP: true });

  test('1,000 posts of hostile layouts and items: nothing runs, and what is shown is what goes out', async ({
    page
  }) => {
    await page.goto('/');
    const script = await scriptOf('./postsInPage.ts', 'posts');
    const told = await page.evaluate<{ count: number; wrong: string[] }>(
      `(() => { ${script}; return posts.tryPosts(1000); })()`
    );
    expect(told.wrong).toEqual([]);
    expect(told.count).toBe(1000);
  });
});

test('a layout that hangs its worker is given up, said, and the next change is laid out again', async ({
  home: page
}) => {
  // On a slow machine the talk may be read later than the first layout is given up: that is tried again by itself.
  let hangs = true;
  await page.route(/compose\.worker/, async (route) => {
    if (!hangs) return route.continue();
    const hung = "addEventListener('message', () => { for (;;); });";
    return route.fulfill({ contentType: 'text/javascript', body: hung });
  });
  await openDesk(page, 'Threading a four-shaft twill, slowly');
  const said = page.getByText('It took too long, so it was stopped.');
  await expect(said).toBeVisible({ timeout: 75_000 });
  hangs = false;
  let changes = 0;
  // What is asked of a worker that still hangs is given up with it.
  await expect(async () => {
    await page.getByLabel('Title', { exact: true }).fill(`Another title ${++changes}`);
    const text = page.getByRole('textbox', { name: 'Text of the post' });
    await expect(text).toContainText(/\w{4}/, { timeout: 10_000 });
    await expect(said).toHaveCount(0, { timeout: 1_000 });
  }).toPass({ timeout: 75_000 });
});

test('keys under a passphrase wait for it after a reload, and other tabs need it no more', async ({
  home: page,
  context
}) => {
  await page.goto('/places');
  await page.getByRole('button', { name: 'Set a passphrase…' }).click();
  await page.getByLabel('Passphrase', { exact: true }).fill('linen');
  await expect(page.getByText('At least 10 characters.')).toBeVisible();
  await page.getByLabel('Passphrase', { exact: true }).fill('linen and wool');
  await page.getByLabel('Repeat the passphrase').fill('linen and wol');
  await expect(page.getByRole('button', { name: 'Set the passphrase' })).toBeDisabled();
  await page.getByLabel('Repeat the passphrase').fill('linen and wool');
  await page.getByRole('button', { name: 'Set the passphrase' }).click();
  await expect(page.getByText('unlocked while Swift Twin stays open')).toBeVisible();

  await page.reload();
  const passphrase = page.getByLabel('Your keys are locked.');
  await passphrase.fill('linen and cotton');
  await page.getByRole('button', { name: 'Unlock' }).click();
  await expect(page.getByRole('alert')).toContainText('That is not the passphrase');
  const blog = page.getByRole('article', { name: 'The Wrenfold Notebook' });
  await blog.getByRole('button', { name: /^Check connection/ }).click();
  await expect(blog).toContainText('Your keys are locked.');

  await passphrase.fill('linen and wool');
  await page.getByRole('button', { name: 'Unlock' }).click();
  await expect(passphrase).toHaveCount(0);
  await idle(page);
  const other = await context.newPage();
  await other.goto('/places');
  await expect(other.getByText('unlocked while Swift Twin stays open')).toBeVisible();
  await other.getByRole('button', { name: 'Lock now' }).click();
  await expect(passphrase).toBeVisible();

  await page.getByRole('button', { name: 'Forget all keys…' }).click();
  await page.getByRole('button', { name: 'Forget all keys', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Set a passphrase…' })).toBeVisible();
  await expect(blog.getByLabel(/Key for publishing/)).toBeVisible();
});
