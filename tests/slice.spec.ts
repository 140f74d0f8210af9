import {
  deleteIt,
  expect,
  idle,
  openDesk,
  openLayout,
  row,
  test,
  togglePart,
  within
} from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';

test('from an upload without a post to a twin in step, and back by undo', async ({
  home: page,
  world,
  context
}) => {
  await expect(row(page, TWILL)).toHaveAccessibleName(/No post yet/);
  await row(page, TWILL).getByRole('link', { name: 'Make the post' }).click();
  await expect(page.getByRole('heading', { level: 1, name: TWILL })).toBeVisible();

  // The transcript can be played from where a paragraph was said.
  await page.getByRole('button', { name: 'Play from 44 seconds' }).click();
  const video = page.getByRole('contentinfo').locator('video');
  await expect
    .poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime))
    .toBeGreaterThanOrEqual(44);
  await page.getByRole('button', { name: 'Close the player' }).click();

  // A field is picked by its value for this very video.
  await page.getByRole('button', { name: 'Insert field into Title' }).click();
  await page.getByRole('button', { name: 'video.duration 7:04' }).click();
  const title = page.getByRole('textbox', { name: 'Title', exact: true });
  // What it comes to is shown, and the fields behind a switch.
  await expect(title).toHaveValue(`${TWILL}7:04`);
  await page.getByRole('button', { name: 'Show the fields of Title' }).click();
  await expect(title).toHaveValue('{{ video.title }}{{ video.duration }}');
  await page
    .getByRole('textbox', { name: 'Title', exact: true })
    .fill('{{ video.title }} ({{ video.duration }})');

  // Preview: the blog's own page around it.
  await page.getByText('Preview').click();
  const shown = page.frameLocator('iframe[title="Preview of the post"]');
  await expect(shown.getByRole('heading', { name: `${TWILL} (7:04)` })).toBeVisible();
  await expect(shown.getByText('The Wrenfold Notebook')).toBeVisible();
  await expect(shown.getByRole('heading', { name: 'Counting the heddles' })).toBeVisible();
  expect(await world.posts(`${TWILL} (7:04)`)).toBe(0);

  await page.getByRole('radio', { name: 'Public, now' }).check();
  await page.getByRole('button', { name: 'Publish now' }).click();
  const link = page.getByRole('link', { name: 'View post' });
  await expect(link).toBeVisible();
  await idle(page);

  // The video plays inside the published post.
  const post = await context.newPage();
  await post.goto((await link.getAttribute('href')) ?? '');
  await expect(post.getByRole('heading', { level: 1, name: `${TWILL} (7:04)` })).toBeVisible();
  const embedded = post.frameLocator('iframe').locator('video');
  await embedded.evaluate(async (v: HTMLVideoElement) => {
    v.muted = true;
    await v.play();
  });
  await expect
    .poll(() => embedded.evaluate((v: HTMLVideoElement) => v.currentTime))
    .toBeGreaterThan(0.3);
  await post.close();

  // Placing again replaces.
  await page.getByText('Write', { exact: true }).click();
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('{{ video.title }}');
  await page.getByRole('button', { name: 'Update the post' }).click();
  await expect.poll(() => world.posts(TWILL)).toBe(1);
  await expect.poll(() => world.posts(`${TWILL} (7:04)`)).toBe(0);
  await idle(page);

  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await expect(row(page, TWILL)).toHaveAccessibleName(/In step/);

  // The journal tells it, and takes it back.
  await page.getByRole('link', { name: 'Journal' }).click();
  // The update is taken back: the version before stands there again.
  await page.getByRole('button', { name: `Undo: “${TWILL}”` }).click();
  await expect.poll(() => world.posts(`${TWILL} (7:04)`)).toBe(1);
  await page.getByRole('link', { name: 'In step', exact: true }).click();
  await openDesk(page, TWILL);
  await deleteIt(page, 'post');
  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByRole('cell', { name: 'Deleted' })).toBeVisible();
  expect(await world.posts(TWILL)).toBe(0);
  await page.getByRole('link', { name: 'In step', exact: true }).click();
  await expect(row(page, TWILL)).toHaveAccessibleName(/No post yet/);
});

test('with one call in three failing and answers lost: one post, nothing lost, every failure reported', async ({
  home: page,
  world
}) => {
  await world.faults({ failOneIn: '3', loseOneIn: '2' });
  for (const title of [
    TWILL,
    'Straight selvedges: five things that helped',
    'Madder red on wool, with Juna Halvard'
  ]) {
    await openDesk(page, title);
    await page.getByRole('radio', { name: 'Public, now' }).check();
    await page.getByRole('button', { name: 'Publish now' }).click();
    await expect(page.getByRole('link', { name: 'View post' })).toBeVisible(within(60));
    expect(await world.posts(title)).toBe(1);
    await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  }
  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByRole('cell', { name: 'Published', exact: true })).toHaveCount(3);
  await page.getByRole('checkbox', { name: 'Readings and retries' }).check();
  const failures = page.getByRole('row').filter({ hasText: /failed/ });
  await expect(failures.filter({ hasText: 'Madder red on wool' })).not.toHaveCount(0);
  for (const failure of await failures.all())
    await expect(failure).toContainText(/error of its own|did not answer/);
});

test('two tabs that publish the same post at once make one', async ({
  home: page,
  world,
  context
}) => {
  await world.faults({ slow: '400' });
  const other = await context.newPage();
  await other.goto('/');
  for (const tab of [page, other]) {
    await openDesk(tab, TWILL);
    await tab.getByRole('radio', { name: 'Private' }).check();
  }
  await Promise.all(
    [page, other].map((tab) =>
      tab
        .getByRole('button', { name: /^Publish/ })
        .click({ noWaitAfter: true })
        .catch(() => {})
    )
  );
  for (const tab of [page, other])
    await expect(tab.getByRole('link', { name: 'View post' })).toBeVisible();
  expect(await world.posts(TWILL)).toBe(1);
});

test('a tab that is closed in the middle of publishing: another resumes it', async ({
  home: page,
  world,
  context
}) => {
  await openDesk(page, TWILL);
  await world.faults({ slow: '1500' });
  await page.getByRole('button', { name: 'Save as draft' }).click();
  await expect(page.getByText('Publishing…')).toBeVisible();
  await page.close();
  await world.faults({});
  const other = await context.newPage();
  await other.goto('/journal');
  await expect(other.getByRole('cell', { name: 'Published', exact: true })).toBeVisible(within(45));
  expect(await world.posts(TWILL)).toBe(1);
});

test('a refused key is reported, nothing is lost, and retrying goes on', async ({
  home: page,
  world
}) => {
  await openDesk(page, TWILL);
  await world.faults({ keyExpired: 'on' });
  await page.getByRole('button', { name: 'Save as draft' }).click();
  await expect(page.getByRole('region', { name: 'Publish' }).getByRole('alert')).toContainText(
    'The place refused the key.'
  );
  await world.faults({});
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('link', { name: 'View post' })).toBeVisible();
  expect(await world.posts(TWILL)).toBe(1);
});

test('a retitled video is seen to have drifted, and the post takes its title', async ({
  home: page,
  world
}) => {
  await world.retitle('why-warps-loosen', 'Why your warp loosens');
  await page.getByRole('button', { name: 'Refresh' }).click();
  await idle(page);
  const drifted = row(page, 'Why your warp loosens');
  await page
    .getByRole('button', { name: /^Drifted/ })
    .first()
    .click();
  await expect(drifted).toHaveAccessibleName(/Drifted/);
  await drifted.getByRole('button', { name: 'Drifted: compare' }).click();
  const dialog = page.getByRole('dialog', { name: 'What has drifted' });
  await expect(dialog).toContainText('Why a warp loosens, and what to do about it');
  await dialog.getByRole('button', { name: 'Give the post this title' }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: /^In step/ }).click();
  await expect(drifted).toHaveAccessibleName(/In step/);
  expect(await world.posts('Why your warp loosens')).toBe(1);
});

test('the desk keeps what was changed, and the layout of the last post is offered for the next', async ({
  home: page
}) => {
  await openLayout(page, TWILL);
  await togglePart(page, 'Transcript', false);
  await page.getByRole('button', { name: 'Move Closing note up' }).click();
  await page
    .getByRole('textbox', { name: 'Wording of lead-in' })
    .fill('At the loom: {{ video.title }}.');
  await expect(page.getByText(`At the loom: ${TWILL}.`)).toBeVisible();
  await page.waitForTimeout(700);
  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await expect(row(page, TWILL)).toHaveAccessibleName(/In progress/);
  await openLayout(page, TWILL);
  await expect(page.getByRole('textbox', { name: 'Wording of lead-in' })).toHaveValue(
    'At the loom: {{ video.title }}.'
  );
  await page.getByRole('button', { name: 'Save as draft' }).click();
  await expect(page.getByRole('link', { name: 'View post' })).toBeVisible();
  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await openLayout(page, 'Straight selvedges: five things that helped');
  await expect(page.getByRole('textbox', { name: 'Wording of lead-in' })).toHaveValue(
    'At the loom: {{ video.title }}.'
  );
  await expect(page.getByRole('checkbox', { name: 'Transcript in the post' })).not.toBeChecked();
});

test('checks point at what is missing', async ({ home: page }) => {
  await openLayout(page, 'Madder red on wool, with Juna Halvard');
  const checks = page.getByRole('region', { name: /check/i });
  await expect(checks).toContainText('no credit is given');
  await togglePart(page, 'Credit', true);
  await expect(checks).not.toContainText('no credit is given');
  await togglePart(page, 'Video', false);
  await expect(checks).toContainText('does not show the video');
  await page
    .getByRole('textbox', { name: 'Wording of lead-in' })
    .fill('<iframe src=“https://a.example”></iframe> {{ video.nothing }}');
  await expect(checks).toContainText('typographic quotes');
  await expect(checks).toContainText('no field called video.nothing');
});

test('a video that has a post already gets no second one unseen', async ({ home: page, world }) => {
  const title = 'Winding a warp on a board, start to finish';
  await page.getByRole('button', { name: /^In step/ }).click();
  await openDesk(page, title);
  const place = page.getByRole('button', { name: 'Save as draft' });
  await expect(page.getByText('This video already has a post')).toBeVisible();
  await expect(place).toBeDisabled();
  await page.getByRole('checkbox', { name: 'Publish a second post anyway' }).check();
  await place.click();
  await expect(page.getByRole('link', { name: 'View post' })).toBeVisible();
  expect(await world.posts(title)).toBe(2);
});

test('a post for a date comes out when its time has come', async ({ home: page, world, app }) => {
  await openDesk(page, TWILL);
  await page.getByRole('radio', { name: 'Public on a date' }).check();
  const inTwoDays = new Date(Date.now() + 2 * 86_400_000).toISOString().slice(0, 16);
  await page.getByLabel(/^Date and time \(/).fill(inTwoDays);
  await page.getByRole('button', { name: 'Schedule' }).click();
  await expect(page.getByRole('link', { name: 'View post' })).toBeVisible();
  await idle(page);
  const feed = async () => (await fetch(`${app.hosts}/blog/feed.xml`)).text();
  expect(await feed()).not.toContain(TWILL);
  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await expect(row(page, TWILL)).toHaveAccessibleName(/In progress/);
  await world.clock(72);
  expect(await feed()).toContain(TWILL);
});
