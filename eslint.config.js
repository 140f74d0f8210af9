import regexp from 'eslint-plugin-regexp';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
  { ignores: ['assembly/', 'build/', '.svelte-kit/', 'node_modules/', '.world/', 'test-results/'] },
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', ignoreRestSiblings: true }
      ],
      eqeqeq: 'error',
      'no-restricted-syntax': [
        'error',
        {
          selector: "MemberExpression[object.name='AbortSignal'][property.name=/^(any|timeout)$/]",
          message: 'Node 20 collects these while a call runs: use withTimeLimit.'
        }
      ]
    }
  },
  {
    // What comes from outside may be written to hold up an expression.
    ignores: ['**/*.test.ts', 'tests/**'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': 'error',
      'regexp/no-super-linear-move': 'error'
    }
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
    rules: {
      // The application is always served at the root of its own origin.
      'svelte/no-navigation-without-resolve': 'off',
      // Dates, maps and sets are made anew here and never changed in place.
      'svelte/prefer-svelte-reactivity': 'off'
    }
  },
  {
    // The core has no clock and no chance of its own: both come in as arguments.
    files: ['src/lib/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...['window', 'document', 'fetch', 'localStorage', 'indexedDB', 'navigator', 'crypto']
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Chance comes in as an argument.' },
        { object: 'Date', property: 'now', message: 'Time comes in as an argument.' }
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'Time comes in as an argument.'
        },
        {
          selector: "MemberExpression[object.name='AbortSignal'][property.name=/^(any|timeout)$/]",
          message: 'Node 20 collects these while a call runs: use withTimeLimit.'
        }
      ]
    }
  }
);
