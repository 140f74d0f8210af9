import { expect, idle, openDesk, row, test } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';

test('a standing that no twin has says so, with a way out', async ({ home: page }) => {
  await page
    .getByRole('button', { name: /^Drifted/ })
    .first()
    .click();
  await row(page, 'Sleying a reed without crossed ends')
    .getByRole('button', { name: 'Drifted: compare' })
    .click();
  await page.getByRole('button', { name: 'Keep both titles' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing has drifted' })).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(row(page, TWILL)).toBeVisible();
});

test('reading can be stopped, and says that nothing was lost', async ({ home: page, world }) => {
  await world.faults({ slow: '4000' });
  await page.getByRole('button', { name: 'Refresh' }).click();
  await page.getByRole('button', { name: /^Stop: Reading/ }).click();
  await expect(
    page.getByRole('status').filter({ hasText: 'Stopped. Nothing was lost.' })
  ).toBeVisible();
  await idle(page);
  await expect(row(page, TWILL)).toBeVisible();
});

test('a video that is not here', async ({ home: page }) => {
  await page.goto('/desk/no-such-video');
  await expect(page.getByRole('heading', { name: 'This video is not here' })).toBeVisible();
  await page.goto('/no-such-page');
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
});

test('rows are selected as a range or all at once, by mouse and by keyboard', async ({
  home: page
}) => {
  const box = (n: number) => page.locator(`[data-row="${n}"]`).getByRole('checkbox');
  await box(1).click();
  await box(4).click({ modifiers: ['Shift'] });
  await expect(page.getByText('4 selected')).toBeVisible();
  // Within the range it stays selected, and its box says so.
  await box(3).click({ modifiers: ['Shift'] });
  await expect(box(3)).toBeChecked();
  await expect(page.getByText('4 selected')).toBeVisible();
  await page.getByRole('button', { name: 'Clear' }).click();
  await page.locator('[data-row="0"]').focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('3 selected')).toBeVisible();
  await page.keyboard.press('Control+a');
  const count = Number(await page.getByRole('grid').getAttribute('aria-rowcount'));
  await expect(page.getByText(`${count} selected`)).toBeVisible();
  // What is done is done with what the filter shows.
  const drafts = page.getByRole('button', { name: /^No post yet \d/ });
  const some = Number(/(\d+)/.exec((await drafts.textContent()) ?? '')?.[1]);
  await drafts.click();
  await expect(page.getByText(`${some} selected, ${count - some} more not shown`)).toBeVisible();
  await drafts.click();
  await page.getByRole('button', { name: 'Clear' }).click();

  const [, aside] =
    /(\d+)/.exec((await page.getByRole('button', { name: /^Set aside \d/ }).textContent()) ?? '') ??
    [];
  await box(1).click();
  await page.getByRole('button', { name: /^Select all/ }).click();
  await expect(page.getByText(`${count} selected`)).toBeVisible();
  await page.getByRole('button', { name: 'Clear' }).click();
  await box(1).click();
  await box(2).click();
  await page.getByRole('button', { name: 'Set aside / Restore' }).click();
  const now = page.getByRole('button', { name: `Set aside ${Number(aside) + 2}` });
  await expect(now).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: `Set aside ${aside}` })).toBeVisible();
});

test('several twins are set aside at once', async ({ home: page }) => {
  for (const title of [TWILL, 'Straight selvedges: five things that helped']) {
    await row(page, title).getByRole('checkbox').check();
  }
  await expect(page.getByText('2 selected')).toBeVisible();
  await page.getByRole('button', { name: 'Set aside / Restore' }).click();
  await expect(page.getByRole('button', { name: /^Set aside 4/ })).toBeVisible();
  await page.getByRole('link', { name: 'Journal' }).click();
  await page.getByRole('searchbox', { name: 'Filter' }).fill('set aside');
  await expect(page.getByRole('cell', { name: 'Set aside' })).toHaveCount(2);
  await page.getByRole('searchbox', { name: 'Filter' }).fill('nothing like it');
  await expect(page.getByRole('heading', { name: 'No matching lines' })).toBeVisible();
});

test('captions that cannot be read are reported, and can be read again', async ({ home: page }) => {
  await page.route('**/api/read?url=*captions.vtt', (route) => route.abort());
  await openDesk(page, TWILL);
  const told = page.getByRole('region', { name: 'Transcript' }).first().getByRole('alert');
  await expect(told).toContainText('did not answer');
  await page.unroute('**/api/read?url=*captions.vtt');
  await told.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('button', { name: 'Play from 44 seconds' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Counting the heddles' }).first()).toBeVisible();
});

test('a browser without a voice says so', async ({ home: page }) => {
  await page.evaluate(() => (speechSynthesis.getVoices = () => []));
  await openDesk(page, TWILL);
  await page.getByRole('button', { name: 'Read aloud' }).click();
  await expect(page.getByText('This browser has no voice')).toBeVisible();
});

test('colours follow the system until one of light and dark is chosen, which is kept', async ({
  home: page
}) => {
  const html = page.locator('html');
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect(html).toHaveAttribute('data-mode', 'dark');
  await page.emulateMedia({ colorScheme: 'light' });
  await expect(html).toHaveAttribute('data-mode', 'light');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').fill('light and dark');
  await page.keyboard.press('Enter');
  await expect(html).toHaveAttribute('data-mode', 'dark');
  await page.reload();
  await expect(html).toHaveAttribute('data-mode', 'dark');
  await expect(page.getByRole('button', { name: 'Use light colours' })).toBeVisible();
});

test('the HTML can be copied', async ({ home: page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openDesk(page, TWILL);
  await page.getByText('HTML', { exact: true }).click();
  await page.getByText('Export').click();
  await page.getByRole('button', { name: 'Copy HTML' }).click();
  await expect(page.getByText('The HTML is on the clipboard.')).toBeVisible();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied).toContain('<iframe');
  expect(await page.getByRole('textbox', { name: 'HTML of the post' }).inputValue()).toBe(copied);
});

test('a long journal and a long list of items are drawn as far as they are seen, and end where they end', async ({
  home: page
}) => {
  await idle(page);
  await page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((done) => {
      const asked = indexedDB.open('swift-twin');
      asked.onsuccess = () => done(asked.result);
    });
    const change = db.transaction(['journal', 'items'], 'readwrite');
    const at = new Date().toISOString();
    const line = { at, what: 'set-aside', placeId: '', itemId: '', laneId: '', url: '', key: '' };
    for (let i = 0; i < 400; i++)
      change
        .objectStore('journal')
        .add({ ...line, title: `Skein ${i}`, count: null, problem: null });
    const items = change.objectStore('items');
    const all = await new Promise<Record<string, unknown>[]>((done) => {
      const asked = items.getAll();
      asked.onsuccess = () => done(asked.result as Record<string, unknown>[]);
    });
    const post = all.find((item) => item['kind'] === 'post');
    for (let i = 0; i < 300; i++)
      items.add({
        ...post,
        id: `skein-${i}`,
        nativeId: `skein-${i}`,
        url: `https://skein.example/${i}`,
        title: `Skein ${i}`,
        published: new Date(Date.UTC(2001, 0, 1 + i)).toISOString(),
        embeds: [],
        links: [],
        origin: null
      });
    await new Promise((done) => (change.oncomplete = done));
    db.close();
  });

  await page.goto('/journal');
  const lines = page.getByRole('row');
  await expect(lines.filter({ hasText: 'Skein 399' })).toBeVisible();
  expect(await lines.count()).toBeLessThan(80);
  await page.getByRole('table').hover();
  await expect(async () => {
    await page.mouse.wheel(0, 4_000);
    await expect(lines.filter({ hasText: /Skein 0(?!\d)/ })).toBeVisible({ timeout: 200 });
  }).toPass();
  expect(await lines.count()).toBeLessThan(80);

  await page.goto('/updates');
  const items = page.getByRole('list', { name: 'Items' }).locator(':scope > [role=listitem]');
  await expect(items.first()).toHaveAttribute('aria-setsize', /^3\d\d$/);
  expect(await items.count()).toBeLessThan(40);
  await page.getByRole('list', { name: 'Items' }).hover({ position: { x: 40, y: 40 } });
  await expect(async () => {
    await page.mouse.wheel(0, 8_000);
    await expect(items.filter({ hasText: /Skein 0(?!\d)/ })).toBeVisible({ timeout: 200 });
  }).toPass();
  expect(await items.count()).toBeLessThan(40);
  await page.getByRole('searchbox', { name: 'Filter' }).fill('skein 17');
  await expect(items).toHaveCount(11);
  await page.getByRole('searchbox', { name: 'Filter' }).fill('no such skein');
  await expect(page.getByText('No matching items.')).toBeVisible();
});

test('a tab gives way to a later version, and an older one leaves its data alone', async ({
  home: page
}) => {
  await page.evaluate(
    () =>
      new Promise((done, fail) => {
        const asked = indexedDB.open('swift-twin', 1000);
        asked.onsuccess = () => {
          asked.result.close();
          done(null);
        };
        asked.onerror = () => fail(asked.error);
        asked.onblocked = () => fail(new Error('Another tab holds the database.'));
      })
  );
  const alert = page.getByRole('alert').filter({ hasText: 'Swift Twin' });
  await expect(alert).toContainText('Another tab has brought in a new version');
  await page.getByRole('button', { name: 'Load anew' }).click();
  await expect(alert).toContainText('A later version of Swift Twin has kept its data');
  await expect(page.getByRole('navigation')).toHaveCount(0);
});

test('the first page loads no more script than it needs: under 250 KB, packed', async ({
  browser,
  emptyApp
}) => {
  const page = await browser.newPage();
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  const scripts = new Set<string>();
  let bytes = 0;
  session.on('Network.responseReceived', ({ requestId, type }) => {
    if (type === 'Script') scripts.add(requestId);
  });
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (scripts.has(requestId)) bytes += encodedDataLength;
  });
  await page.goto(emptyApp.origin, { waitUntil: 'networkidle' });
  expect(bytes).toBeGreaterThan(50_000);
  expect(bytes).toBeLessThan(250_000);
  await page.close();
});

test('a page may frame what is linked and nothing else, whatever cookies somebody sets', async ({
  page,
  emptyApp
}) => {
  const linked = 'https://loom.example';
  await page.goto(emptyApp.origin);
  const tell = () =>
    page.evaluate(
      (origin) =>
        fetch('/api/origins', { method: 'PUT', body: JSON.stringify([origin, "*; x 'y'"]) }).then(
          (answer) => answer.json() as Promise<unknown>
        ),
      linked
    );
  const policy = async () =>
    (await page.goto(emptyApp.origin))?.headers()['content-security-policy'] ?? '';
  expect(await policy()).not.toContain(linked);
  expect(await tell()).toEqual({ wereKnown: false });
  expect(await policy()).toContain(`frame-src 'self' ${linked} http`);
  expect(await policy()).not.toContain("'y'");

  const { host, port } = new URL(emptyApp.origin);
  for (const name of [`swift-twin-${port}`, 'linked-origins'])
    await page
      .context()
      .addCookies([{ name, value: linked, domain: host.split(':')[0] ?? '', path: '/' }]);
  expect(await policy()).not.toContain(linked);
});
