import { readFile } from 'node:fs/promises';
import { deleteIt, expect, idle, row, test, within } from './app.ts';
import { at, FOLLOWERS, NOTES, openUpdates } from './updatesView.ts';

const COLOUR = 'A colour plan for winter scarves';
const DRAFT = 'Reading a weaving draft in six minutes';
const NETWORKS = ['followers', 'notes', 'pictures', 'pages'];

test('a text goes to four networks, with faults on, and stands at each once', async ({
  home: page,
  world
}) => {
  await openUpdates(page, COLOUR);
  for (const name of [NOTES, FOLLOWERS, 'Gallery in the Loft', 'Market Street Pages'])
    await expect(at(page, name).getByText(/^\d+ of \d+$/)).toBeVisible();
  await world.faults({ failOneIn: '4', loseOneIn: '3', busyOneIn: '5', retryAfter: '1' });
  await page.getByRole('button', { name: 'Publish to 4 places' }).click();
  await expect(page.getByText(/^Published /)).toHaveCount(4, within(90));
  await world.faults({});
  await expect(at(page, NOTES).getByText('Of 30 a day, 29 are left.')).toBeVisible();
  for (const path of NETWORKS) expect(await world.updates(path)).toHaveLength(1);
  expect((await world.updates('notes'))[0]?.content).toContain(`${COLOUR}\n\n`);

  // Sent once more it takes the place of the first; taken back it is gone.
  await at(page, NOTES).getByRole('textbox', { name: /^Text/ }).fill('Twelve scarves, one warp.');
  await page.getByRole('button', { name: 'Publish to 4 places' }).click();
  await expect
    .poll(async () => (await world.updates('notes')).map((u) => u.content))
    .toEqual(['Twelve scarves, one warp.']);
  await deleteIt(at(page, NOTES), 'update');
  await expect(at(page, NOTES).getByText('Deleted.')).toBeVisible();
  expect(await world.updates('notes')).toHaveLength(0);

  // In step tells it too, and from there it is one key away.
  await page.getByRole('link', { name: 'In step', exact: true }).click();
  await expect(row(page, COLOUR).getByRole('link', { name: 'shared at 3 places' })).toHaveAttribute(
    'title',
    /Short text at Wrenfold Loomworks: followers, /
  );
  await row(page, COLOUR).focus();
  await page.keyboard.press('u');
  await expect(page.getByRole('heading', { level: 1, name: COLOUR })).toBeVisible();

  // Neither half of the twin is taken for being made.
  await page.getByRole('link', { name: 'In step', exact: true }).click();
  await expect(row(page, COLOUR)).toHaveAccessibleName(/No video yet/);

  // What the journal tells of can be taken back from there.
  await page.getByRole('link', { name: 'Journal', exact: true }).click();
  const line = page.getByRole('row').filter({ hasText: 'at Market Street Pages' }).first();
  await line.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByText('The update was deleted.')).toBeVisible();
  expect(await world.updates('pages')).toHaveLength(0);
});

test('a quiz from the talk is tried, sent, and answered while the clock moves on', async ({
  home: page,
  world,
  context
}) => {
  await openUpdates(page, DRAFT);
  await page.getByRole('radio', { name: 'Quiz' }).check();
  const proposals = page.getByRole('list', { name: 'Proposals' });
  await proposals
    .getByRole('listitem')
    .filter({ hasText: 'is the small square in the corner' })
    .getByRole('button', { name: 'Use this one' })
    .click();
  const followers = at(page, FOLLOWERS);
  await followers.getByRole('radio', { name: 'tie-up' }).check();
  await expect(followers.getByText(/^Right\. The tie-up is the small square/)).toBeVisible();
  await expect(at(page, NOTES).getByText('This place has no quizzes.')).toBeVisible();
  await page.getByRole('button', { name: 'Publish the quiz to 1 place' }).click();
  await expect(followers.getByText(/^Published /)).toBeVisible();
  await expect(followers.getByText('Open, 0 answers so far.')).toBeVisible();

  await world.clock(20);
  await followers.getByRole('button', { name: 'Refresh results' }).click();
  await expect(followers.getByText(/^Open, [1-9]\d* answers so far\.$/)).toBeVisible();
  // What becomes of them is said before it is published again.
  await expect(followers.getByText('with the same options, its answers are kept')).toBeVisible();
  await page.getByRole('textbox', { name: 'Option 1' }).fill('warp beam');
  await expect(followers.getByText('answers are counted from zero')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(followers.getByText('with the same options, its answers are kept')).toBeVisible();
  await world.clock(100);
  await followers.getByRole('button', { name: 'Refresh results' }).click();
  await expect(followers.getByText(/^Closed, \d+ answers so far\.$/)).toBeVisible();
  const there = await context.newPage();
  const address = await followers.getByRole('link', { name: 'View update' }).getAttribute('href');
  await there.goto(address ?? '');
  await expect(there.getByText('(this is right)')).toBeVisible();
});

test('a poll fits some places and not others, and is changed until it does', async ({
  home: page,
  world
}) => {
  await openUpdates(page, COLOUR);
  await page.getByRole('radio', { name: 'Poll' }).check();
  await expect(page.getByRole('textbox', { name: 'Question' })).not.toHaveValue('');
  await page.getByRole('textbox', { name: 'Option 1' }).fill('w'.repeat(60));
  await expect(
    at(page, NOTES).getByText('Option 1 is 10 characters too long for this place.')
  ).toBeVisible();
  await expect(page.getByText('3 places cannot take it as it is.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Option 1' }).fill('Madder and cream');
  await page.getByRole('textbox', { name: 'Option 2' }).fill('madder and cream');
  await expect(at(page, NOTES).getByText('Two options are the same.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Option 2' }).fill('Grey and brown');
  await page.getByRole('button', { name: 'Publish the poll to 2 places' }).click();
  await expect(page.getByText(/^Published /)).toHaveCount(2);
  expect((await world.updates('notes'))[0]?.type).toBe('Question');
});

test('one common text is cut where it must be, own words stand, and a date is waited for', async ({
  home: page,
  world
}) => {
  await openUpdates(page, COLOUR);
  const notes = at(page, NOTES);
  const own = notes.getByRole('textbox', { name: /^Text/ });
  // What is typed before the text has come would stand beside it.
  await expect(own).toHaveValue(/^A colour plan/);
  await idle(page);
  await own.fill('Only for the neighbours.');
  await page
    .getByRole('textbox', { name: 'A text for all places' })
    .fill('We wound one warp for twelve scarves. '.repeat(25));
  await expect(page.getByText(`Changing it leaves what was written for ${NOTES}.`)).toBeVisible();
  await expect(own).toHaveValue('Only for the neighbours.');
  await notes.getByRole('button', { name: 'Back to the common text' }).click();
  await expect(notes.getByText('The common text is cut to fit.')).toBeVisible();
  await expect(own).toHaveValue(/https?:\/\/\S+utm_source=hearthside-notes\S*$/);
  await page.getByRole('radio', { name: 'In a feed' }).check();
  await expect(notes.getByText('The rest is folded away here.')).toBeVisible();

  await page.getByLabel(/^Date and time \(/).fill('2020-01-01T10:00');
  await expect(page.getByText('Choose a date to come.')).toBeVisible();
  await page.getByLabel(/^Date and time \(/).fill('2099-01-01T10:00');
  await page.getByRole('button', { name: 'Schedule for 4 places' }).click();
  await expect(notes.getByText(/^Scheduled for .*2099/)).toBeVisible();
  expect(await world.updates('notes')).toHaveLength(0);
  await notes.getByRole('button', { name: 'Cancel' }).click();
  await expect(notes.getByText('Deleted.')).toBeVisible();

  // What lies here is found again.
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'A text for all places' })).toHaveValue(
    /^We wound/
  );
});

test('hashtags of one’s own come first and banned ones never; the same is exported as files', async ({
  home: page
}) => {
  await openUpdates(page, COLOUR);
  const notes = at(page, NOTES);
  await expect(notes.getByRole('button', { name: 'Remove #warp' })).toBeVisible();
  await expect(notes.getByText(/^Used here: #\w+ [\d,]+/)).toBeVisible();
  await page.getByText('Tags on links, hashtags always and never').click();
  // What a slow network answers to the first change comes after the answer to the second.
  let late: Promise<void> | null = null;
  await page.route('**/api/send', async (route) => {
    if (late || !route.request().postData()?.includes('names=wrenfold')) return route.continue();
    late = (async () => {
      await expect(notes.getByRole('button', { name: 'Remove #warp' })).toHaveCount(0);
      await route.fulfill({ response: await route.fetch() });
    })();
    return late;
  });
  await page.getByRole('textbox', { name: 'Hashtags always' }).fill('wrenfold');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Hashtags never' }).fill('warp');
  await page.keyboard.press('Enter');
  await expect(notes.getByRole('button', { name: 'Remove #wrenfold' })).toBeVisible();
  await expect(notes.getByRole('button', { name: 'Remove #warp' })).toHaveCount(0);
  await late;
  await page.waitForTimeout(500);
  await expect(notes.getByRole('button', { name: 'Remove #warp' })).toHaveCount(0);

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export as files' }).click()
  ]);
  expect(download.suggestedFilename()).toBe('a-colour-plan-for-winter-scarves-updates.zip');
  // Names stand in a ZIP as they are, once before each file and once in its directory.
  const listed = (await readFile(await download.path())).toString('latin1');
  expect(listed.match(/[\w-]+\/update\.(?:txt|json)/g)).toHaveLength(16);
  expect(listed).toMatch(/gallery-in-the-loft\/picture\.jpg/);
});

test('a network is connected by its address and disconnected again', async ({ home: page }) => {
  await page.getByRole('link', { name: 'Places', exact: true }).click();
  const card = page.getByRole('article', { name: NOTES });
  await expect(card.getByText('Texts of up to 500 characters')).toBeVisible();
  const address = (await card.getByRole('link').first().getAttribute('href')) ?? '';
  await card.getByRole('button', { name: /^Disconnect…/ }).click();
  await card.getByRole('button', { name: 'Disconnect (nothing is deleted there)' }).click();
  await expect(card).toHaveCount(0);
  await page.getByRole('textbox', { name: 'Connect a channel or blog' }).fill(address);
  await page.getByRole('button', { name: 'Find', exact: true }).click();
  await page.getByRole('button', { name: 'Connect this network' }).click();
  await expect(card.getByLabel(`Key for publishing at ${NOTES}`)).toBeVisible();
  await card.getByLabel(`Key for publishing at ${NOTES}`).fill('wrenfold-updates-key');
  await card.getByRole('button', { name: 'Save key' }).click();
  await expect(card.getByText('Key ••••••••')).toBeVisible();
});
