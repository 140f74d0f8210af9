import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  // Inlined fonts and pictures would need data: addresses in the page's policy.
  build: { assetsInlineLimit: 0 },
  worker: { format: 'es' }
});
