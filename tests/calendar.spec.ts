import type { Locator, Page } from '@playwright/test';
import { expect, idle, openDesk, row, test } from './app.ts';
import { catalogueLane, plannedLane, station } from './lanesView.ts';
import { importLog } from './reachView.ts';
import { at, NOTES, openUpdates } from './updatesView.ts';

const TWILL = 'Threading a four-shaft twill, slowly';

/** What is planned on a day, in month and list alike. */
const on = (page: Page, day: string) =>
  page.getByRole('list', { name: day }).getByRole('button', { name: /, (?:planned|scheduled)$/ });

async function drag(page: Page, from: Locator, to: Locator): Promise<void> {
  // What is above the calendar may still come, and move it.
  await from.hover();
  const count = await to.locator('li').count();
  const [start, end] = [await from.boundingBox(), await to.boundingBox()];
  if (!start || !end) throw new Error('There is nothing to drag, or nowhere to.');
  const [x, y] = [start.x + start.width / 2, start.y + start.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let step = 1; step <= 12; step++)
    await page.mouse.move(
      x + ((end.x + end.width / 2 - x) * step) / 12,
      y + ((end.y + end.height / 2 - y) * step) / 12
    );
  // It makes room a moment after the pointer has come.
  await expect(to.locator('li')).toHaveCount(count + 1);
  await page.mouse.up();
}

test('what a lane planned is dragged, asked about where it breaks the pace, and moved by keyboard', async ({
  home: page
}) => {
  await plannedLane(page);
  await page.goto('/calendar?view=month&date=2030-09-02');
  for (const day of ['Monday 2', 'Tuesday 3', 'Wednesday 4'])
    await expect(on(page, `${day} September, can be moved`)).toHaveCount(1);
  const first = on(page, 'Monday 2 September, can be moved');
  const name = (await first.getAttribute('aria-label')) ?? '';
  expect(name).toMatch(/^09:00 Post “.*” at The Wrenfold Notebook, planned$/);

  // Dragged to a free day: what comes after it moves up.
  const tenth = page.getByRole('list', { name: 'Tuesday 10 September, can be moved' });
  await drag(page, first, tenth);
  await expect(on(page, 'Tuesday 10 September, can be moved')).toHaveAccessibleName(name);
  await expect(on(page, 'Monday 2 September, can be moved')).toHaveCount(1);
  await expect(on(page, 'Wednesday 4 September, can be moved')).toHaveCount(0);

  // Dropped where the day is full: the next day that fits is offered.
  await drag(page, on(page, 'Tuesday 3 September, can be moved'), tenth);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('This is too close to another item of its lane.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Move to 9 Sep 2030, 17:45' }).click();
  await expect(on(page, 'Monday 9 September, can be moved')).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(on(page, 'Monday 9 September, can be moved')).toHaveCount(0);
  await expect(on(page, 'Tuesday 3 September, can be moved')).toHaveCount(1);

  // By keyboard, and the focus goes with it.
  await on(page, 'Tuesday 10 September, can be moved').focus();
  await page.keyboard.press('Shift+ArrowDown');
  await expect(on(page, 'Tuesday 17 September, can be moved')).toBeFocused();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(on(page, 'Monday 16 September, can be moved')).toBeFocused();

  // Against the hours of the lane, because the user insists; the journal says so.
  await page.keyboard.press('Enter');
  await page.getByLabel(/^New date and time/).fill('2030-09-20T03:00');
  await expect(dialog.getByText('This is outside the hours of its lane.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Move anyway' }).click();
  await expect(on(page, 'Friday 20 September, can be moved')).toHaveAccessibleName(/^03:00 /);
  await page.getByRole('link', { name: 'Week', exact: true }).click();
  await page.goto('/calendar?view=week&date=2030-09-20');
  await expect(on(page, 'Friday 20 September, 03:00, can be moved')).toHaveCount(1);
  await on(page, 'Friday 20 September, 03:00, can be moved').focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Let the lane choose the time' }).click();
  await expect(page.getByText(/^The lane chooses the time of .* again\.$/)).toBeVisible();
  await page.goto('/calendar?view=list&date=2030-09-02');
  await expect(on(page, 'Wednesday 4 September')).toHaveCount(1);
  await page.getByRole('link', { name: 'Journal', exact: true }).click();
  await expect(page.getByText('Rescheduled beyond the limits')).toHaveCount(1);
});

test('several are moved together, and what is in the way of one is said', async ({
  home: page
}) => {
  await plannedLane(page);
  await page.goto('/calendar?view=list&date=2030-09-02');
  await page
    .getByRole('checkbox', { name: /^Select/ })
    .nth(1)
    .check();
  await page
    .getByRole('checkbox', { name: /^Select/ })
    .nth(2)
    .check();
  await page.getByRole('spinbutton', { name: 'Days' }).fill('2');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Move 2 days later' }).click();
  await expect(page.getByText(/^2 entries moved\./)).toBeVisible();
  await expect(on(page, 'Thursday 5 September')).toHaveCount(1);
  await expect(on(page, 'Friday 6 September')).toHaveCount(1);
  await page
    .getByRole('checkbox', { name: /^Select/ })
    .nth(1)
    .check();
  await page.getByRole('spinbutton', { name: 'Days' }).fill('1');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Move 1 day later' }).click();
  await expect(
    page.getByText(/1 stays where it is: .* too close to another item of its lane\.$/)
  ).toBeVisible();
  await page.setViewportSize({ width: 360, height: 740 });
  await page.goto('/calendar?view=month&date=2030-09-02');
  await expect(on(page, 'Thursday 5 September')).toHaveCount(1);
  await expect(page.getByRole('table')).toHaveCount(0);
});

test('what was scheduled by hand is moved at its place, or before it is sent', async ({
  home: page
}) => {
  await openUpdates(page, 'A colour plan for winter scarves');
  await page.getByLabel(/^Date and time \(/).fill('2030-09-02T10:00');
  await page.getByRole('button', { name: 'Schedule for 4 places' }).click();
  await expect(at(page, NOTES).getByText(/^Scheduled for .*2030/)).toBeVisible();
  await page.goto('/');
  await expect(row(page, TWILL)).toBeVisible();
  await openDesk(page, TWILL);
  await page.getByRole('radio', { name: 'Public on a date' }).check();
  await page.getByLabel(/^Date and time \(/).fill('2030-09-04T08:00');
  await page.getByRole('button', { name: /^Schedule for/ }).click();
  await expect(page.getByText(/^At the blog: scheduled for 4 Sep 2030/)).toBeVisible();
  await idle(page);

  await page.goto('/calendar?view=month&date=2030-09-02');
  await page.getByRole('combobox', { name: /^Place/ }).selectOption(NOTES);
  const update = on(page, 'Monday 2 September, can be moved');
  await expect(update).toHaveCount(1);
  await update.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(on(page, 'Tuesday 3 September, can be moved')).toBeFocused();
  await page.getByRole('combobox', { name: /^Place/ }).selectOption('The Wrenfold Notebook');
  await on(page, 'Wednesday 4 September, can be moved').focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(on(page, 'Thursday 5 September, can be moved')).toHaveCount(1);
  await idle(page);
  await page.goto('/');
  await openDesk(page, TWILL);
  await expect(page.getByText(/^At the blog: scheduled for 5 Sep 2030, 08:00/)).toBeVisible();
});

test('lanes keep busy times clear, added by hand or from a calendar file', async ({
  home: page
}) => {
  await plannedLane(page);
  await page.goto('/calendar?view=month&date=2030-09-02');
  await expect(on(page, 'Wednesday 4 September, can be moved')).toHaveCount(1);
  await page.getByRole('button', { name: 'Busy times' }).click();
  const dialog = page.getByRole('dialog', { name: 'Busy times' });
  await dialog.getByLabel('What for').fill('Closed for the fair');
  await dialog.getByLabel('From', { exact: true }).fill('2030-09-03');
  await dialog.getByLabel('To', { exact: true }).fill('2030-09-05');
  await dialog.getByRole('button', { name: 'Add' }).click();
  await expect(dialog.getByText('3–5 Sep 2030 is kept clear.')).toBeVisible();

  const tomorrow = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10).replaceAll('-', '');
  const event = (...lines: string[]) => ['BEGIN:VEVENT', 'UID:a', ...lines, 'END:VEVENT'];
  const file = ['BEGIN:VCALENDAR', 'VERSION:2.0']
    .concat(event('SUMMARY:Carding day', `DTSTART;VALUE=DATE:${tomorrow}`))
    .concat(event('SUMMARY:Long ago', 'DTSTART;VALUE=DATE:20200101'), 'END:VCALENDAR')
    .join('\r\n');
  const choose = dialog.getByLabel('Import from a calendar file…');
  const upload = (name: string, text: string) =>
    choose.setInputFiles({ name, mimeType: 'text/calendar', buffer: Buffer.from(text) });
  await upload('studio.ics', file);
  await expect(
    dialog.getByText(/^1 busy time added from “studio\.ics”\. 1 event was left out/)
  ).toBeVisible();
  await expect(dialog.getByRole('listitem').filter({ hasText: 'Carding day' })).toHaveCount(1);
  await upload('letter.ics', 'Dear weaver');
  await expect(dialog.getByText(/^“letter\.ics” is not a calendar file/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Close', exact: true }).click();

  // What was planned in it goes out after it.
  await expect(on(page, 'Friday 6 September, can be moved')).toHaveCount(1);
  await expect(on(page, 'Saturday 7 September, can be moved')).toHaveCount(1);
  await on(page, 'Friday 6 September, can be moved').focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(page.getByText('This is in one of your busy times.')).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: 'Busy times' }).click();
  await dialog.getByRole('button', { name: /^Remove Closed for the fair/ }).click();
  await dialog.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(on(page, 'Wednesday 4 September, can be moved')).toHaveCount(1);
});

test('empty days are filled from what waits in review, and that is undone', async ({
  home: page
}) => {
  await catalogueLane(page);
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(station(page, 'Approval')).toContainText('3 to review');
  await idle(page);
  await page.goto('/calendar?view=month');
  const fill = page
    .getByRole('button', { name: /^Fill \d+ empty days from .* in review$/ })
    .first();
  // The last days of a month may leave no two in a row.
  if (!(await fill.isVisible())) await page.getByRole('link', { name: 'Next month' }).click();
  await fill.click();
  const dialog = page.getByRole('dialog', { name: /^Fill / });
  await dialog
    .getByRole('button', { name: /^Approve “/ })
    .first()
    .click();
  await expect(page.getByText(/ is approved for \d+ \w+ \d{4}, /)).toBeVisible();
  await expect(page.getByText('2 items in review')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('3 items in review')).toBeVisible();
});

test('hours are shaded by when the audience was there, once enough is known', async ({
  home: page,
  world
}) => {
  await page.goto('/calendar?view=week');
  const shaded = page.getByText(/^Shaded by when your audience was there/);
  await expect(page.getByRole('columnheader').nth(3)).toBeVisible();
  await expect(shaded).toHaveCount(0);
  await page.goto('/reach');
  await importLog(page, world);
  await page.goto('/calendar?view=week');
  await expect(shaded).toContainText(/[\d,]+ visits in\s+\d+ days/);
  const evening = page.getByRole('list', { name: /^Sunday .*, 20:00, \d+ visits, can be moved$/ });
  await expect(evening).toHaveCount(1);
});
