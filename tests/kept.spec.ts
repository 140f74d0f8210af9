import type { Page } from '@playwright/test';
import { expect, openDesk, row, test, wasReadBack } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
const title = (page: Page) => page.getByRole('textbox', { name: 'Title', exact: true });
const text = (page: Page) => page.getByRole('textbox', { name: 'Text of the post' });

test('two tabs on one desk see what the other does; where both changed the same, one chooses', async ({
  home: page,
  context
}) => {
  await openDesk(page, TWILL);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(text(other)).toBeVisible();
  await title(page).fill('Twill, told slowly');
  await expect(title(other)).toHaveValue('Twill, told slowly');
  // Different fields are kept, both of them.
  await other.getByRole('textbox', { name: 'Excerpt' }).fill('From the other tab');
  await expect(page.getByRole('textbox', { name: 'Excerpt' })).toHaveValue('From the other tab');

  // The other tab is held back, as a browser does with tabs that are not seen.
  await other.evaluate(() => {
    const put = IDBObjectStore.prototype.put;
    (window as unknown as { release: () => void }).release = () => {
      IDBObjectStore.prototype.put = put;
    };
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('The disk is full.', 'QuotaExceededError');
    };
  });
  await title(other).fill('Theirs');
  await expect(other.getByText('Your last changes are not saved')).toBeVisible();
  await title(page).fill('Mine');
  const clash = other.getByRole('alert').filter({ hasText: 'Another tab changed the same thing' });
  await expect(clash).toContainText('the title');
  await expect(title(other)).toHaveValue('Theirs');
  await expect(title(page)).toHaveValue('Mine');
  await other.evaluate(() => (window as unknown as { release: () => void }).release());
  await clash.getByRole('button', { name: 'Use the other tab’s' }).click();
  await expect(title(other)).toHaveValue('Mine');
});

test('a post that was changed at the blog is shown beside ours, and nothing is overwritten unseen', async ({
  home: page,
  world
}) => {
  await openDesk(page, TWILL);
  await page.getByRole('button', { name: 'Save as draft' }).click();
  await expect(page.getByText(/^At the blog: a draft, since/)).toBeVisible();
  await wasReadBack(page);
  await world.addToPost(TWILL, 'A word of my own, written at the blog.');
  await page.getByRole('textbox', { name: 'Excerpt' }).fill('Another excerpt');
  await page.getByRole('button', { name: 'Update the draft' }).click();
  const changed = page.getByRole('region', { name: 'Changed at the blog' });
  await expect(changed.locator('ins')).toContainText('A word of my own, written at the blog.');
  expect(await world.postHtml(TWILL)).toContain('A word of my own');
  await changed.getByRole('button', { name: 'Keep the blog’s version' }).click();
  await expect(changed).toBeHidden();
  expect(await world.postHtml(TWILL)).toContain('A word of my own');

  // Changed once more, the list says so, and it can be overwritten where that is wanted.
  await world.addToPost(TWILL, 'And one more.');
  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await page.getByRole('button', { name: 'Refresh' }).click();
  await expect(row(page, TWILL)).toHaveAccessibleName(/Drifted/);
  await row(page, TWILL).getByRole('button', { name: 'Drifted: compare' }).click();
  const dialog = page.getByRole('dialog', { name: 'What has drifted' });
  await expect(dialog.locator('ins')).toContainText('And one more.');
  await dialog.getByRole('link', { name: 'Open the desk' }).click();
  await page.getByRole('button', { name: 'Update the draft' }).click();
  await changed.getByRole('button', { name: 'Overwrite with this version' }).click();
  await expect.poll(() => world.postHtml(TWILL)).not.toContain('A word of my own');
});

test('what was discarded comes back with the message, or from the journal', async ({
  home: page
}) => {
  await openDesk(page, TWILL);
  await title(page).fill('A title of mine');
  const discard = page.getByRole('button', { name: 'Discard changes' });
  await discard.click();
  await expect(title(page)).toHaveValue(TWILL);
  const deck = page.getByRole('contentinfo', { name: 'Deck' });
  await deck.getByRole('button', { name: 'Undo' }).click();
  await expect(title(page)).toHaveValue('A title of mine');
  await discard.click();
  await expect(title(page)).toHaveValue(TWILL);
  await page.getByRole('link', { name: 'Journal' }).click();
  await page
    .getByRole('button', { name: `Undo: Changes discarded ${TWILL}` })
    .first()
    .click();
  await page.goBack();
  await expect(title(page)).toHaveValue('A title of mine');
});

test('the desk has one history: text, chapters and layout are undone in turn, and none is lost', async ({
  home: page
}) => {
  await openDesk(page, TWILL);
  const chapter = page.getByRole('textbox', { name: 'Title of chapter 2' });
  const before = await chapter.inputValue();
  await text(page).getByText('A straight draw from the first heddle').first().click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Bring tea.');
  await expect(page.getByText('Edited by hand.')).toBeVisible();
  await chapter.fill('Counting, twice');
  await expect(text(page).getByRole('heading', { name: 'Counting, twice' })).toBeVisible();
  await page.getByText('Layout', { exact: true }).click();
  const summary = page.getByRole('checkbox', { name: 'Summary in the post' });
  await summary.press('Space');
  await expect(summary).toBeChecked();
  const undo = page.getByRole('button', { name: 'Undo', exact: true });
  await undo.click();
  await expect(summary).not.toBeChecked();
  await undo.click();
  await expect(chapter).toHaveValue(before);
  await page.getByText('Write', { exact: true }).click();
  await expect(text(page)).toContainText('Bring tea.');
  await page.keyboard.press('Control+z');
  await expect(text(page)).not.toContainText('Bring tea.');
  await page.keyboard.press('Control+Shift+z');
  await expect(text(page)).toContainText('Bring tea.');
});

test('publishing is reached within twelve tabs, and a panel stays open while it is filled', async ({
  home: page
}) => {
  await openDesk(page, TWILL);
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  const publish = page.getByRole('button', { name: 'Save as draft' });
  let tabs = 0;
  do {
    await page.keyboard.press('Tab');
    tabs++;
  } while (tabs < 30 && !(await publish.evaluate((b) => b === document.activeElement)));
  expect(tabs).toBeLessThanOrEqual(12);

  await page.getByText('Pictures of the steps').click();
  const address = page.getByRole('textbox', { name: 'Address of a picture' });
  await address.fill('https://pictures.example/heddle.png');
  await page.getByRole('textbox', { name: 'What it shows' }).fill('A heddle');
  await page.getByRole('button', { name: 'Put it in the article' }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(address).toBeVisible();
});

test('whoever comes back finds the selection and the row again', async ({ home: page }) => {
  const aside = row(page, 'Hemstitching on the loom');
  await aside.getByRole('checkbox').check();
  await row(page, TWILL).focus();
  await page.keyboard.press('p');
  await expect(page.getByRole('heading', { level: 1, name: TWILL })).toBeVisible();
  await page.goBack();
  await expect(page.getByText('1 selected')).toBeVisible();
  await expect(row(page, TWILL)).toBeFocused();
});

test('a date that has passed is asked about, and the zone is named', async ({ home: page }) => {
  await openDesk(page, TWILL);
  await page.getByText('Public on a date').click();
  const date = page.getByLabel(/^Date and time \(/);
  await date.fill('2020-03-01T09:00');
  const schedule = page.getByRole('button', { name: /^Schedule for/ });
  await expect(page.getByText('1 Mar 2020, 09:00, which has passed')).toBeVisible();
  await expect(schedule).toBeDisabled();
  await page.getByRole('checkbox', { name: 'Backdate the post to this date' }).check();
  await expect(schedule).toBeEnabled();
});
