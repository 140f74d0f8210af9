import { fileURLToPath } from 'node:url';
import { build, type Rollup } from 'vite';
import { expect, test } from './app.ts';

/** The layout of the core, for a page to run with the fonts that ship. */
async function layoutScript(): Promise<string> {
  const entry = fileURLToPath(new URL('./layoutInPage.ts', import.meta.url));
  const [bundle] = (await build({
    configFile: false,
    logLevel: 'silent',
    build: { write: false, minify: false, lib: { entry, formats: ['iife'], name: 'layout' } }
  })) as Rollup.RollupOutput[];
  const [chunk] = bundle?.output ?? [];
  return chunk?.code ?? '';
}

// What is run here is no part of the page.
test.use({ bypassCSP: true });

test('200 random texts in many languages with the real fonts: nothing overflows in any frame', async ({
  page
}) => {
  await page.goto('/');
  const script = await layoutScript();
  const told = await page.evaluate<{ count: number; wrong: string[] }>(
    `(async () => { ${script}; return layout.tryTexts(200); })()`
  );
  expect(told.wrong).toEqual([]);
  expect(told.count).toBe(200);
});
