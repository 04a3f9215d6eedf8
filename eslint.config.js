import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import { existsSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { importX } from 'eslint-plugin-import-x';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './app/svelte.config.js';

/** Forbids a room to import from others: the arrows of the house. */
const arrows = (files, from, ...rooms) => ({
  files,
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            regex: from(rooms),
            message: 'The arrows of the house do not go there: see docs/decisions/house.md.',
          },
        ],
      },
    ],
  },
});
const inCore = (rooms) => `^(\\.\\./)+(${rooms.join('|')})/|^\\$|^node:|^svelte`;
const inApp = (rooms) => `^\\$lib/(${rooms.join('|')})(/|$)|^(\\.\\./)+(${rooms.join('|')})/`;

/** The rooms of the core, and which others each uses. */
const GROUND = ['geometry', 'colour'];
const CORE = {
  geometry: [],
  colour: [],
  path: GROUND,
  picture: GROUND,
  art: [...GROUND, 'path', 'picture'],
  trace: [...GROUND, 'path', 'picture', 'art'],
  proof: [...GROUND, 'path', 'picture', 'art', 'trace'],
  plot: [...GROUND, 'path', 'art', 'formats'],
  formats: [...GROUND, 'path', 'picture', 'art', 'practice'],
  practice: [...GROUND, 'path', 'art'],
};

/** The rooms of the application, and which others each uses. */
const SMALL = ['ui', 'workers'];
const APP = {
  ui: [],
  workers: [],
  server: [],
  desk: SMALL,
  edits: [...SMALL, 'desk'],
  bed: [...SMALL, 'desk', 'edits'],
  practice: [...SMALL, 'desk'],
  steps: [...SMALL, 'desk', 'edits', 'bed', 'practice'],
  columns: [...SMALL, 'desk', 'edits', 'bed', 'practice'],
  shelf: [...SMALL, 'desk'],
};

/** Finds the modules of core and app for the rule against circles. Components count as ends. */
const modules = {
  name: 'mirrot',
  interfaceVersion: 3,
  resolve(name, from) {
    const at = name.startsWith('$lib/')
      ? resolve(import.meta.dirname, 'app/src/lib', name.slice(5))
      : name.startsWith('.')
        ? resolve(dirname(from), name)
        : null;
    const path = at && [`${at}.ts`, `${at}/index.ts`].find((file) => existsSync(file));
    return path ? { found: true, path } : { found: false };
  },
};

export default ts.config(
  {
    ignores: [
      '**/node_modules/',
      '**/build/',
      '**/.svelte-kit/',
      'data/',
      'work/',
      'demo/pictures/',
      'test-results/',
      'playwright-report/',
    ],
  },
  js.configs.recommended,
  ...ts.configs.strict,
  ...svelte.configs.recommended,
  prettier,
  ...svelte.configs.prettier,
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/explicit-module-boundary-types': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-undef': 'off',
      'svelte/no-navigation-without-resolve': 'off',
      // State that is replaced as a whole may be a plain Set or Map.
      'svelte/prefer-svelte-reactivity': 'off',
      eqeqeq: 'error',
      // A type read off a schema gets a name that the compiler's messages can say.
      '@typescript-eslint/no-empty-object-type': ['error', { allowInterfaces: 'with-single-extends' }],
    },
  },
  {
    // No file needs itself, by whatever way round.
    files: ['core/src/**/*.ts', 'app/src/**/*.ts'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [modules],
      'import-x/extensions': ['.ts'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] },
    },
    rules: { 'import-x/no-cycle': 'error' },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig } },
  },
  ...Object.entries(CORE).map(([room, uses]) =>
    arrows(
      [`core/src/${room}/**`],
      inCore,
      ...Object.keys(CORE).filter((other) => other !== room && !uses.includes(other)),
    ),
  ),
  ...Object.entries(APP).map(([room, uses]) =>
    arrows(
      [`app/src/lib/${room}/**`],
      inApp,
      ...Object.keys(APP).filter((other) => other !== room && !uses.includes(other)),
    ),
  ),
  arrows(['app/src/routes/api/**'], inApp, ...Object.keys(APP).filter((room) => room !== 'server')),
  arrows(['app/src/routes/**/*.svelte'], inApp, 'edits', 'bed', 'server'),
);
