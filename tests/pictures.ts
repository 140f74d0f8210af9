import type { Page } from '@playwright/test';
import { expect, idle, openDesk, row, test } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
const shoot = async (page: Page, name: string) => {
  await page.waitForTimeout(800);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};

test('the pictures', async ({ home: page }) => {
  test.setTimeout(180_000);
  await shoot(page, 'in-step');

  await openDesk(page, TWILL);
  await page.getByRole('button', { name: 'Play from 44 seconds' }).click();
  await shoot(page, 'desk');
  await page.getByRole('button', { name: 'Close the player' }).click();
  await page.getByText('As published').click();
  await expect(
    page.frameLocator('iframe[title="The post as published"]').getByRole('heading', { name: TWILL })
  ).toBeVisible();
  await shoot(page, 'desk-as-published');

  await page.getByText('Write', { exact: true }).click();
  await page.getByRole('radio', { name: 'Public, now' }).check();
  await page.getByRole('button', { name: 'Place it, public' }).click();
  const link = page.getByRole('link', { name: 'See it at the blog' });
  await expect(link).toBeVisible();
  await idle(page);
  const post = await page.context().newPage();
  await post.goto((await link.getAttribute('href')) ?? '');
  await shoot(post, 'published-post');
  await post.close();

  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByRole('cell', { name: 'Placed', exact: true })).toBeVisible();
  await shoot(page, 'journal');

  await page.goto('/places');
  await page
    .getByRole('textbox', { name: 'Link a place' })
    .fill(
      `${new URL((await page.getByRole('link', { name: 'behind the scenes' }).getAttribute('href')) ?? '').origin}/channel/watch/hemstitching`
    );
  await page.getByRole('button', { name: 'Look' }).click();
  await expect(page.getByRole('region', { name: 'What was found' })).toBeVisible();
  await shoot(page, 'places');

  await page.goto('/');
  await page.getByRole('button', { name: 'Use dark colours' }).click();
  await expect(row(page, TWILL)).toHaveAccessibleName(/In step/);
  await row(page, TWILL).focus();
  await shoot(page, 'in-step-dark');

  await page.setViewportSize({ width: 360, height: 740 });
  await shoot(page, 'in-step-narrow');
});
