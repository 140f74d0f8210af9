import { deleteIt, expect, test, within } from './app.ts';
import { at, FOLLOWERS, NOTES, openUpdates } from './updatesView.ts';

const COLOUR = 'A colour plan for winter scarves';
const GALLERY = 'Gallery in the Loft';
const PAGES = 'Market Street Pages';
/** Forty seconds, upright. */
const CLIP = 'hosts/world/clips/bobbin-in-forty-seconds.webm';

test('a picture is cut to the shape of a place around what is pointed at', async ({
  home: page,
  world,
  context
}) => {
  await openUpdates(page, COLOUR);
  const shown = at(page, GALLERY).getByRole('img');
  const before = await shown.getAttribute('src');
  await page.getByRole('slider', { name: 'What it is cut around' }).focus();
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('slider')).toHaveAttribute('aria-valuetext', /^10 % from the left/);
  await expect(shown).not.toHaveAttribute('src', before ?? '');
  const sizeOf = () =>
    shown.evaluate((img: HTMLImageElement) => [img.naturalWidth, img.naturalHeight]);
  await expect.poll(async () => (await sizeOf())[0]).toBeGreaterThan(100);
  const [width, height] = await sizeOf();
  expect(width).toBe(height);

  // It goes there as a file of its own, once, though answers are lost.
  await world.faults({ loseOneIn: '2', failOneIn: '5' });
  for (const name of [FOLLOWERS, NOTES, PAGES])
    await at(page, name).getByRole('checkbox', { name }).uncheck();
  await page.getByRole('button', { name: 'Publish to 1 place', exact: true }).click();
  await expect(at(page, GALLERY).getByText(/^Published /)).toBeVisible(within(60));
  await world.faults({});
  expect(await world.updates('pictures')).toHaveLength(1);
  const there = await context.newPage();
  const link = at(page, GALLERY).getByRole('link', { name: 'View update' });
  await there.goto((await link.getAttribute('href')) ?? '');
  const size = await there
    .getByRole('img', { name: COLOUR })
    .evaluate((img: HTMLImageElement) => [img.naturalWidth, img.naturalHeight]);
  expect(size).toEqual([width, height]);
});

test('a quotation is drawn as a picture, in words that can be changed', async ({ home: page }) => {
  await openUpdates(page, COLOUR);
  await page.getByRole('radio', { name: 'A quotation as a picture' }).check();
  const words = page.getByRole('textbox', { name: 'What is quoted' });
  await expect(words).not.toHaveValue('');
  const shown = at(page, PAGES).getByRole('img');
  await expect(shown).toHaveAttribute('src', /^blob:/, within(20));
  const before = await shown.getAttribute('src');
  await words.fill('Twelve scarves, one warp.');
  await expect(shown).toHaveAttribute('alt', 'Twelve scarves, one warp.');
  await expect(shown).not.toHaveAttribute('src', before ?? '');
  const [width = 0, height = 1] = await shown.evaluate((img: HTMLImageElement) => [
    img.naturalWidth,
    img.naturalHeight
  ]);
  expect(width / height).toBeCloseTo(1.8, 1);
  await words.fill(' ');
  await expect(at(page, GALLERY).getByText('This place takes no update without')).toBeVisible();
  await page.getByRole('button', { name: 'Use the proposed text' }).click();
  await expect(words).not.toHaveValue(' ');
});

test('one clip goes to three places, each with its own words', async ({ home: page, world }) => {
  await openUpdates(page, COLOUR);
  await page.getByRole('radio', { name: 'A clip of your own' }).check();
  await expect(at(page, NOTES).getByText('Choose a clip, or show something else.')).toBeVisible();
  await page.getByLabel('Choose a clip').setInputFiles('package.json');
  await expect(page.getByRole('alert')).toContainText('package.json');
  await page.getByLabel('Choose a clip').setInputFiles(CLIP);
  await expect(page.getByText(/^bobbin-in-forty-seconds\.webm, \d/)).toBeVisible();
  await expect(at(page, PAGES).getByText('This place takes no clips.')).toBeVisible();
  await at(page, NOTES).getByRole('textbox', { name: /^Text/ }).fill('Look at the bobbin.');
  await page.getByRole('textbox', { name: 'What the clip shows' }).fill('A bobbin being wound');
  await page.getByRole('button', { name: 'Publish to 3 places' }).click();
  await expect(page.getByText(/^Published /)).toHaveCount(3, within(30));
  for (const path of ['followers', 'notes', 'pictures']) {
    const [told] = await world.updates(path);
    expect(told?.attachment).toMatchObject([{ type: 'Video', name: 'A bobbin being wound' }]);
  }
  expect((await world.updates('notes'))[0]?.content).toBe('Look at the bobbin.');
});

test('a long text is published in numbered parts, and all of them are deleted again', async ({
  home: page,
  world
}) => {
  await openUpdates(page, COLOUR);
  await page
    .getByRole('textbox', { name: 'A text for all places' })
    .fill('We wound one warp for twelve scarves, and it took the morning. '.repeat(25));
  await page.getByRole('checkbox', { name: /^In numbered parts/ }).check();
  const notes = at(page, NOTES);
  await expect(notes.getByText('A thread of 4 parts')).toBeVisible();
  for (const name of [FOLLOWERS, GALLERY, PAGES])
    await at(page, name).getByRole('checkbox', { name }).uncheck();
  await world.faults({ failOneIn: '6', loseOneIn: '4' });
  await page.getByRole('button', { name: 'Publish to 1 place', exact: true }).click();
  await expect.poll(async () => (await world.updates('notes')).length, within(90)).toBe(4);
  await world.faults({});
  const parts = (await world.updates('notes')).reverse();
  expect(parts.map((p) => /\((\d)\/4\)$/.exec(p.content)?.[1])).toEqual(['1', '2', '3', '4']);
  expect(parts[0]?.inReplyTo).toBeUndefined();
  for (const part of parts.slice(1)) expect(part.inReplyTo).toMatch(/\/notes\/updates\//);

  await deleteIt(notes, 'update');
  await expect(notes.getByText('Deleted.')).toBeVisible();
  expect(await world.updates('notes')).toHaveLength(0);
});

test('what waits for review goes out when it is approved, and not before', async ({
  home: page,
  world
}) => {
  await openUpdates(page, COLOUR);
  await page.getByRole('button', { name: 'Send to review' }).click();
  await expect(page.getByText('Waiting for review.')).toHaveCount(4);
  await page.reload();
  await page.getByRole('link', { name: 'Updates', exact: true }).first().click();
  const held = page.getByRole('list', { name: 'Waiting for review' }).getByRole('listitem');
  await expect(held).toHaveCount(4);
  expect(await world.updates('notes')).toHaveLength(0);
  await held
    .filter({ hasText: GALLERY })
    .getByRole('button', { name: /^Discard/ })
    .click();
  await expect(held).toHaveCount(3);
  await held
    .filter({ hasText: NOTES })
    .getByRole('button', { name: /^Approve/ })
    .click();
  await expect.poll(async () => (await world.updates('notes')).length).toBe(1);
  await page.getByRole('button', { name: 'Approve all 2' }).click();
  await expect.poll(async () => (await world.updates('followers')).length).toBe(1);
  await expect(held).toHaveCount(0);
  expect(await world.updates('pictures')).toHaveLength(0);
});
