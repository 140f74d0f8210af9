import { defineConfig } from '@playwright/test';
import browserTests from '../playwright.config.ts';

/** Makes the pictures of docs/screenshots from the demo world: `npm run pictures`. */
export default defineConfig({
  ...browserTests,
  testDir: '.',
  testMatch: 'pictures.ts',
  workers: 1,
  reporter: 'list'
});
