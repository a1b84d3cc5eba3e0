import js from '@eslint/js';
import regexp from 'eslint-plugin-regexp';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

const upward = (patterns) => ({ 'no-restricted-imports': ['error', { patterns }] });
const noNode = {
  group: ['node:*', 'fs', 'path', 'zlib', 'svelte*', 'drizzle-orm*', '@libsql/*', '$lib/*'],
  message: 'core is pure TypeScript.',
};

export default ts.config(
  {
    ignores: [
      'build/',
      '.svelte-kit/',
      'node_modules/',
      'coverage/',
      'data/',
      'test-results/',
      'playwright-report/',
    ],
  },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.node, ...globals.browser } } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { extraFileExtensions: ['.svelte'], parser: ts.parser, svelteConfig } },
  },
  {
    rules: {
      'no-undef': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'svelte/no-navigation-without-resolve': 'off',
      // Sets and maps in state are replaced, never changed in place.
      'svelte/prefer-svelte-reactivity': 'off',
    },
  },
  {
    // What people and packages say is matched in linear time: a pattern that backtracks is a way to stop the house.
    files: ['core/**', 'cli/**', 'src/**', 'standins/**'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'certain' }],
      'regexp/no-super-linear-move': ['error', { report: 'certain' }],
    },
  },
  { files: ['core/src/**'], rules: upward([noNode]) },
  {
    files: ['core/src/model/**'],
    rules: upward([
      noNode,
      {
        group: ['../formats/*', '../scoring/*', '../intake/*', '../compare/*', '../checks/*', '../match/*'],
        message: 'model is the ground floor.',
      },
    ]),
  },
  {
    files: ['src/lib/ui/**'],
    rules: upward([{ group: ['$lib/server/*', '**/server/**'], message: 'screens take plain data.' }]),
  },
  {
    files: ['src/lib/server/**'],
    rules: upward([{ group: ['$lib/ui/*', '**/ui/**'], message: 'the server knows no screens.' }]),
  },
);
