import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

/** The command line, the demo and its hosts as plain JavaScript, so that running them needs no compiler. */
export default defineConfig({
  configFile: false,
  publicDir: false,
  oxc: { jsx: { runtime: 'automatic', importSource: 'hono/jsx' } },
  resolve: { alias: { $lib: fileURLToPath(new URL('src/lib', import.meta.url)) } },
  build: {
    ssr: true,
    outDir: 'build/bin',
    target: 'node20',
    minify: false,
    rolldownOptions: {
      input: {
        demo: 'bin/demo.ts',
        serve: 'bin/serve.ts',
        hosts: 'bin/hosts.ts',
        twin: 'bin/twin.ts'
      },
      // Read whole by Node: packages stand in node_modules.
      external: [/^node:/]
    }
  }
});
