import type { Page } from '@playwright/test';
import { expect, idle, openAlert, openBooth, openDesk, row, test } from './app.ts';
import { forgetDecisions, makeArchive, retitle } from './archiveView.ts';
import { plannedLane } from './lanesView.ts';
import { importFigures, importLog } from './reachView.ts';
import { openUpdates } from './updatesView.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
const WARP = 'Winding a warp on a board, start to finish';
const COLOUR = 'A colour plan for winter scarves';

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
  test.setTimeout(280_000);
  await shoot(page, 'in-step');

  await openDesk(page, TWILL);
  const text = page.getByRole('textbox', { name: 'Text of the post' });
  await text.getByRole('heading', { name: 'Counting the heddles' }).scrollIntoViewIfNeeded();
  await text.locator('h2 + p').nth(1).hover();
  await shoot(page, 'desk');
  await page.getByText('Preview').click();
  await expect(
    page.frameLocator('iframe[title="Preview of the post"]').getByRole('heading', { name: TWILL })
  ).toBeVisible();

  await deskOf(page, 'Straight selvedges: five things that helped');
  await deskOf(page, TWILL);
  await page.getByRole('radio', { name: 'Public, now' }).check();
  await page.getByRole('button', { name: 'Publish now' }).click();
  const link = page.getByRole('link', { name: 'View post' });
  await expect(link).toBeVisible();
  await idle(page);

  // The booth: script and storyboard; two films, as contact sheets; one of them at the channel.
  await page.goto('/');
  await openBooth(page, COLOUR);
  await page
    .getByRole('button', { name: /seconds without a picture/ })
    .first()
    .click();
  await expect(
    page.getByRole('region', { name: 'Pictures for this scene' }).getByRole('button')
  ).not.toHaveCount(0);
  await idle(page);
  await shoot(page, 'booth');
  await page.getByRole('button', { name: 'Add the best of your pictures' }).click();
  await idle(page);
  await page.getByRole('button', { name: 'Render the video' }).click();
  await expect(page.getByText(/^Made:/)).toBeVisible({ timeout: 120_000 });
  await page.getByLabel('Visibility').selectOption('public');
  await page.getByRole('button', { name: 'Publish now' }).click();
  await expect(page.getByText('Wrenfold Loomworks: Published.')).toBeVisible({ timeout: 60_000 });
  await idle(page);

  // Updates: a text at every place.
  await page.goto('/');
  await openUpdates(page, COLOUR);
  await shoot(page, 'updates');

  // Lanes: two of them, one rehearsed; what they made, waiting for review.
  await page.goto('/lanes');
  await page.getByRole('button', { name: 'New lane' }).click();
  await page.getByRole('button', { name: /^Filter/ }).click();
  await page.getByRole('radio', { name: 'The catalogue, newest first' }).check();
  await page.getByRole('button', { name: /^Filter/ }).click();
  await page.getByRole('textbox', { name: 'Name of the lane' }).fill('A post for each video');
  await page.getByRole('textbox', { name: 'Name of the lane' }).press('Tab');
  await page.getByRole('button', { name: 'Duplicate' }).click();
  const copied = page.getByRole('article', { name: 'A post for each video, copy' });
  await copied.getByRole('textbox', { name: 'Name of the lane' }).fill('For the neighbours');
  const second = page.getByRole('article', { name: 'For the neighbours' });
  await second.getByRole('button', { name: /^Make/ }).click();
  await second.getByRole('radio', { name: 'An update of each item' }).check();
  await second.getByRole('button', { name: /^Source/ }).click();
  await second.getByRole('checkbox', { name: 'The Wrenfold Notebook' }).check();
  await second.getByRole('button', { name: /^Places/ }).click();
  await second.getByRole('checkbox', { name: 'Hearthside Notes' }).check();
  await second.getByRole('button', { name: /^Places/ }).click();
  await page.getByRole('button', { name: 'Run now' }).first().click();
  await expect(page.getByText(/left out \d+ and made \d\.$/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Run now' }).last().click();
  await expect(page.getByText(/neighbours” found .* made \d\.$/)).toBeVisible({
    timeout: 60_000
  });
  await idle(page);
  await shoot(page, 'lanes');
  await page.goto('/review');
  const made = page.getByRole('list', { name: 'Made by lanes' });
  await made.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await page.keyboard.press('Enter');
  await shoot(page, 'review');
  for (const box of await made.getByRole('checkbox').all()) await box.check();
  await page.getByRole('button', { name: 'Approve', exact: true }).click();
  await expect(page.getByText('Nothing to review')).toBeVisible();
  await idle(page);
  await page.goto('/calendar');
  await expect(page.getByRole('button', { name: /, planned$/ }).first()).toBeVisible();
  await shoot(page, 'calendar');
  await page.goto('/journal');
  await expect(page.getByRole('cell', { name: 'Lane ran' }).first()).toBeVisible();
  await shoot(page, 'journal');

  await page.goto('/places');
  await page
    .getByRole('textbox', { name: 'Connect a channel or blog' })
    .fill(
      `${new URL((await page.getByRole('link', { name: 'behind the scenes' }).getAttribute('href')) ?? '').origin}/channel/watch/hemstitching`
    );
  await page.getByRole('button', { name: 'Find' }).click();
  await expect(page.getByRole('region', { name: 'What was found' })).toBeVisible();
  await shoot(page, 'places');

  await page.goto('/');
  await page.getByRole('button', { name: 'Use dark colours' }).click();
  await expect(row(page, TWILL)).toHaveAccessibleName(/In step/);
  await row(page, TWILL).focus();
  await page.setViewportSize({ width: 360, height: 740 });
  await shoot(page, 'in-step-narrow');
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('button', { name: 'Use light colours' }).click();
  await page.getByRole('button', { name: 'Start empty' }).click();
  await page.getByRole('button', { name: 'Use the demo channel' }).click();
  await page.getByRole('button', { name: 'Connect (read only)' }).click();
  await expect(page.getByRole('button', { name: 'Use the demo blog' })).toBeVisible();
  await idle(page);
  await shoot(page, 'first-visit');
});

test('the picture of comments', async ({ home: page }) => {
  await page.goto('/places');
  await page.getByLabel('Comments on its videos').selectOption('I choose which to show in posts');
  await openAlert(page, /new comments$/);
  for (const author of ['Orla Fennick', 'Isolde Wrenfold'])
    await page
      .getByRole('checkbox', { name: `comment by ${author}` })
      .first()
      .check();
  await shoot(page, 'comments');
});

test('the pictures of reach', async ({ home: page, world }) => {
  test.setTimeout(180_000);
  await page.getByRole('link', { name: 'Updates', exact: true }).click();
  await page.getByRole('searchbox', { name: 'Filter' }).fill(WARP);
  await page
    .getByRole('link', { name: new RegExp(`^Share the .*: ${WARP}$`) })
    .last()
    .click();
  await page.getByRole('button', { name: 'Publish to 3 places' }).click();
  await expect(page.getByText(/^Published /)).toHaveCount(3, { timeout: 60_000 });
  await world.clock(80);
  await page.getByRole('link', { name: 'In step', exact: true }).click();
  await page.getByRole('button', { name: 'Refresh' }).click();
  await idle(page);
  await page.getByRole('link', { name: 'Reach', exact: true }).click();
  await importLog(page, world);
  await importFigures(page, world);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Most reach' })).toBeVisible();
  await shoot(page, 'reach');
  await page.getByRole('radio', { name: 'Posts' }).check();
  await page.getByRole('link', { name: WARP }).click();
  await expect(page.getByRole('heading', { name: 'What happened' })).toBeVisible();
  await shoot(page, 'reach-twin');
  await plannedLane(page);
  await page.goto('/calendar?view=week&date=2030-09-02');
  await expect(page.getByText(/^Shaded by/)).toBeVisible();
  await shoot(page, 'calendar-week');
});

test('the picture of pairs', async ({ page, backApp }) => {
  test.setTimeout(120_000);
  await page.goto(backApp.origin);
  await expect(row(page, TWILL)).toBeVisible();
  await idle(page);
  await page.getByRole('link', { name: 'Find pairs' }).click();
  await page.getByRole('button', { name: /^Read captions of/ }).click();
  await expect(page.getByText(/^\d+ videos read\.$/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('heading', { name: /^To check/ }).scrollIntoViewIfNeeded();
  await page.mouse.wheel(0, 250);
  await shoot(page, 'pairs');
});

test('the picture of what drifted', async ({ home: page, world }) => {
  await openDesk(page, TWILL);
  await page.getByRole('radio', { name: 'Public, now' }).check();
  await page.getByRole('button', { name: 'Publish now' }).click();
  await expect(page.getByText(/^At the blog: public/)).toBeVisible();
  await idle(page);
  await world.editPost(TWILL, 'and save the day.', 'and weave on.');
  await world.addToPost(TWILL, 'Questions are welcome at the open studio.');
  await world.changeUpload('threading-a-twill', { from: 'save', to: 'rescue' });
  await world.changeUpload('threading-a-twill', {
    description: 'Four shafts, one straight draw, and every mistake made on purpose.'
  });
  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await page.getByRole('button', { name: 'Refresh' }).click();
  await idle(page);
  await row(page, TWILL).getByRole('button', { name: 'Drifted: compare' }).click();
  await page.getByRole('link', { name: 'Update the post…' }).click();
  await expect(page.getByRole('heading', { name: /^Changes to the post/ })).toBeVisible();
  await idle(page);
  await shoot(page, 'changes');
});

test('the picture of many at once', async ({ page, backApp }) => {
  test.setTimeout(120_000);
  await page.goto(backApp.origin);
  await expect(row(page, TWILL)).toBeVisible();
  await idle(page);
  await page
    .getByRole('group', { name: 'Show by standing' })
    .getByRole('button', { name: /^No post yet/ })
    .click();
  const rows = Number(await page.getByRole('grid').getAttribute('aria-rowcount'));
  await page.locator('[data-row="0"]').focus();
  await page.keyboard.press('End');
  for (let i = 1; i < 30; i++) {
    await expect(page.locator(`[data-row="${rows - i}"]`)).toBeFocused();
    await page.keyboard.press('Shift+ArrowUp');
  }
  await page.getByRole('button', { name: /^Make \d+ posts…/ }).click();
  await page.getByRole('radio', { name: 'Spread evenly after I approve them' }).check();
  await shoot(page, 'many');
});

test('the picture of an archive', async ({ home: page }, info) => {
  await retitle(page, 'Threading a twill, slowly');
  await page.goto('/archive');
  const file = await makeArchive(page, info);
  await page.goto('/');
  await retitle(page, 'Threading a four-shaft twill');
  await page.goto('/archive');
  await forgetDecisions(page);
  const importing = page.getByRole('region', { name: 'Import an archive' });
  await importing.getByLabel('Choose an archive…').setInputFiles(file);
  const button = importing.getByRole('button', { name: 'Import', exact: true });
  await expect(button).toBeVisible();
  await button.scrollIntoViewIfNeeded();
  await shoot(page, 'archive');
});
