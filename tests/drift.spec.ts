import type { Page } from '@playwright/test';
import {
  expect,
  idle,
  openDesk,
  row,
  test,
  type WorldControl,
  wasReadBack,
  within
} from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
const ID = 'threading-a-twill';
const SAID =
  'If it is a single thread, you can tie a string heddle around the shafts and save the day.';

/** Publishes the post of the video, and comes back to the list. */
async function publish(page: Page, title = TWILL): Promise<void> {
  await openDesk(page, title);
  await page.getByRole('radio', { name: 'Public, now' }).check();
  await page.getByRole('button', { name: 'Publish now' }).click();
  await expect(page.getByText(/^At the blog: public/)).toBeVisible();
  await wasReadBack(page);
  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await expect(row(page, title)).toHaveAccessibleName(/In step/);
}

async function refresh(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Refresh' }).click();
  await idle(page);
}

/** Opens what updating the post of a drifted twin would change. */
async function compare(page: Page, title = TWILL): Promise<void> {
  await expect(row(page, title)).toHaveAccessibleName(/Drifted/);
  await row(page, title).getByRole('button', { name: 'Drifted: compare' }).click();
  await page.getByRole('link', { name: 'Update the post…' }).click();
  await expect(page.getByRole('heading', { name: /^Changes to the post/ })).toBeVisible();
}

const change = (page: Page, text: string) =>
  page
    .getByRole('list', { name: 'Changes to the post' })
    .getByRole('listitem')
    .filter({ hasText: text });

/** The owner mends a word in the captions at the channel, and one of the talk's sentences at the blog. */
const mendCaptions = (world: WorldControl) =>
  world.changeUpload(ID, { from: 'save', to: 'rescue' });

test('a post is brought up to date with its video, and keeps what was written at the blog', async ({
  home: page,
  world
}) => {
  await publish(page);
  await world.addToPost(TWILL, 'A word of my own.');
  const before = await world.postHtml(TWILL);
  await mendCaptions(world);
  await world.retitle(ID, 'Threading a twill');
  await refresh(page);
  await expect(row(page, 'Threading a twill')).toHaveAccessibleName(/Drifted/);
  await row(page, 'Threading a twill').getByRole('button', { name: 'Drifted: compare' }).click();
  const changed = page.getByRole('dialog').getByRole('list', { name: 'What changed' });
  await expect(changed).toContainText('Video captions changed');
  await expect(changed).toContainText('Post text changed');
  await page.getByRole('link', { name: 'Update the post…' }).click();

  // Taken piece by piece: the text, but not the title.
  await expect(change(page, 'the day').first()).toContainText('save rescue the day.');
  await page.getByRole('button', { name: 'Take none' }).click();
  await expect(page.getByRole('button', { name: /^Update the post/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Take all that does not conflict' }).click();
  await change(page, 'Title').getByRole('checkbox').uncheck();
  await page.getByRole('button', { name: /^Update the post/ }).click();
  await expect(page.getByText(/updated with \d+ changes?\./)).toBeVisible();
  await idle(page);
  const after = await world.postHtml(TWILL);
  expect(after).toContain('rescue the day');
  expect(after).not.toContain('save the day');
  expect(after).toContain('<p>A word of my own.</p>');
  expect(await world.posts(TWILL)).toBe(1);
  await expect(row(page, 'Threading a twill')).toHaveAccessibleName(/In step/);

  // The undo brings back the post as it stood at the blog, with the words written there.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => world.postHtml(TWILL)).toBe(before);
  await expect(row(page, 'Threading a twill')).toHaveAccessibleName(/Drifted/);
});

test('where both sides changed the same sentence, nothing is taken before it is chosen', async ({
  home: page,
  world
}) => {
  await publish(page);
  const theirs =
    'If it is a single thread, tie a string heddle around the shafts and save the day.';
  await world.editPost(TWILL, SAID, theirs);
  await mendCaptions(world);
  await refresh(page);
  // Not even where many are updated at once.
  await row(page, TWILL).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Update drifted (1)' }).click();
  await expect(page.getByText('1 item needs your decision: open each.')).toBeVisible();
  expect(await world.postHtml(TWILL)).toContain(theirs);

  await compare(page);
  const conflict = change(page, 'changed on both sides');
  await expect(conflict).toHaveCount(1);
  await expect(conflict).toContainText('At the blog');
  await expect(conflict.getByRole('radio', { name: 'Keep the blog’s' })).toBeChecked();
  await conflict.getByRole('radio', { name: 'Keep both' }).check();
  await page.getByText('Preview the updated post').click();
  const preview = page.getByRole('group', { name: 'The updated post' });
  await expect(preview).toContainText(`${theirs} ${SAID.replace('save', 'rescue')}`);
  await page.getByRole('button', { name: /^Update the post/ }).click();
  await expect.poll(() => world.postHtml(TWILL)).toContain('rescue the day');
  expect(await world.postHtml(TWILL)).toContain(theirs);
  await idle(page);
  await expect(row(page, TWILL)).toHaveAccessibleName(/In step/);
});

test('many posts are brought up to date at once, though the blog fails now and then, and all is undone', async ({
  home: page,
  world
}) => {
  const SELVEDGES = 'Straight selvedges: five things that helped';
  await publish(page);
  await publish(page, SELVEDGES);
  await mendCaptions(world);
  await world.retitle('straight-selvedges', 'Straight selvedges');
  await refresh(page);
  await expect(row(page, TWILL)).toHaveAccessibleName(/Drifted/);
  const standings = page.getByRole('group', { name: 'Show by standing' });
  await standings.getByRole('button', { name: /^Drifted/ }).click();
  await world.faults({ failOneIn: '4' });
  await page.getByRole('button', { name: 'Update all drifted (2)' }).click();
  await expect(page.getByText(/items? updated\./)).toBeVisible(within(40));
  await world.faults({});
  await expect.poll(() => world.postHtml(TWILL), within(30)).toContain('rescue the day');
  await expect.poll(() => world.posts('Straight selvedges'), within(30)).toBe(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => world.postHtml(TWILL)).toContain('save the day');
  await expect.poll(() => world.posts(SELVEDGES)).toBe(1);
});

test('a video that was made private leaves a note in its post, or makes it a draft', async ({
  home: page,
  world
}) => {
  await publish(page);
  const before = await world.postHtml(TWILL);
  await world.changeUpload(ID, { visibility: 'private' });
  await refresh(page);
  const post = page.getByRole('row', { name: /Drifted/ }).filter({ hasText: TWILL });
  // There is nothing to make: the video was there.
  await expect(post.getByRole('link', { name: 'Make the video' })).toHaveCount(0);
  await post.getByRole('button', { name: 'Drifted: compare' }).click();
  await expect(page.getByRole('dialog')).toContainText(`deleted or no longer public: “${TWILL}”`);
  await page.getByRole('button', { name: 'Replace the video with a note' }).click();
  await expect(page.getByText('has a note in place of the video')).toBeVisible();
  const noted = await world.postHtml(TWILL);
  expect(noted).toContain('The video that was here is no longer available.');
  expect(noted).not.toContain('<iframe');
  expect(noted).toContain(SAID);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => world.postHtml(TWILL)).toBe(before);

  await post.getByRole('button', { name: 'Drifted: compare' }).click();
  await page.getByRole('button', { name: 'Turn the post into a draft' }).click();
  await expect(page.getByText('is a draft now')).toBeVisible();
  expect(await world.postHtml(TWILL)).toBe(before);
});

test('what drifted can be kept as it is, also of a post that was not made here', async ({
  home: page,
  world
}) => {
  const WARP = 'Winding a warp on a board';
  await world.changeUpload('winding-a-warp', { description: 'Another word on warps.' });
  await world.retitle('winding-a-warp', WARP);
  await refresh(page);
  const standings = page.getByRole('group', { name: 'Show by standing' });
  await standings.getByRole('button', { name: /^Drifted/ }).click();
  await row(page, WARP).getByRole('button', { name: 'Drifted: compare' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Video description changed');
  await expect(dialog).toContainText(`${WARP}, start to finish`);
  await expect(page.getByRole('link', { name: 'Update the post…' })).toBeHidden();
  await page.getByRole('button', { name: 'Keep as they are' }).click();
  await expect(row(page, WARP)).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row(page, WARP)).toBeVisible();
});
