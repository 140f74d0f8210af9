import type { BrowserContext, Locator, Page } from '@playwright/test';
import { expect, idle, openBooth, openDesk, test } from './app.ts';
import { seeded } from '../src/lib/core/seeded.ts';

/** Moments at which a page is left in the middle of typing; `MOMENTS=200 SEED=2` tries more and others. */
const MOMENTS = Number(process.env.MOMENTS ?? 7);
const SEED = Number(process.env.SEED ?? 1);
/** Milliseconds: what was typed before is kept even where the page is killed. */
const SAFE = 300;

interface Form {
  name: string;
  path: string;
  field: (page: Page) => Locator;
  /** What has to be opened first. */
  ready?: (page: Page) => Promise<void>;
}

const valueOf = (field: Locator) =>
  field.evaluate((element) =>
    element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement
      ? element.value
      : (element as HTMLElement).innerText
  );

async function formsOf(page: Page): Promise<Form[]> {
  const pathOf = () => new URL(page.url()).pathname;
  await openDesk(page, 'Three minutes of quiet weaving');
  const silent = pathOf();
  await page.goto('/');
  await openDesk(page, 'Straight selvedges: five things that helped');
  const desk = pathOf();
  await page.goto('/');
  await openBooth(page, 'A colour plan for winter scarves');
  const booth = pathOf();
  await page.goto('/lanes');
  await page.getByRole('button', { name: 'New lane' }).click();
  const label = (name: string | RegExp) => (p: Page) => p.getByLabel(name, { exact: true }).first();
  const updates = desk.replace('/desk/', '/updates/');
  return [
    { name: 'title', path: desk, field: label('Title') },
    {
      name: 'text',
      path: desk,
      field: (p) => p.getByRole('textbox', { name: 'Text of the post' }).locator('p').first()
    },
    { name: 'chapter', path: desk, field: label('Title of chapter 2') },
    { name: 'excerpt', path: desk, field: label('Excerpt') },
    {
      name: 'picture',
      path: desk,
      field: label('What it shows'),
      ready: async (p) => {
        const field = label('What it shows')(p);
        if (!(await field.isVisible())) await p.getByText('Pictures of the steps').click();
      }
    },
    { name: 'captions', path: silent, field: label('Or paste them') },
    { name: 'line', path: booth, field: label('Line 1, as it is written') },
    { name: 'update', path: updates, field: label('A text for all places') },
    { name: 'lane', path: '/lanes', field: label('Name of the lane') },
    { name: 'note', path: '/lanes', field: label('Note on the lane') },
    { name: 'address', path: '/places', field: label('Connect a channel or blog') }
  ];
}

const exits = {
  reload: (page: Page) => page.reload(),
  async leave(page: Page) {
    await page.getByRole('link', { name: 'Journal' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Journal' })).toBeVisible();
  },
  close: (page: Page) => page.close(),
  async kill(page: Page) {
    const session = await page.context().newCDPSession(page);
    const crashed = page.waitForEvent('crash');
    // It is never answered.
    void session.send('Page.crash').catch(() => {});
    await crashed;
  },
  /** The disk is full while it is typed. */
  full: (page: Page) => page.reload()
};
type Exit = keyof typeof exits;

async function open(context: BrowserContext, form: Form): Promise<Page> {
  const page = await context.newPage();
  await page.goto(form.path);
  await show(page, form);
  return page;
}
async function show(page: Page, form: Form) {
  await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
  await form.ready?.(page);
  await expect(form.field(page)).toBeVisible();
}

test('nothing that was typed is lost, however the page goes', async ({ home }) => {
  test.setTimeout(2 * test.info().timeout + MOMENTS * 16_000);
  const context = home.context();
  const chance = seeded(SEED);
  const forms = await formsOf(home);
  await idle(home);
  for (let moment = 0; moment < MOMENTS; moment++) {
    // Each form and each way in turn, then as it comes.
    const form = forms[moment < forms.length ? moment : Math.floor(chance() * forms.length)]!;
    const ways = Object.keys(exits) as Exit[];
    const exit = ways[Math.floor(chance() * ways.length)]!;
    const about = `moment ${moment} of seed ${SEED}: ${form.name}, ${exit}`;
    const page = await open(context, form);
    const field = form.field(page);
    await field.click();
    await page.keyboard.press('End');
    const before = (await valueOf(field)).trim();
    if (exit === 'full')
      await page.evaluate(() => {
        IDBObjectStore.prototype.put = () => {
          throw new DOMException('The disk is full.', 'QuotaExceededError');
        };
      });
    const typed: { text: string; at: number }[] = [];
    let text = '';
    const length = 3 + Math.floor(chance() * 22);
    for (let i = 0; i < length; i++) {
      const letter = 'abcdefghijklmnopqrstuvwxyz'[Math.floor(chance() * 26)]!;
      await page.keyboard.press(letter);
      text += letter;
      typed.push({ text, at: Date.now() });
      await page.waitForTimeout(Math.floor(chance() * 70));
    }
    if (chance() < 0.3) await page.waitForTimeout(Math.floor(chance() * 500));
    const left = Date.now();
    await exits[exit](page);
    if (!page.isClosed() && exit !== 'kill') await page.close();
    const again = await open(context, form);
    const isSudden = exit === 'kill';
    const safe = typed.filter((t) => !isSudden || t.at < left - SAFE).at(-1)?.text ?? '';
    await expect
      .poll(async () => (await valueOf(form.field(again))).includes(safe), { message: about })
      .toBe(true);
    const now = (await valueOf(form.field(again))).trim();
    expect(now.length, about).toBeGreaterThanOrEqual(before.length + safe.length);
    // The field is put back, so that it does not grow without end.
    await again.close();
  }
});

test('what is typed in the booth while its post is still being read is kept', async ({
  home: page,
  context
}) => {
  await openBooth(page, 'A colour plan for winter scarves');
  await idle(page);
  const address = page.url();
  let release = () => {};
  const held = new Promise<void>((done) => (release = done));
  await context.route(/narration\.worker/, async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(address);
  const line = page.getByLabel('Line 1, as it is written', { exact: true }).first();
  await line.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' for us');
  await page.waitForTimeout(500);
  await page.reload();
  release();
  await expect(line).toHaveValue('A colour plan for winter scarves for us');
});
