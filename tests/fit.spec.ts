import { expect, test } from './app.ts';
import { scriptOf } from './scriptOf.ts';

// What is run here is no part of the page.
test.use({ bypassCSP: true });

test('200 random texts in many languages with the real fonts: nothing overflows in any frame', async ({
  page
}) => {
  await page.goto('/');
  const script = await scriptOf('./layoutInPage.ts', 'layout');
  const told = await page.evaluate<{ count: number; wrong: string[] }>(
    `(async () => { ${script}; return layout.tryTexts(200); })()`
  );
  expect(told.wrong).toEqual([]);
  expect(told.count).toBe(200);
});
