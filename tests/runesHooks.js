import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';

/** Svelte as it runs in browsers, where Node would take what renders on servers. */
const CLIENT = {
  svelte: '../node_modules/svelte/src/index-client.js',
  'svelte/reactivity': '../node_modules/svelte/src/reactivity/index-client.js'
};

/** Properties are tried on inputs of a fixed seed. */
const SEEDED = new URL('./seeded.js', import.meta.url).href;

export function resolve(specifier, context, next) {
  if (specifier === 'fast-check' && context.parentURL !== SEEDED)
    return { url: SEEDED, shortCircuit: true };
  const file = CLIENT[specifier];
  if (!file) return next(specifier, context);
  return { url: new URL(file, import.meta.url).href, shortCircuit: true };
}

/** Compiles modules with runes and gives assets by their address, as the build does. */
export async function load(url, context, next) {
  if (/\?url\b/.test(url))
    return {
      format: 'module',
      source: `export default ${JSON.stringify(url)}`,
      shortCircuit: true
    };
  if (!url.endsWith('.svelte.ts')) return next(url, context);
  // Loaded when needed: most tests need no compiler, and loading takes a second.
  const [{ compileModule }, { default: ts }] = await Promise.all([
    import('svelte/compiler'),
    import('typescript')
  ]);
  const filename = fileURLToPath(url);
  const { outputText } = ts.transpileModule(await readFile(filename, 'utf8'), {
    compilerOptions: {
      module: ts.ModuleKind.ESNext,
      target: ts.ScriptTarget.ESNext,
      verbatimModuleSyntax: true
    }
  });
  const { js } = compileModule(outputText, { generate: 'client', filename });
  return { format: 'module', source: js.code, shortCircuit: true };
}
