import { readFile } from 'node:fs/promises';
import { expect, idle, test, within } from './app.ts';
import { importFigures, importLog } from './reachView.ts';

const WARP = 'Winding a warp on a board, start to finish';

test('an access log is looked at, added, and taken out again', async ({ home: page, world }) => {
  await page.getByRole('link', { name: 'Reach', exact: true }).click();
  await expect(page.getByText('Too few visits to say.')).toBeVisible();
  await page.getByRole('button', { name: 'Import access log…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Import an access log' });
  const choose = (name: string, buffer: Buffer) =>
    dialog.getByLabel(/^Choose /).setInputFiles({ name, mimeType: 'text/plain', buffer });
  await choose('letter.txt', Buffer.from('Dear weaver,\nall is well.\n'));
  await expect(dialog.getByRole('alert')).toContainText('none of its 2 lines can be read');
  const packed = await world.ownFile('access.log.gz');
  await choose('cut.log.gz', Buffer.concat([packed.subarray(0, 400), Buffer.alloc(400, 255)]));
  await expect(dialog.getByText(/is damaged and cannot be unpacked/)).toBeVisible();
  await choose('access.log', await world.ownFile('access.log'));
  await expect(dialog.getByText(/^[\d,]+ by bots$/)).toBeVisible();
  await expect(dialog.getByText(/your own$/)).toHaveCount(0);
  await dialog.getByLabel('Your own addresses, not counted').fill('203.0.113.7, next door');
  await expect(dialog.getByText('Not an address: next, door')).toBeVisible();
  await dialog.getByRole('button', { name: 'Read again' }).click();
  await expect(dialog.getByText(/^[\d,]+ your own$/)).toBeVisible();
  await dialog.getByRole('button', { name: /^Add [\d,]+ visits$/ }).click();
  await expect(page.getByText(/^Busiest: .* From [\d,]+ visits in \d+ days/)).toBeVisible();
  await expect(page.getByRole('row', { name: /^Page of the video “/ }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('Too few visits to say.')).toBeVisible();
  await page.getByRole('link', { name: 'Journal', exact: true }).click();
  await expect(page.getByText('Visits imported from an access log').first()).toBeVisible();
});

test('a table is added by its columns, and what names nothing here is said', async ({
  home: page,
  world
}) => {
  await page.getByRole('link', { name: 'Reach', exact: true }).click();
  await page.getByRole('button', { name: 'Import CSV…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Import figures from a table' });
  await dialog.getByLabel('Choose a CSV file…').setInputFiles({
    name: 'other.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Name;Seen\nNobody knows this;12\nNor this;3\n')
  });
  await expect(dialog.getByRole('combobox', { name: 'Views' })).toHaveValue('-1');
  await expect(dialog.getByRole('button', { name: 'Add 2 rows' })).toBeDisabled();
  await dialog.getByRole('combobox', { name: 'Views' }).selectOption('Seen');
  await dialog.getByRole('button', { name: 'Add 2 rows' }).click();
  await expect(dialog.getByText(/The first is “Nobody knows this”/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await importFigures(page, world);
  await page.getByText('Figures as a table').click();
  await expect(page.getByRole('row', { name: /^\d+ \w+ \d{4} / }).nth(40)).toBeAttached();
});

test('what came of a twin: both halves, its updates, what they brought, and files of it', async ({
  home: page,
  world
}, info) => {
  await page.getByRole('link', { name: 'Updates', exact: true }).click();
  await page.getByRole('searchbox', { name: 'Filter' }).fill(WARP);
  await page
    .getByRole('link', { name: new RegExp(`^Share the .*: ${WARP}$`) })
    .last()
    .click();
  await page.getByRole('button', { name: 'Publish to 3 places' }).click();
  await expect(page.getByText(/^Published /)).toHaveCount(3, within(60));
  await world.clock(80);
  await page.getByRole('link', { name: 'In step', exact: true }).click();
  await page.getByRole('button', { name: 'Refresh' }).click();
  await idle(page);
  await page.getByRole('link', { name: 'Reach', exact: true }).click();
  await importLog(page, world);
  await importFigures(page, world);
  await page.getByRole('radio', { name: 'Posts' }).check();
  await page.getByRole('link', { name: WARP }).click();
  await expect(page.getByRole('heading', { level: 1, name: WARP })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Video', exact: true })).toContainText(
    /Views\s*\d+/
  );
  await expect(page.getByRole('region', { name: 'Post', exact: true })).toContainText(
    /Visits\s*\d+/
  );
  const moments = page.getByRole('region', { name: 'What happened' }).getByRole('listitem');
  await expect(moments).toHaveCount(5);
  await expect(moments.last()).toContainText('Shared: ');
  const updates = page.getByRole('region', { name: 'Its updates' }).getByRole('listitem');
  await expect(updates.first()).toContainText(/ · \d+ likes? .*brought \d+ visits?$/);
  await page.getByText('Figures as a table').click();
  const first = page.getByRole('row', { name: /^\d+ \w+ \d{4} / }).last();
  const gained = await first.innerText();
  await page.getByRole('radio', { name: 'Total' }).check();
  await expect(page.getByRole('row', { name: /^\d+ \w+ \d{4} / }).last()).toHaveText(
    gained.replaceAll('\t', '')
  );

  const picture = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download picture' }).click();
  const png = await readFile(await (await picture).path());
  expect([...png.subarray(1, 4)]).toEqual([...Buffer.from('PNG')]);
  const table = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export CSV' }).click();
  const csv = await readFile(await (await table).path(), 'utf8');
  expect(csv).toMatch(/^date,kind,title,address,place,counter,gained,total\r\n/);
  expect(csv).toMatch(/,post,"Winding a warp on a board, start to finish",.*,visits,/);
  expect(csv).toMatch(/,update,.*,likes,/);
  expect(info.errors).toEqual([]);
});

test('the report of a month is read, downloaded and sent by mail', async ({
  home: page,
  world
}) => {
  await page.goto('/reach/report');
  await page.getByRole('link', { name: 'Reach' }).first().click();
  await importLog(page, world);
  await page.getByRole('link', { name: 'Monthly report' }).click();
  await expect(page.getByRole('img', { name: /^Reach by day in / })).toBeVisible();
  await expect(page.getByRole('row', { name: /^Post visits / })).toBeVisible();
  for (const [button, begins] of [
    ['Download HTML', '<!doctype html>'],
    ['Download Markdown', '# Reach in ']
  ] as const) {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: button }).click();
    const text = await readFile(await (await download).path(), 'utf8');
    expect(text.startsWith(begins)).toBe(true);
    expect(text).toContain('data:image/png;base64,');
  }
  await page.getByRole('button', { name: 'Send by mail' }).click();
  await expect(page.getByRole('link', { name: 'View message' })).toBeVisible();
  expect(await world.read('/mailbox/')).toContain('Reach in ');
  await page.getByRole('checkbox', { name: /^Send me the report of each month/ }).check();
  await page.reload();
  await expect(
    page.getByRole('checkbox', { name: /^Send me the report of each month/ })
  ).toBeChecked();
});

test('a twin that is not here says so, and R leads to the reach of a row', async ({
  home: page
}) => {
  await page.goto('/reach/no-such-twin');
  await expect(page.getByText('This twin is not here any more')).toBeVisible();
  await page.getByRole('link', { name: 'In step', exact: true }).click();
  await page.getByRole('row').nth(1).focus();
  await page.keyboard.press('r');
  await expect(page.getByRole('heading', { name: 'What happened' })).toBeVisible();
});
