import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import {
  openAlert,
  expect,
  idle,
  openBooth,
  openDesk,
  openLayout,
  row,
  test,
  togglePart,
  within,
  wasReadBack
} from './app.ts';
import { makeArchive, retitle } from './archiveView.ts';
import { newLane, plannedLane, station } from './lanesView.ts';
import { importLog } from './reachView.ts';

/** Of a lane, as its track names them. */
const STATIONS = ['Source', 'Filter', 'Make', 'Pace', 'Approval', 'Places'];
const TWILL = 'Threading a four-shaft twill, slowly';

/** Finds nothing as the page is, and nothing of its colours in the dark. */
async function expectNoFindings(page: Page, where: string) {
  // A page that was just asked for is empty until its program has come.
  await expect(page.locator('h1').first()).toBeAttached();
  await expectNone(page, where, (axe) =>
    axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
  );
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect(page.locator('html')).toHaveAttribute('data-mode', 'dark');
  await expectNone(page, `${where}, dark`, (axe) =>
    axe.withRules(['color-contrast', 'link-in-text-block'])
  );
  await page.emulateMedia({ colorScheme: 'light' });
}

async function expectNone(page: Page, where: string, asked: (axe: AxeBuilder) => AxeBuilder) {
  // A button that is just being enabled is half faded.
  await page.evaluate(() => Promise.allSettled(document.getAnimations().map((a) => a.finished)));
  // What the blog's own page shows in the preview is the blog's.
  const axe = new AxeBuilder({ page }).exclude('iframe');
  // Without a page of its own to put frames together in: the same findings in half of the time.
  const { violations } = await asked(axe.setLegacyMode()).analyze();
  const told = violations.map(
    (v) => `${v.id}: ${v.nodes.map((n) => `${n.target} ${n.failureSummary}`).join('; ')}`
  );
  expect(told, where).toEqual([]);
}

const openPanels = (page: Page) =>
  page.evaluate(() => {
    for (const panel of document.querySelectorAll('details')) panel.open = true;
  });

test.describe('by axe', () => {
  // Nothing fades: a button that is half faded would fail for its contrast.
  test.use({ colorScheme: 'light', contextOptions: { reducedMotion: 'reduce' } });

  test('axe finds nothing on lanes, their stations, a rehearsal and what waits', async ({
    home: page
  }) => {
    await newLane(page);
    for (const name of STATIONS) {
      await station(page, name).click();
      await expectNoFindings(page, name);
    }
    await page.getByRole('button', { name: 'Rehearse' }).click();
    await page.getByRole('button', { name: 'Show the result' }).click();
    await expect(page.getByText('Nothing was published.')).toBeVisible(within(20));
    await expectNoFindings(page, 'Rehearsal');
    await station(page, 'Filter').click();
    const newest = page.getByRole('radio', { name: 'The catalogue, newest first' });
    // A choice of a lane shows what is saved: a moment after the click on a busy machine.
    await newest.click();
    await expect(newest).toBeChecked();
    await page.getByRole('button', { name: 'Run now' }).click();
    // While it runs the number rises, and the link that is clicked gives way to another.
    await expect(station(page, 'Approval')).toContainText('3 to review');
    await idle(page);
    await openAlert(page, /^\d to review$/);
    await page
      .getByRole('button', { name: /^Preview/ })
      .first()
      .click();
    await expectNoFindings(page, 'Review');
  });

  test('axe finds nothing on pairs, sure ones, doubtful ones and decided ones', async ({
    page,
    backApp
  }) => {
    await page.goto(backApp.origin);
    await expect(row(page, TWILL)).toBeVisible();
    await idle(page);
    await page.getByRole('link', { name: 'Find pairs' }).click();
    await page
      .getByRole('list', { name: 'Sure pairs' })
      .getByRole('button', { name: /are not a pair$/ })
      .first()
      .click();
    await expect(page.getByText('Decided (1)')).toBeVisible();
    await openPanels(page);
    await expectNoFindings(page, 'Pairs');
  });

  test('axe finds nothing on what drifted, and what an update would change', async ({
    home: page,
    world
  }) => {
    await openDesk(page, TWILL);
    await page.getByRole('radio', { name: 'Public, now' }).check();
    await page.getByRole('button', { name: 'Publish now' }).click();
    await expect(page.getByText(/^At the blog: public/)).toBeVisible();
    await wasReadBack(page);
    await page.getByRole('link', { name: 'In step', exact: true }).first().click();
    // Captions are read again of videos that are paired with what was made of them.
    await expect(row(page, TWILL)).toHaveAccessibleName(/In step/);
    await world.editPost(TWILL, 'and save the day.', 'and weave on.');
    await world.changeUpload('threading-a-twill', { from: 'save', to: 'rescue' });
    await page.getByRole('button', { name: 'Refresh' }).click();
    await idle(page);
    await row(page, TWILL).getByRole('button', { name: 'Drifted: compare' }).click();
    await expectNoFindings(page, 'what has drifted');
    await page.getByRole('link', { name: 'Update the post…' }).click();
    await expect(page.getByText('changed on both sides').first()).toBeVisible();
    await openPanels(page);
    await expectNoFindings(page, 'changes');
  });

  test('axe finds nothing on reach, a twin’s, a report and imports', async ({
    home: page,
    world
  }) => {
    await page.goto('/reach');
    await page.getByRole('button', { name: 'Import CSV…' }).click();
    await page.getByLabel('Choose a CSV file…').setInputFiles({
      name: 'figures.csv',
      mimeType: 'text/csv',
      buffer: await world.ownFile('figures.csv')
    });
    await expect(page.getByRole('button', { name: /^Add [\d,]+ rows$/ })).toBeVisible();
    await expectNoFindings(page, 'Import figures');
    await page.getByRole('button', { name: 'Close' }).click();
    await importLog(page, world);
    await expect(page.getByText(/^Busiest: /)).toBeVisible();
    await expect(page.getByRole('table', { name: /^Busiest/ })).toBeVisible();
    await openPanels(page);
    await expectNoFindings(page, 'Reach');
    await page.goto('/calendar?view=week');
    await expect(page.getByText(/^Shaded by/)).toBeVisible();
    await expectNoFindings(page, 'shaded week');
    await page.goto('/reach/report');
    await expect(page.getByRole('img', { name: /^Reach by day in / })).toBeVisible();
    await expectNoFindings(page, 'Report');
    await page.goto('/');
    await page.getByRole('row').nth(1).focus();
    await page.keyboard.press('r');
    await expect(page.getByRole('heading', { name: 'What happened' })).toBeVisible();
    await openPanels(page);
    await expectNoFindings(page, 'reach of a twin');
  });

  test('axe finds nothing on the archive, and on what importing one would change', async ({
    home: page
  }, info) => {
    await retitle(page, 'As archived');
    await page.goto('/archive');
    const file = await makeArchive(page, info);
    await page.getByLabel('Keys of your places').check();
    await expectNoFindings(page, 'Archive');
    await page.goto('/');
    await retitle(page, 'As it is now');
    await page.goto('/archive');
    const importing = page.getByRole('region', { name: 'Import an archive' });
    await importing.getByLabel('Choose an archive…').setInputFiles(file);
    await expect(importing.getByRole('button', { name: 'Import', exact: true })).toBeVisible();
    await expectNoFindings(page, 'What importing would change');
  });

  test('axe finds nothing on the calendar, by month, week and list, and on what is opened', async ({
    home: page
  }) => {
    await plannedLane(page);
    for (const view of ['month', 'week', 'list']) {
      await page.goto(`/calendar?view=${view}&date=2030-09-02`);
      await expect(page.getByRole('button', { name: /, planned$/ }).first()).toBeVisible();
      await expectNoFindings(page, view);
    }
    await page
      .getByRole('button', { name: /, planned$/ })
      .first()
      .click();
    await page.getByLabel(/^New date and time/).fill('2030-09-05T03:00');
    await expect(page.getByText(/^The nearest time that fits/)).toBeVisible();
    await expectNoFindings(page, 'an entry');
    await page.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).click();
    await page.getByRole('button', { name: 'Busy times' }).click();
    await page.getByLabel('From', { exact: true }).fill('2030-09-03');
    await page.getByRole('button', { name: 'Add' }).click();
    await expectNoFindings(page, 'busy times');
  });

  test('axe finds nothing on comments, list pages and the glossary', async ({ home: page }) => {
    await page.goto('/comments');
    await expectNoFindings(page, 'Comments, none');
    await page.goto('/places');
    await page.getByLabel('Comments on its videos').selectOption('I choose which to show in posts');
    await openAlert(page, /new comments$/);
    await page.getByLabel('Select all').check();
    await expectNoFindings(page, 'Comments');
    await page.goto('/list-pages');
    await expectNoFindings(page, 'List pages, none');
    await page.getByRole('button', { name: 'Create the first list page' }).click();
    await expect(page.getByRole('group', { name: /^Preview of/ })).toBeVisible();
    await expectNoFindings(page, 'A list page');
    await page.goto('/glossary');
    await expectNoFindings(page, 'Glossary');
  });

  test('axe finds nothing on any view', async ({ home: page }) => {
    await expectNoFindings(page, 'In step');
    await page.keyboard.press('Control+k');
    await expectNoFindings(page, 'Search and commands');
    await page.keyboard.press('Escape');
    await openDesk(page, 'Madder red on wool, with Juna Halvard');
    await expectNoFindings(page, 'Desk, write');
    await openPanels(page);
    await expectNoFindings(page, 'Desk, every panel open');
    await page.getByText('HTML', { exact: true }).click();
    await expectNoFindings(page, 'Desk, HTML');
    await page.getByText('Preview').click();
    await page.waitForTimeout(500);
    await expectNoFindings(page, 'Desk, as published');
    await page.goto('/');
    await openBooth(page, 'A colour plan for winter scarves');
    for (const part of ['Export', 'Pronunciations'])
      await page.getByText(part, { exact: true }).click();
    await expectNoFindings(page, 'Booth');
    await openPanels(page);
    await expectNoFindings(page, 'Booth, every panel open');
    await page.goto('/places');
    await page.getByRole('textbox', { name: 'Connect a channel or blog' }).fill('my channel');
    await page.getByRole('button', { name: 'Find' }).click();
    await expect(page.getByRole('alert')).toBeVisible();
    await expectNoFindings(page, 'Places');
    await page.goto('/journal');
    await expect(page.getByRole('table')).toBeVisible();
    await expectNoFindings(page, 'Journal');
  });
});

test('the whole path by keyboard', async ({ home: page, world }) => {
  const rows = page.getByRole('row');
  await rows.first().focus();
  await page.keyboard.press('ArrowDown');
  await expect(row(page, TWILL)).toBeFocused();
  await page.keyboard.press('Space');
  await expect(row(page, TWILL)).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('s');
  await expect(row(page, TWILL)).toHaveAccessibleName(/Set aside/);
  await row(page, TWILL).focus();
  await page.keyboard.press('s');
  await expect(row(page, TWILL)).toHaveAccessibleName(/No post yet/);
  await page.keyboard.press('End');
  await expect(row(page, 'Reading a weaving draft in six minutes')).toBeFocused();

  await page.keyboard.press('Control+k');
  await page.keyboard.type('four-shaft');
  await expect(page.getByRole('option', { name: new RegExp(TWILL) })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: TWILL })).toBeVisible();
  await idle(page);

  await page.getByRole('radio', { name: 'Write' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'Move Lead-in up' }).focus();
  await page.keyboard.press('Enter');
  await expect(
    page
      .getByRole('list', { name: 'Parts of the post' })
      .getByRole('listitem')
      .first()
      .getByRole('heading')
      .first()
  ).toHaveText('Lead-in');
  await page.getByRole('radio', { name: 'Draft: only you see it' }).focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('radio', { name: 'Public, now' })).toBeChecked();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'View post' })).toBeVisible();
  expect(await world.posts(TWILL)).toBe(1);
});

test('blocks can be dragged', async ({ home: page }) => {
  await openLayout(page, 'Wind a bobbin that never collapses');
  const parts = page.getByRole('list', { name: 'Parts of the post' }).getByRole('listitem');
  await togglePart(page, 'Video', false);
  const video = page.getByLabel('Drag Video');
  await video.hover();
  const handle = (await video.boundingBox())!;
  const target = (await page.getByLabel('Drag Summary').boundingBox())!;
  await page.mouse.down();
  for (let i = 1; i <= 20; i++) {
    await page.mouse.move(handle.x + 5, handle.y + 5 + ((target.y + 12 - handle.y) * i) / 20);
    await page.waitForTimeout(20);
  }
  // What is dragged is looked at five times a second: the place is given up before it is let go.
  await expect
    .poll(async () => (await parts.filter({ hasText: 'Lead-in' }).first().boundingBox())?.y)
    .toBeLessThan(handle.y);
  await page.mouse.up();
  // It is hidden until it has been put down.
  await expect(page.getByRole('listitem', { name: 'Video', exact: true })).toHaveCount(1);
  await expect(parts.first().getByRole('heading').first()).toHaveText('Lead-in');
});

test('360 pixels wide: nothing is cut off sideways', async ({ home: page }) => {
  await page.setViewportSize({ width: 360, height: 740 });
  /** What reaches beyond the right edge. */
  const overflow = () =>
    page.evaluate(() =>
      [document.documentElement, ...document.querySelectorAll('main *')]
        .filter((e) => e.getBoundingClientRect().right > innerWidth + 0.5)
        // What can be scrolled to sideways is not cut off.
        .filter((e) => !e.parentElement?.closest('.overflow-x-auto'))
        .map((e) => e.outerHTML.slice(0, 120))
    );
  await expect(row(page, TWILL)).toBeVisible();
  await expect.poll(overflow, 'after the window was made narrower').toEqual([]);
  await openDesk(page, TWILL);
  expect(await overflow()).toEqual([]);
  // Its columns stand below each other, and none over the next.
  const publishing = page.getByRole('complementary', { name: 'Checks and publishing' });
  await expect(publishing.getByRole('region', { name: 'About the post' })).toBeVisible();
  expect(await publishing.evaluate((e) => e.scrollHeight - e.clientHeight)).toBeLessThan(2);
  for (const path of [
    '/places',
    '/journal',
    '/lanes',
    '/review',
    '/updates',
    '/archive',
    '/comments',
    '/calendar',
    '/reach',
    '/reach/report'
  ]) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    expect(await overflow()).toEqual([]);
    if (path !== '/lanes') continue;
    await page.getByRole('button', { name: 'New lane' }).click();
    for (const name of STATIONS) {
      await station(page, name).click();
      expect(await overflow(), name).toEqual([]);
    }
  }
});
