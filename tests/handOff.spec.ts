import { expect, test, within } from './app.ts';
import { at, openUpdates } from './updatesView.ts';

const COLOUR = 'A colour plan for winter scarves';
const BOARD = 'Board at the Mill Gate';

test('what no program may post is handed over by message, posted on a telephone, and closed', async ({
  home: page,
  world,
  context,
  browser
}) => {
  await openUpdates(page, COLOUR);
  const board = at(page, BOARD);
  await board.getByRole('checkbox', { name: BOARD }).check();
  await world.faults({ failOneIn: '4', loseOneIn: '2', busyOneIn: '5', retryAfter: '1' });
  await page.getByRole('button', { name: 'Publish to 5 places' }).click();
  await expect(board.getByText('It stays open until you have posted it.')).toBeVisible(within(90));
  await world.faults({});

  const mail = await context.newPage();
  const message = board.getByRole('link', { name: 'View message' });
  await mail.goto((await message.getAttribute('href')) ?? '');
  await expect(mail.getByRole('heading', { level: 2 })).toContainText(`Post by hand at ${BOARD}`);
  await expect(mail.getByRole('list', { name: 'Files' })).toContainText('picture.png (image/png)');
  const link = mail.getByRole('link', { name: `Open the page for ${BOARD}` });
  const address = (await link.getAttribute('href')) ?? '';

  // A telephone knows nothing of the browser that sent the message.
  const telephone = await browser.newContext({ viewport: { width: 390, height: 844 } });
  await telephone.grantPermissions(['clipboard-read', 'clipboard-write']);
  const hand = await telephone.newPage();
  await hand.goto(address);
  await expect(hand.getByRole('heading', { level: 1 })).toHaveText(`Post by hand at ${BOARD}`);
  await hand.getByRole('button', { name: 'Copy the text' }).click();
  await expect(hand.getByText('Copied: text.')).toBeVisible();
  const [there] = await Promise.all([
    telephone.waitForEvent('page'),
    hand.getByRole('link', { name: `Open ${BOARD}` }).click()
  ]);
  await there.getByRole('textbox', { name: 'Your notice' }).focus();
  await there.keyboard.press('Control+v');
  await there.getByRole('button', { name: 'Pin it up' }).click();
  await expect(there.getByText(COLOUR)).toBeVisible();
  await hand.getByRole('textbox', { name: 'The address it got' }).fill('on the board');
  await hand.getByRole('button', { name: 'Done' }).click();
  await expect(hand.getByText('This is not a web address.')).toBeVisible();
  await hand.getByRole('textbox', { name: 'The address it got' }).fill(there.url());
  await hand.getByRole('button', { name: 'Done' }).click();
  await expect(hand.getByText('Done. The update is closed with this address.')).toBeVisible();
  await telephone.close();

  await board.getByRole('button', { name: 'Check for an answer' }).click();
  await expect(board.getByText('Posted by hand.')).toBeVisible();
  await expect(board.getByRole('link', { name: there.url() })).toBeVisible();
  await page.getByRole('link', { name: 'Journal', exact: true }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Posted by hand' })).toContainText(BOARD);
});

test('in the browser that sent it, the page closes the update at once and has the file', async ({
  home: page,
  context,
  app
}) => {
  await openUpdates(page, COLOUR);
  const board = at(page, BOARD);
  await board.getByRole('checkbox', { name: BOARD }).check();
  await page.getByRole('radio', { name: 'A quotation as a picture' }).check();
  await expect(board.getByRole('img')).toHaveAttribute('src', /^blob:/, within(20));
  await page.getByRole('button', { name: 'Publish to 5 places' }).click();
  await expect(board.getByText('It stays open until you have posted it.')).toBeVisible();
  const mail = await context.newPage();
  const message = board.getByRole('link', { name: 'View message' });
  await mail.goto((await message.getAttribute('href')) ?? '');
  await mail.getByRole('link', { name: `Open the page for ${BOARD}` }).click();
  const [file] = await Promise.all([
    mail.waitForEvent('download'),
    mail.getByRole('button', { name: 'Save picture.png' }).click()
  ]);
  expect(file.suggestedFilename()).toBe('picture.png');
  const got = mail.getByRole('textbox', { name: 'The address it got' });
  await got.fill('https://elsewhere.example/9');
  await mail.getByRole('button', { name: 'Done' }).click();
  await expect(mail.getByText(`This address is not at ${BOARD}.`)).toBeVisible();
  await got.fill(`${app.hosts}/board/9`);
  await mail.getByRole('button', { name: 'Done' }).click();
  await expect(mail.getByText('Done. The update is closed')).toBeVisible();
  await expect(board.getByText('Posted by hand.')).toBeVisible();
});

test('an address that was cut off on its way says so', async ({ page }) => {
  await page.goto('/hand-off#abcd');
  await expect(page.getByRole('heading', { name: 'This address is not whole' })).toBeVisible();
});

test('a place is added that is posted to by hand, and the mailbox is disconnected and connected', async ({
  home: page
}) => {
  await page.getByRole('link', { name: 'Places', exact: true }).click();
  const mailbox = page.getByRole('region', { name: 'Posting by hand' });
  const address = (await mailbox.getByRole('link').first().getAttribute('href')) ?? '';
  await mailbox.getByRole('textbox', { name: 'Name of the place' }).fill('Dyers’ Round');
  await mailbox
    .getByRole('textbox', { name: 'Where a post is begun there' })
    .fill('https://dyers.example/new');
  await mailbox.getByRole('button', { name: 'Add this place' }).click();
  const card = page.getByRole('article', { name: 'Dyers’ Round' });
  await expect(card.getByText('Texts of up to 1,000 characters')).toBeVisible();
  await mailbox.getByRole('button', { name: 'Disconnect the mailbox…' }).click();
  await mailbox.getByRole('button', { name: /^Disconnect \(nothing/ }).click();
  await expect(mailbox.getByText('connect your mailbox above')).toBeVisible();
  await page.getByRole('textbox', { name: 'Connect a channel or blog' }).fill(address);
  await page.getByRole('button', { name: 'Find' }).click();
  const found = page.getByRole('region', { name: 'What was found' });
  await expect(found.getByRole('heading', { name: 'Letterbox of the Loomworks' })).toBeVisible();
  await found.getByLabel(/^Key for reading/).fill('wrenfold-mailbox-key');
  await found.getByRole('button', { name: 'Connect this mailbox' }).click();
  await expect(mailbox.getByText('studio@wrenfold.example')).toBeVisible();
});
