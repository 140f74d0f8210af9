import { register } from 'node:module';

// Modules with runes (`.svelte.ts`) run in tests as in a browser.
register('./runesHooks.js', import.meta.url);
