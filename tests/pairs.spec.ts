import type { Page } from '@playwright/test';
import { expect, idle, row, test, within } from './app.ts';
import { newLane, station } from './lanesView.ts';

async function openBack(page: Page, origin: string): Promise<void> {
  await page.goto(origin);
  await expect(row(page, 'Threading a four-shaft twill, slowly')).toBeVisible();
  await idle(page);
}

test.describe('the catalogue of earlier years', () => {
  test('sure pairs are made at once, doubtful ones one by one, and all can be undone', async ({
    page,
    backApp
  }) => {
    await openBack(page, backApp.origin);
    const inStep = page.getByRole('button', { name: /^In step \d+$/ });
    const before = Number(/\d+/.exec(await inStep.innerText())?.[0]);
    await page.getByRole('link', { name: 'Find pairs' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Find pairs' })).toBeVisible();
    await page.getByRole('button', { name: /^Read captions of \d+ videos$/ }).click();
    await expect(page.getByText(/^\d+ videos read\.$/)).toBeVisible(within(60));
    const sure = page.getByRole('list', { name: 'Sure pairs' });
    await expect(sure.getByRole('listitem').first()).toBeVisible();
    // What was read is looked at again once it is all stored.
    await idle(page);
    const region = page.getByRole('region', { name: /^Sure/ });
    let count = 0;
    await expect
      .poll(async () => {
        const before = count;
        count = await sure.getByRole('listitem').count();
        await page.waitForTimeout(700);
        return count === before && (await region.getAttribute('aria-busy')) === 'false';
      })
      .toBe(true);
    expect(count).toBeGreaterThan(25);

    // One of them is looked at and left out.
    const name = (await sure.getByRole('checkbox').first().getAttribute('aria-label')) ?? '';
    const leftOut = sure.getByRole('checkbox', { name, exact: true });
    await leftOut.press('Space');
    await page.getByRole('button', { name: `Pair ${count - 1} of ${count}` }).click();
    await expect(page.getByText(`${count - 1} pairs made.`)).toBeVisible();
    await expect.poll(() => sure.getByRole('listitem').count()).toBeLessThan(5);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(sure.getByRole('listitem')).toHaveCount(count);
    await page.getByRole('button', { name: `Pair ${count - 1} of ${count}` }).click();
    await expect.poll(() => sure.getByRole('listitem').count()).toBeLessThan(5);

    // What was left out is no pair, and is not suggested again.
    await expect(leftOut).not.toBeChecked();
    await sure
      .getByRole('listitem')
      .filter({ has: page.getByRole('checkbox', { name, exact: true }) })
      .getByRole('button', { name: /are not a pair$/ })
      .click();
    await expect(page.getByText('will not be suggested again')).toBeVisible();
    await expect(leftOut).toHaveCount(0);

    const doubtful = page.getByRole('list', { name: 'Pairs to check' });
    const first = doubtful.getByRole('listitem').first();
    const title = (await first.getAttribute('aria-label')) ?? '';
    await first.getByLabel('How they belong together').selectOption('The video has several posts');
    await first.getByRole('button', { name: 'Pair', exact: true }).click();
    await expect(doubtful.getByLabel(title, { exact: true })).toHaveCount(0);

    await page.getByText(/^Decided \(\d+\)$/).click();
    const decided = page.getByRole('list', { name: 'Decided pairs' });
    await expect(decided.getByText('The video has several posts')).toBeVisible();
    await expect(decided.getByRole('button', { name: /^Suggest .* again$/ })).toHaveCount(1);

    // Tied halves stand side by side; a reload changes nothing.
    await page.reload();
    await expect(page.getByText(/^Decided \(\d+\)$/)).toBeVisible();
    await page.getByRole('link', { name: 'Back to In step' }).click();
    await expect(inStep).toHaveText(`In step ${before + count}`);
  });

  test('what surely has its other half is not made again: by a lane, or unseen at the desk', async ({
    page,
    backApp
  }) => {
    await openBack(page, backApp.origin);
    await newLane(page);
    await station(page, 'Filter').click();
    await page.getByRole('radio', { name: 'The catalogue, newest first' }).check();
    await page.getByRole('button', { name: 'Rehearse' }).click();
    const rehearsal = page.getByRole('region', { name: /^Rehearsal of/ });
    await rehearsal.getByText(/items are left out, and why/).click();
    const likely = rehearsal
      .getByRole('listitem')
      .filter({ hasText: 'Mending a wool blanket: “Mending a wool blanket” seems to be its' });
    await expect(likely).toBeVisible();

    await openBack(page, backApp.origin);
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox').fill('Mending a wool blanket');
    await page.getByRole('option', { name: /^Mending a wool blanket\s*No post yet/ }).click();
    await expect(
      page.getByText('“Mending a wool blanket” at your blog seems to be about this video already.')
    ).toBeVisible();
    await page.getByRole('link', { name: 'Find pairs' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Find pairs' })).toBeVisible();
  });
});

test('a video and a post that are selected can be paired by hand, and unpaired', async ({
  home: page
}) => {
  const [video, post] = [
    'Straight selvedges: five things that helped',
    'What a woven metre costs, and why'
  ];
  for (const title of [video, post])
    await page.getByRole('checkbox', { name: `Select ${title}` }).check();
  await page.getByRole('button', { name: 'Pair these two' }).click();
  await expect(page.getByText(`“${video}” is paired.`)).toBeVisible();
  await expect(row(page, `${video}: In step`)).toBeVisible();
  await page.goto('/pairs');
  await page.getByText('Decided (1)').click();
  await page.getByRole('button', { name: `Unpair “${video}” and “${post}”` }).click();
  await page.goto('/');
  await expect(row(page, `${video}: No post yet`)).toBeVisible();
});
