import { fileURLToPath } from 'node:url';
import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';

/** Packages whose form for browsers asks the document: in workers there is none. */
const WITH_A_DOCUMENT = ['decode-named-character-reference'];
const withoutDocument: Plugin = {
  name: 'without-document',
  enforce: 'pre',
  resolveId: (id) =>
    WITH_A_DOCUMENT.includes(id) ? fileURLToPath(import.meta.resolve(id)) : undefined
};

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  // Inlined fonts and pictures would need data: addresses in the page's policy.
  build: { assetsInlineLimit: 0 },
  worker: { format: 'es', plugins: () => [withoutDocument] }
});
