import { readFile } from 'node:fs/promises';
import { openAlert, expect, idle, test, within } from './app.ts';
import { catalogueLane, station } from './lanesView.ts';

const TWILL = 'Threading a four-shaft twill, slowly';

test('a lane is made, rehearsed, run with faults on, reviewed by keyboard, published and taken back', async ({
  home: page,
  world
}) => {
  await catalogueLane(page);
  await page.getByRole('button', { name: 'Rehearse' }).click();
  const rehearsal = page.getByRole('region', { name: /^Rehearsal of/ });
  await expect(
    rehearsal.getByText(/^3 items match now; the source had about one in \d+ days/)
  ).toBeVisible();
  await rehearsal.getByText(/items are left out, and why/).click();
  await expect(
    rehearsal.getByText('Three minutes of quiet weaving: It has no captions.')
  ).toBeVisible();
  await rehearsal.getByRole('combobox', { name: 'Rehearse with' }).selectOption(TWILL);
  await rehearsal.getByRole('button', { name: 'Show the result' }).click();
  await expect(rehearsal.getByText('Nothing was published.')).toBeVisible(within(20));
  await expect(
    rehearsal.getByRole('article', { name: 'For The Wrenfold Notebook' }).getByRole('heading', {
      name: 'Counting the heddles'
    })
  ).toBeVisible();
  expect(await world.posts(TWILL)).toBe(0);

  await world.faults({ failOneIn: '4', loseOneIn: '3', busyOneIn: '5', retryAfter: '1' });
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(page.getByText(/left out \d+ and made 3\.$/)).toBeVisible(within(60));
  await expect(station(page, 'Approval')).toContainText('3 to review');

  await openAlert(page, '3 to review');
  const list = page.getByRole('list', { name: 'Made by lanes' });
  const rows = list.getByRole('listitem').filter({ has: page.getByRole('checkbox') });
  await expect(rows).toHaveCount(3);
  const titles = await rows
    .getByRole('checkbox')
    .evaluateAll((boxes) =>
      boxes.map((b) => (b.getAttribute('aria-label') ?? '').replace('Select ', ''))
    );
  await list.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('group', { name: `The post of ${titles[0]}` })).toBeVisible();
  await page.keyboard.press('x');
  await expect(rows).toHaveCount(2);
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await page.keyboard.press('o');
  await expect(page.getByText('Nothing to review')).toBeVisible();

  await page.getByRole('link', { name: 'Lanes', exact: true }).first().click();
  await expect(station(page, 'Pace')).toContainText('2 planned');
  await page.getByRole('switch').click();
  await expect(station(page, 'Places')).toContainText('2 published', within(90));
  await world.faults({});
  expect(await world.posts(titles[0] ?? '')).toBe(0);
  for (const title of titles.slice(1)) expect(await world.posts(title)).toBe(1);

  await page.getByText(/^History: /).click();
  await page.getByRole('button', { name: 'Undo this run…' }).click();
  await page.getByRole('button', { name: 'Delete what it published' }).click();
  await expect(page.getByText('2 items were undone.')).toBeVisible(within(30));
  for (const title of titles) expect(await world.posts(title)).toBe(0);
});

test('one of two tabs leads; when it is killed in the middle, the other goes on, and nothing is twice', async ({
  home: page,
  world,
  context
}) => {
  test.slow();
  await catalogueLane(page);
  await station(page, 'Approval').click();
  await page.getByRole('radio', { name: 'Publish without approval', exact: true }).check();
  const other = await context.newPage();
  await other.goto('/lanes');
  await world.faults({ slow: '400', loseOneIn: '3' });
  await page.getByRole('switch').click();
  await expect(station(other, 'Make')).toContainText('3 made', within(60));
  await expect(station(other, 'Places')).toContainText(/[12] published/, within(60));
  await page.close();
  await expect(station(other, 'Places')).toContainText('3 published', within(90));
  await world.faults({});
  await other.getByText(/^History: /).click();
  const placed = other
    .getByRole('list', { name: /^Items of/ })
    .getByRole('listitem')
    .filter({ hasText: 'Published' });
  await expect(placed).toHaveCount(3);
  for (const line of await placed.allTextContents())
    expect(await world.posts(line.replace(/^\s*Published\s*:\s*/, '').trim())).toBe(1);
});

test('lanes that lead round are shown as a way, and lanes that make the same are reported', async ({
  home: page
}) => {
  await catalogueLane(page);
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(page.getByText(/^It makes the same things as/)).toHaveCount(2);
  const second = page.getByRole('article', { name: 'Lane 1, copy' });
  await second.getByRole('button', { name: /^Make/ }).click();
  await second.getByRole('radio', { name: 'A narrated video of each post' }).check();
  await second.getByRole('button', { name: /^Source/ }).click();
  await second.getByRole('checkbox', { name: 'The Wrenfold Notebook' }).check();
  await second.getByRole('button', { name: /^Places/ }).click();
  await second.getByRole('checkbox', { name: 'Wrenfold Loomworks' }).check();
  const way = page.getByRole('note', { name: 'A loop' });
  await expect(way).toHaveCount(1);
  await expect(way).toContainText('Wrenfold Loomworks → Lane 1 →');
  await expect(way).toContainText('made items carry their origin and are never taken');
});

test('a search that finds nothing says so before it runs; a lane is saved as a file and opened', async ({
  home: page
}) => {
  await catalogueLane(page);
  await station(page, 'Source').click();
  await page.getByRole('textbox', { name: 'With all of these words' }).fill('submarine');
  await page.keyboard.press('Enter');
  await expect(station(page, 'Source')).toContainText('with submarine');
  await expect(page.getByText('Nothing matches, so nothing would be made.')).toBeVisible();
  await expect(page.getByText('Items per week, past twelve weeks')).toBeVisible();

  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export lane' }).click()
  ]);
  expect(file.suggestedFilename()).toBe('lane-1.lane.json');
  const path = await file.path();
  expect(await readFile(path, 'utf8')).not.toMatch(/127\.0\.0\.1|wrenfold-notebook-key|Notebook/);
  await page.getByRole('button', { name: 'Delete…' }).click();
  await page.getByRole('button', { name: 'Delete the lane, keep what it published' }).click();
  await expect(page.getByText('No lanes yet')).toBeVisible();
  await page.getByLabel('Import lane').setInputFiles('package.json');
  await expect(page.getByText('“package.json” is not a lane file.')).toBeVisible();
  await page.getByLabel('Import lane').setInputFiles(path);
  await expect(station(page, 'Source')).toContainText('No source yet');
  await expect(page.getByRole('switch')).toBeDisabled();
  await idle(page);
});

test('a sheet comes back with what became of each row; what is planned is a calendar; the day is a message', async ({
  home: page,
  context
}) => {
  await catalogueLane(page);
  await station(page, 'Source').click();
  const watch = await page.evaluate(async (title) => {
    const asked = indexedDB.open('swift-twin');
    await new Promise((done) => (asked.onsuccess = done));
    const all = asked.result.transaction('items').objectStore('items').getAll();
    await new Promise((done) => (all.onsuccess = done));
    return (all.result as { title: string; url: string }[]).find((i) => i.title === title)?.url;
  }, TWILL);
  const sheet = `number;where;note\n1;${watch};first\n2;https://nowhere.example/v;\n3;quiet weaving;a topic\n`;
  await page
    .getByLabel('From a sheet (CSV)')
    .setInputFiles({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet) });
  await expect(page.getByText('A list of 3 rows, by its column “where”.')).toBeVisible();
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(page.getByText(/and made 1\.$/)).toBeVisible(within(30));
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Export with results/ }).click()
  ]);
  const rows = (await readFile(await file.path(), 'utf8')).split('\r\n');
  expect(rows[0]).toBe('number,where,note,status,title,link,reason,time');
  expect(rows[1]).toContain(`1,${watch},first,Waiting for review,"${TWILL}"`);
  expect(rows[2]).toContain('2,https://nowhere.example/v,,Not found');
  expect(rows[3]).toContain('a topic,Left out,Three minutes of quiet weaving,,It has no captions.');

  await openAlert(page, '1 to review');
  await page.getByRole('button', { name: /^Approve/ }).click();
  await page.getByRole('link', { name: 'Lanes', exact: true }).first().click();
  await expect(page.getByText(/^Next one goes out .*, once the lane is on\.$/)).toBeVisible();
  const [calendar] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export calendar' }).click()
  ]);
  expect(await readFile(await calendar.path(), 'utf8')).toMatch(
    /BEGIN:VEVENT[\s\S]*SUMMARY:Threading a four-shaft twill\\, slowly/
  );

  await page.getByRole('button', { name: 'Send that of today now' }).click();
  const link = page.getByRole('link', { name: 'View message' });
  const message = await context.newPage();
  await message.goto((await link.getAttribute('href')) ?? '');
  await expect(message.getByRole('region', { name: 'As HTML' })).toContainText('1 run of lanes');
  await expect(message.getByRole('region', { name: 'As text' })).toContainText('Planned next:');
});

test('the journal is filtered by outcome and place, and each line opens to its steps', async ({
  home: page
}) => {
  await catalogueLane(page);
  await station(page, 'Approval').click();
  await page.getByRole('radio', { name: 'Publish without approval', exact: true }).check();
  await page.getByRole('switch').click();
  await expect(station(page, 'Places')).toContainText('3 published', within(60));
  await page.getByRole('link', { name: 'Journal', exact: true }).click();
  await page.getByRole('combobox', { name: 'Outcome' }).selectOption('Published');
  const rows = page.getByRole('row').filter({ has: page.getByRole('cell') });
  await expect(rows).toHaveCount(3);
  await page.getByRole('combobox', { name: 'Lane' }).selectOption('Lane 1');
  await expect(rows).toHaveCount(3);
  await rows.first().getByText('Steps').click();
  await expect(
    rows.first().getByText(/Checked whether it is there\. Answer: nothing/)
  ).toBeVisible();
  await rows.first().getByText('What was sent').click();
  await expect(rows.first().getByText('"status": "public"')).toBeVisible();
  await expect(rows.first()).not.toContainText('wrenfold-notebook-key');
  await page.getByRole('combobox', { name: 'Outcome' }).selectOption('Undone');
  await expect(page.getByText('No matching lines')).toBeVisible();
});
