import type { Page } from '@playwright/test';
import { openAlert, expect, openLayout, test, within } from './app.ts';
import { catalogueLane, newLane, station } from './lanesView.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
const DAY = 86_400_000;

/** What a lane leaves out and what it lets pass, as its rehearsal tells it. */
async function rehearsal(page: Page) {
  await page.getByRole('button', { name: 'Rehearse' }).click();
  const region = page.getByRole('region', { name: /^Rehearsal of/ });
  await expect(region.getByRole('combobox', { name: 'Rehearse with' })).toBeVisible();
  return region;
}

/** Puts a setting of the browser where no part of the application runs that would write it anew. */
async function putSetting(page: Page, name: string, value: unknown): Promise<void> {
  await page.goto('/favicon.svg');
  await page.evaluate(
    async ([name, value]) => {
      const asked = indexedDB.open('swift-twin');
      await new Promise((done) => (asked.onsuccess = done));
      const change = asked.result.transaction('settings', 'readwrite');
      change.objectStore('settings').put({ name, value });
      await new Promise((done) => (change.oncomplete = done));
      asked.result.close();
    },
    [name, value] as const
  );
}

test('a playlist of the channel is a source, found on its page or given by address', async ({
  home: page,
  app
}) => {
  await newLane(page);
  await station(page, 'Filter').click();
  await page.getByRole('radio', { name: 'The catalogue, oldest first' }).check();
  await station(page, 'Source').click();
  await page.getByRole('button', { name: 'Find playlists' }).click();
  await expect(page.getByRole('checkbox', { name: 'Your first warp, in order' })).toBeVisible();
  await page
    .getByRole('textbox', { name: 'Address of a playlist' })
    .fill(`${app.hosts}/channel/playlists/colour`);
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('checkbox', { name: 'Colour and dye, 2 items' })).toBeChecked();
  await expect(station(page, 'Source')).toContainText('in 1 playlist');
  const region = await rehearsal(page);
  await region.getByText(/items are left out, and why/).click();
  await expect(region.getByText(/: It is not in the playlists\.$/).first()).toBeVisible();
  await expect(region.getByText(/^Madder red on wool.*playlists/)).toHaveCount(0);

  await page.getByRole('textbox', { name: 'Address of a playlist' }).fill(`${app.hosts}/blog/`);
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByText('It is no playlist of Wrenfold Loomworks.')).toBeVisible();
  await expect(station(page, 'Source')).toContainText('in 1 playlist');
});

test('the most seen come first, by what the channel counts', async ({ home: page }) => {
  await newLane(page);
  await station(page, 'Filter').click();
  await page.getByRole('radio', { name: 'The catalogue, most viewed first' }).check();
  await expect(station(page, 'Filter')).toContainText('Most seen first');
  const region = await rehearsal(page);
  const offered = await region
    .getByRole('combobox', { name: 'Rehearse with' })
    .locator('optgroup[label="Passes"] option')
    .allTextContents();
  const views = await page.evaluate(async () => {
    const asked = indexedDB.open('swift-twin');
    await new Promise((done) => (asked.onsuccess = done));
    const all = asked.result.transaction('items').objectStore('items').getAll();
    await new Promise((done) => (all.onsuccess = done));
    return Object.fromEntries(
      (all.result as { title: string; views?: number }[]).map((i) => [i.title, i.views ?? -1])
    );
  });
  expect(offered.length).toBeGreaterThan(2);
  const counts = offered.map((title) => views[title] ?? 0);
  expect(counts).toEqual(counts.toSorted((a, b) => b - a));
  expect(counts[0]).toBeGreaterThan(0);
});

test('layouts that were kept on the desk are taken by language', async ({ home: page }) => {
  await openLayout(page, TWILL);
  const parts = page.getByRole('list', { name: 'Parts of the post' });
  const lead = parts.getByRole('listitem', { name: 'Lead-in' });
  await lead.getByRole('textbox').fill('Ein Film aus der Werkstatt.');
  const kept = page.getByRole('region', { name: 'Saved layouts' });
  await kept.getByRole('textbox', { name: 'Save this layout as' }).fill('German videos');
  await kept.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(kept.getByRole('combobox', { name: 'Saved layouts' })).toContainText(
    'German videos'
  );
  await page.getByText('Write', { exact: true }).click();
  await page.getByRole('button', { name: 'Discard changes' }).click();

  await newLane(page);
  await station(page, 'Filter').click();
  await page.getByRole('radio', { name: 'The catalogue, newest first' }).check();
  await station(page, 'Make').click();
  await page.getByRole('button', { name: 'Another layout for some items' }).click();
  await page.getByRole('textbox', { name: 'Language (a code, such as de)' }).fill('de');
  await page.keyboard.press('Tab');
  await expect(station(page, 'Make')).toContainText('with 1 rule for others');
  const region = await rehearsal(page);
  await region
    .getByRole('combobox', { name: 'Rehearse with' })
    .selectOption({ label: 'Die Kette aufbäumen, ganz in Ruhe' });
  await region.getByRole('button', { name: 'Show the result' }).click();
  const made = region.getByRole('article', { name: 'For The Wrenfold Notebook' });
  await expect(made).toContainText('Ein Film aus der Werkstatt.', within(20));
  await region.getByRole('combobox', { name: 'Rehearse with' }).selectOption(TWILL);
  await region.getByRole('button', { name: 'Show the result' }).click();
  await expect(made).toContainText('Threading a four-shaft twill', within(20));
  await expect(made).not.toContainText('Ein Film aus der Werkstatt.');
});

test('a lane makes polls; an item that gives none is left out with its reason', async ({
  home: page,
  world
}) => {
  await newLane(page);
  await station(page, 'Make').click();
  await page.getByRole('radio', { name: 'An update of each item' }).check();
  await page.getByRole('radio', { name: 'A quiz' }).check();
  await station(page, 'Source').click();
  await page.getByRole('checkbox', { name: 'Wrenfold Loomworks' }).check();
  await station(page, 'Filter').click();
  await page.getByRole('radio', { name: 'The catalogue, newest first' }).check();
  await station(page, 'Pace').click();
  await page.getByRole('spinbutton', { name: 'Most per run' }).fill('');
  await page.keyboard.press('Tab');
  await station(page, 'Places').click();
  await page.getByRole('checkbox', { name: 'Wrenfold Loomworks: followers' }).check();
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(page.getByText(/left out \d+ and made \d+\.$/)).toBeVisible(within(60));
  await page.getByText(/^History: /).click();
  await page.getByText(/^Left out: \d+$/).click();
  await expect(
    page.getByRole('list', { name: /^Left out by/ }).getByText(/made from English text only/)
  ).toBeVisible();
  await openAlert(page, /^[1-9]\d* to review$/);
  await page
    .getByRole('button', { name: /^Preview/ })
    .first()
    .click();
  await expect(page.getByRole('group', { name: 'Try it' }).getByRole('radio')).toHaveCount(4);
  await expect(page.getByText(/^Right: .+\. Shown afterwards: .+/)).toBeVisible();
  expect(await world.updates('followers')).toEqual([]);
});

test('what fell due while it was closed is reported, and goes out at the same pace', async ({
  home: page
}) => {
  await newLane(page);
  await station(page, 'Filter').click();
  await page.getByRole('radio', { name: 'The catalogue, newest first' }).check();
  await page.getByRole('checkbox', { name: 'With captions' }).check();
  await station(page, 'Pace').click();
  await page.getByRole('spinbutton', { name: 'To (hour)' }).fill('24');
  await page.getByRole('spinbutton', { name: 'From (hour)' }).fill('0');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(station(page, 'Approval')).toContainText('3 to review', within(60));
  await openAlert(page, '3 to review');
  await page
    .getByRole('button', { name: /^Approve/ })
    .first()
    .click();
  await page
    .getByRole('button', { name: /^Approve/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Lanes', exact: true }).first().click();
  await expect(station(page, 'Pace')).toContainText('2 planned');
  // It is on, and then closed for three days.
  await page.getByRole('switch').click();
  await expect(page.getByText(/^“Lane 1” runs while/)).toBeVisible();
  await putSetting(page, 'lanes/led', Date.now() - 3 * DAY);
  await page.goto('/lanes');
  await expect(
    page.getByText(/^When this was opened on .*, [12] items? (was|were) due/)
  ).toBeVisible(within(20));
  await expect(station(page, 'Places')).toContainText('1 published', within(60));
  await expect(station(page, 'Pace')).toContainText('1 planned');
  await page.getByRole('link', { name: 'Journal', exact: true }).click();
  await expect(page.getByRole('cell', { name: 'Missed while closed' })).toBeVisible();
});

test('a key that ends soon, and one that is over, are reported in the bar', async ({
  home: page,
  world
}) => {
  await page.getByRole('link', { name: 'Places', exact: true }).click();
  const channel = page.getByRole('article', { name: 'Wrenfold Loomworks', exact: true });
  await expect(channel.getByText(/^30 of 30 left this month/)).toBeVisible();
  await expect(channel.getByText(/^expires /)).toBeVisible();
  const bell = page.getByLabel(/needs? attention$/);
  await expect(bell).toHaveCount(0);
  await page.clock.setFixedTime(Date.now() + 170 * DAY);
  await channel
    .getByRole('button', { name: 'Check connection Wrenfold Loomworks', exact: true })
    .click();
  await bell.click();
  await expect(page.getByRole('link', { name: /^a key ends soon/ })).toBeVisible();
  await page.keyboard.press('Escape');
  // The hosts' clock alone is moved on: by it the key is over, and the place refuses it.
  await world.clock(181 * 24);
  await channel
    .getByRole('button', { name: /^Check/ })
    .first()
    .click();
  await expect(channel.getByText(/refused the key/)).toBeVisible();
  await bell.click();
  await expect(page.getByRole('link', { name: /^a place fails/ })).toBeVisible();
});

test('a lane of videos keeps a look of its own, whatever the booth has', async ({ home: page }) => {
  await newLane(page);
  await station(page, 'Make').click();
  await page.getByRole('radio', { name: 'A narrated video of each post' }).check();
  await page.getByRole('radio', { name: /^Of this lane/ }).check();
  await page.getByRole('combobox', { name: 'Frame' }).selectOption('Square');
  await page.getByRole('combobox', { name: 'Cards' }).selectOption('Sheet');
  await page.getByRole('combobox', { name: 'Voice' }).selectOption('British English, Scottish');
  await station(page, 'Source').click();
  await page.getByRole('checkbox', { name: 'The Wrenfold Notebook' }).check();
  await page.getByLabel('Exactly these words').fill('flax field');
  await station(page, 'Filter').click();
  await page.getByRole('radio', { name: 'The catalogue, newest first' }).check();
  await station(page, 'Places').click();
  await page.getByRole('checkbox', { name: 'Wrenfold Loomworks', exact: true }).check();
  await page.reload();
  await page.getByRole('button', { name: 'Run now' }).click();
  await expect(page.getByText(/made 1\.$/)).toBeVisible(within(120));
  const render = await page.evaluate(
    () =>
      new Promise<{ width: number; height: number }[]>((done) => {
        indexedDB.open('swift-twin').onsuccess = (event) => {
          const db = (event.target as IDBOpenDBRequest).result;
          const all = db.transaction('renders').objectStore('renders').getAll();
          all.onsuccess = () => done(all.result as { width: number; height: number }[]);
        };
      })
  );
  expect(render.map(({ width, height }) => [width, height])).toEqual([[960, 960]]);
});

test('words that the catalogue says with those of a search are suggested, with how many items they find', async ({
  home: page
}) => {
  await catalogueLane(page);
  await station(page, 'Source').click();
  const words = page.getByRole('list', { name: 'Suggested words' });
  await expect(words.getByRole('button').first()).toBeVisible();
  await page.getByRole('textbox', { name: 'With any of these words' }).fill('warp');
  await page.keyboard.press('Enter');
  await expect(words.getByRole('button', { name: /^warp/ })).toHaveCount(0);
  const first = words.getByRole('button').first();
  const [, word, items] = /^(\S+) \((\d+)\)/.exec((await first.textContent()) ?? '') ?? [];
  expect(Number(items)).toBeGreaterThan(0);
  await first.click();
  await expect(station(page, 'Source')).toContainText(`with any of warp and ${word}`);
  await expect(words.getByRole('button', { name: new RegExp(`^${word} `) })).toHaveCount(0);
  await station(page, 'Filter').click();
  const tags = page.getByRole('list', { name: 'Suggested tags' });
  await tags.getByRole('button').first().click();
  await expect(page.getByRole('button', { name: /^Remove / })).toHaveCount(1);
});
