import { expect, idle, row, test, within } from './app.ts';

test.describe('a first visit', () => {
  test.use({ baseURL: async ({ emptyApp }, use) => use(emptyApp.origin) });

  test('begins with the first step, and any address of a channel leads to it', async ({
    page,
    emptyApp
  }) => {
    await page.goto('/');
    await expect(page.getByRole('textbox', { name: 'Address of your channel' })).toBeVisible();
    await page.getByRole('link', { name: 'Places' }).click();
    for (const path of ['/channel/', '/channel/watch/hemstitching', '/channel/feed.xml']) {
      await page
        .getByRole('textbox', { name: 'Connect a channel or blog' })
        .fill(emptyApp.hosts + path);
      await page.getByRole('button', { name: 'Find' }).click();
      const found = page.getByRole('region', { name: 'What was found' });
      await expect(found.getByRole('heading', { name: 'Wrenfold Loomworks' })).toBeVisible();
      await expect(found).toContainText('Edit, upload or delete anything');
    }
    await page.getByRole('button', { name: 'Connect (read only)' }).click();
    await expect(page.getByRole('article', { name: 'Wrenfold Loomworks' })).toContainText(
      '13 items'
    );

    await page
      .getByRole('textbox', { name: 'Connect a channel or blog' })
      .fill(`${emptyApp.hosts}/blog/posts/how-to-read-a-draft`);
    await page.getByRole('button', { name: 'Find' }).click();
    await page.getByRole('button', { name: 'Connect (read only)' }).click();
    const blog = page.getByRole('article', { name: 'The Wrenfold Notebook' });
    await expect(blog).toContainText('9 items');
    await expect(blog).toContainText('Publish (not allowed)');

    await blog.getByLabel(/Key for publishing/).fill('wrong-key');
    await blog.getByRole('button', { name: 'Save key' }).click();
    await expect(blog.getByRole('alert')).toContainText('refused the key');
    await blog.getByLabel(/Key for publishing/).fill('wrenfold-drafts-only-key');
    await blog.getByRole('button', { name: 'Save key' }).click();
    await expect(blog).toContainText('Save drafts only');
    await expect(blog).toContainText('Publish (not allowed)');
    await idle(page);

    const kept = await page.evaluate(async () => {
      const names = await indexedDB.databases();
      return (
        JSON.stringify(names) +
        document.body.innerHTML +
        JSON.stringify({ ...localStorage }) +
        document.cookie
      );
    });
    expect(kept).not.toContain('drafts-only-key');

    // The first visit goes on where it is: what is left is the first post.
    await page.getByRole('link', { name: 'In step', exact: true }).click();
    await page.getByRole('button', { name: 'Show all videos and posts' }).click();
    await page.getByRole('button', { name: /^In step/ }).click();
    await expect(row(page, 'Winding a warp on a board, start to finish')).toHaveAccessibleName(
      /In step/
    );
  });

  test('whoever comes with a catalogue pairs it first; a picture that is gone leaves a sign', async ({
    page,
    emptyApp
  }) => {
    await page.route('**/thumbnails/**', (route) => route.abort());
    await page.goto('/places');
    for (const path of ['/channel/', '/blog/']) {
      await page
        .getByRole('textbox', { name: 'Connect a channel or blog' })
        .fill(emptyApp.hosts + path);
      await page.getByRole('button', { name: 'Find' }).click();
      await page.getByRole('button', { name: 'Connect (read only)' }).click();
      await expect(page.getByRole('region', { name: 'What was found' })).toHaveCount(0);
    }
    await idle(page);
    await page.getByRole('link', { name: 'In step', exact: true }).click();
    await page.getByRole('button', { name: 'Continue without a key' }).click();
    await expect(page.getByTitle('The picture cannot be loaded from its place')).toBeVisible();
    await page.getByRole('button', { name: 'Find pairs' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Find pairs' })).toBeVisible();
    await expect(page.getByText(/no post, \d+ posts? ha(?:s|ve) no video/)).toBeVisible();
  });

  test('wrong addresses say what to do', async ({ page, emptyApp }) => {
    await page.goto('/places');
    const cases: [string, RegExp][] = [
      ['my channel', /not a web address/],
      ['http://192.168.1.1/', /private network/],
      [`${emptyApp.hosts}/channel/watch/no-such-video`, /nothing at this address/],
      [`${emptyApp.hosts}/control/`, /has no feed/]
    ];
    for (const [address, words] of cases) {
      await page.getByRole('textbox', { name: 'Connect a channel or blog' }).fill(address);
      await page.getByRole('button', { name: 'Find' }).click();
      await expect(page.getByRole('alert')).toContainText(words);
    }
  });
});

test('start empty is one click away, can be undone, and the demo world comes back', async ({
  home: page
}) => {
  const steps = page.getByRole('heading', { name: 'Connect your channel' });
  await page.getByRole('button', { name: 'Start empty' }).click();
  await expect(steps).toBeVisible();
  await page.reload();
  await expect(steps).toBeVisible();
  await page.getByRole('link', { name: 'Journal' }).click();
  await Promise.all([
    page.waitForEvent('load'),
    page.getByRole('button', { name: /^Undo: Everything cleared/ }).click()
  ]);
  await page.getByRole('link', { name: 'In step', exact: true }).click();
  await expect(row(page, 'Indigo from leaf to vat')).toBeVisible();

  await page.getByRole('button', { name: 'Start empty' }).click();
  await Promise.all([
    page.waitForEvent('load'),
    page.getByRole('button', { name: 'Undo', exact: true }).click()
  ]);
  await expect(row(page, 'Indigo from leaf to vat')).toBeVisible();
  await page.getByRole('button', { name: 'Start empty' }).click();
  await page.getByRole('button', { name: 'Start with the demo world' }).click();
  await expect(row(page, 'Indigo from leaf to vat')).toBeVisible();
});

test('from nothing to a published post: eight clicks, and less than a minute of waiting', async ({
  home: page,
  world
}) => {
  await page.getByRole('button', { name: 'Start empty' }).click();
  let clicks = 0;
  let waited = 0;
  const click = async (name: string | RegExp, role: 'button' | 'radio' = 'button') => {
    const began = Date.now();
    const target = page.getByRole(role, { name });
    await expect(target).toBeEnabled(within(30));
    waited += Date.now() - began;
    if (role === 'radio') await page.getByText(name).click();
    else await target.click();
    clicks++;
  };
  await click('Use the demo channel');
  await click('Connect (read only)');
  await click('Use the demo blog');
  await click('Connect (read only)');
  await click('Use the demo key');
  await click('Make its post');
  await click('Public, now', 'radio');
  await click('Publish now');
  const began = Date.now();
  await expect(page.getByRole('link', { name: 'View post' })).toBeVisible(within(30));
  waited += Date.now() - began;
  expect(clicks).toBeLessThanOrEqual(8);
  expect(waited).toBeLessThan(60_000);
  const title = (await page.title()).replace(' · Swift Twin', '');
  await expect.poll(() => world.posts(title)).toBe(1);
});

test('a place that fails is reported in the top bar and with its card', async ({
  home: page,
  world
}) => {
  await world.faults({ failOneIn: '1' });
  await page.getByRole('link', { name: 'Places' }).click();
  const channel = page.getByRole('article', { name: 'Wrenfold Loomworks', exact: true });
  await channel.getByRole('button', { name: /^Check/ }).click();
  await expect(channel.getByRole('alert')).toContainText('error of its own');
  await expect(page.getByRole('link', { name: 'needs attention' })).toBeVisible();
  await world.faults({});
  await channel.getByRole('button', { name: 'Check again' }).click();
  await expect(channel.getByRole('alert')).toHaveCount(0);
});

test('the routes that go outside serve the application alone', async ({ request, app }) => {
  const ours = { 'sec-fetch-site': 'same-origin' };
  const read = (url: string, headers: Record<string, string> = ours) =>
    request.get(`${app.origin}/api/read?url=${encodeURIComponent(url)}`, { headers });
  expect((await read('http://127.0.0.1:22/')).status()).toBe(403);
  expect((await read('http://169.254.169.254/latest')).status()).toBe(403);
  expect((await read('file:///etc/passwd')).status()).toBe(400);
  expect((await read(`${app.hosts}/channel/`, { 'sec-fetch-site': 'cross-site' })).status()).toBe(
    403
  );
  expect((await read(`${app.hosts}/channel/`, {})).status()).toBe(403);
  expect((await read(`${app.hosts}/channel/`, { ...ours, host: 'evil.example' })).status()).toBe(
    421
  );
  const large = await request.post(`${app.origin}/api/send`, {
    headers: ours,
    data: { url: app.hosts, method: 'POST', message: 'x'.repeat(9_000_000) }
  });
  expect(large.status()).toBe(413);
  const send = (data: string) =>
    request.post(`${app.origin}/api/send`, {
      headers: { ...ours, 'content-type': 'application/json' },
      data
    });
  const deep = `${'['.repeat(200_000)}${']'.repeat(200_000)}`;
  expect((await send(deep)).status()).toBe(400);
  expect(
    (await send(`{"url":"${app.hosts}/blog/micropub","method":"POST","json":${deep}}`)).status()
  ).toBe(413);
  expect((await send('{"url":"https://x.example/","method":"POST","key":"a\\nb"}')).status()).toBe(
    400
  );
  expect((await send('{"url":"http://x.example/","method":"POST","key":"abc"}')).status()).toBe(
    403
  );
  const form = { page: '<p>x', blog: 'javascript:alert(1)' };
  const shown = (form: Record<string, string>) =>
    request.post(`${app.origin}/preview`, { headers: { ...ours, origin: app.origin }, form });
  expect((await shown(form)).status()).toBe(400);
  expect((await shown({ page: '<p>x' })).status()).toBe(400);
  const fine = await shown({ page: '<script>1</script>', blog: 'https://blog.example/post' });
  expect(fine.headers()['content-security-policy']).toMatch(
    /^sandbox allow-popups; default-src 'none'; style-src https:\/\/blog\.example /
  );
  const page = await read(`${app.hosts}/channel/`);
  expect(page.headers()['content-type']).toBe('application/octet-stream');
  expect(page.headers()['content-security-policy']).toContain('sandbox');
});

test('the page runs only its own scripts and frames only connected places', async ({
  home: page
}) => {
  const policy = await page.evaluate(async () =>
    (await fetch('/')).headers.get('content-security-policy')
  );
  expect(policy).toMatch(/script-src 'self' 'nonce-/);
  expect(policy).not.toMatch(/script-src[^;]*unsafe-inline/);
  const blocked = await page.evaluate(
    () =>
      new Promise<string>((resolve) => {
        document.addEventListener('securitypolicyviolation', (event) =>
          resolve(event.violatedDirective)
        );
        const frame = document.createElement('iframe');
        frame.src = 'https://elsewhere.example/';
        document.body.append(frame);
      })
  );
  expect(blocked).toBe('frame-src');
});
