import type { Page } from '@playwright/test';
import { expect, idle, openDesk, row, test } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
const shoot = async (page: Page, name: string) => {
  await page.waitForTimeout(800);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};

/** Opens a desk by the search, and shows the beginning of its article. */
async function deskOf(page: Page, title: string) {
  await page.keyboard.press('Control+k');
  await page.keyboard.type(title);
  await page.getByRole('option', { name: title }).first().waitFor();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
  await idle(page);
  const text = page.getByRole('textbox', { name: 'Text of the post' });
  await text.getByRole('heading').nth(1).scrollIntoViewIfNeeded();
  await text.locator('p').nth(3).hover();
}

test('the pictures', async ({ home: page }) => {
  test.setTimeout(180_000);
  await shoot(page, 'in-step');

  await openDesk(page, TWILL);
  const text = page.getByRole('textbox', { name: 'Text of the post' });
  await text.getByRole('heading', { name: 'Counting the heddles' }).scrollIntoViewIfNeeded();
  await text.locator('h2 + p').nth(1).hover();
  await shoot(page, 'desk');
  await page.getByText('As published').click();
  await expect(
    page.frameLocator('iframe[title="The post as published"]').getByRole('heading', { name: TWILL })
  ).toBeVisible();
  await shoot(page, 'desk-as-published');

  await deskOf(page, 'Straight selvedges: five things that helped');
  await page.getByText(/sentences restored/).click();
  await shoot(page, 'desk-rough');
  await deskOf(page, 'Die Kette aufbäumen, ganz in Ruhe');
  await shoot(page, 'desk-german');
  await deskOf(page, 'Studio stream: finishing the heron blanket');
  await shoot(page, 'desk-hour');

  await deskOf(page, TWILL);
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
