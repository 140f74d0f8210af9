import { fileURLToPath } from 'node:url';
import { build, type Rollup } from 'vite';

/** Code of the application as one script, for a page to run: what it exports stands under a name. */
export async function scriptOf(file: string, name: string): Promise<string> {
  const entry = fileURLToPath(new URL(file, import.meta.url));
  const [bundle] = (await build({
    configFile: false,
    logLevel: 'silent',
    resolve: { alias: { $lib: fileURLToPath(new URL('../src/lib', import.meta.url)) } },
    build: { write: false, minify: false, lib: { entry, formats: ['iife'], name } }
  })) as Rollup.RollupOutput[];
  const [chunk] = bundle?.output ?? [];
  return chunk?.code ?? '';
}
