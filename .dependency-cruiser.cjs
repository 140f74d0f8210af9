/** The borders of docs/architecture.md, as rules. @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-is-pure',
      comment: 'The core imports only itself and libraries that need neither browser nor Node.',
      severity: 'error',
      from: { path: '^src/lib/core/', pathNot: '\\.test\\.ts$' },
      to: {
        pathNot: [
          '^src/lib/core/',
          // Types alone: the package behind them is @types/hast.
          '^hast$',
          // Word lists, stemmers, models: data and plain computation.
          '^node_modules/(wink-nlp|wink-eng-lite-web-model|franc-min|snowball-stemmers|@types/snowball-stemmers|stopwords-iso|syllable)/',
          '^node_modules/(diff|fft\\.js|fast-deep-equal|yaml|postal-mime|papaparse|isbot|ipaddr\\.js|@types\/papaparse|ical-generator|ical\\.js|luxon|@types/luxon|mdast|@types/mdast|n2words|uqr|micromark-extension-(gfm|frontmatter)|hastscript|linkifyjs|vfile|@sindresorhus/slugify)/',
          // ZIP and SHA-256 as streams.
          '^node_modules/(@streamparser/json|crc-32|fflate|hash-wasm)/',
          '^node_modules/mdast-util-',
          '^mdast$',
          '^node_modules/(zod|feedsmith|hast|hast-util-|unist-util-|@types/hast|liquidjs|uuid|htmlparser2|sanitize-html|@types/sanitize-html)'
        ]
      }
    },
    {
      name: 'server-stays-on-the-server',
      severity: 'error',
      from: {
        path: '^src/',
        pathNot: [
          '^src/lib/server/',
          '^src/hooks\\.server\\.ts$',
          '\\+(server|page\\.server|layout\\.server)\\.ts$'
        ]
      },
      to: { path: '^src/lib/server/' }
    },
    {
      name: 'only-data-knows-the-database',
      comment: 'Everything else asks the repositories.',
      severity: 'error',
      from: { path: '^(src|bin)/', pathNot: ['^src/lib/data/', '\\.test\\.ts$'] },
      to: {
        path: ['^node_modules/dexie/', '^src/lib/data/db\\.ts$', '^src/lib/data/renamed\\.ts$']
      }
    },
    {
      name: 'making-keeps-nothing',
      comment: 'What makes things gets all it needs, and gives back what would go out.',
      severity: 'error',
      from: { path: '^src/lib/make/' },
      to: {
        path: '^src/lib/(data|delivery|places|work|ui)/'
      }
    },
    {
      name: 'places-know-no-screens',
      severity: 'error',
      from: { path: '^src/lib/(places|data|workers|delivery|make)/' },
      to: { path: ['^src/lib/ui/', '^src/routes/', '\\.svelte$'] }
    },
    {
      name: 'hosts-are-a-world-of-their-own',
      severity: 'error',
      from: { path: '^hosts/' },
      to: { path: '^(src|tests)/' }
    },
    {
      name: 'the-application-does-not-know-the-hosts',
      severity: 'error',
      from: { path: '^src/' },
      to: { path: '^hosts/' }
    }
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'svelte', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.svelte']
    }
  }
};
