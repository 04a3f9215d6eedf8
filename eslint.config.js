import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import { createNodeResolver, importX } from 'eslint-plugin-import-x';
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

export default ts.config(
  {
    ignores: [
      '**/node_modules/',
      '**/build/',
      '**/.svelte-kit/',
      'data/',
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
    // No file of the core needs itself, types counted.
    files: ['core/src/**/*.ts'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts'] })],
      'import-x/extensions': ['.ts'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] },
    },
    rules: { 'import-x/no-cycle': 'error' },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig } },
  },
  arrows(
    ['core/src/geometry/**', 'core/src/colour/**'],
    inCore,
    'path',
    'picture',
    'art',
    'trace',
    'proof',
    'plot',
    'formats',
  ),
  arrows(['core/src/path/**'], inCore, 'picture', 'art', 'trace', 'proof', 'plot', 'formats'),
  arrows(['core/src/picture/**'], inCore, 'path', 'art', 'trace', 'proof', 'plot', 'formats'),
  arrows(['core/src/art/**', 'core/src/trace/**'], inCore, 'proof', 'plot', 'formats'),
  arrows(['app/src/lib/ui/**'], inApp, 'desk', 'bed', 'columns', 'steps', 'server', 'workers', 'shelf'),
  arrows(['app/src/lib/desk/**'], inApp, 'bed', 'columns', 'steps', 'server', 'shelf'),
  arrows(['app/src/lib/bed/**'], inApp, 'columns', 'steps', 'server', 'shelf'),
  arrows(['app/src/lib/steps/**'], inApp, 'columns', 'server', 'shelf'),
  arrows(['app/src/lib/columns/**'], inApp, 'server', 'shelf'),
  arrows(['app/src/lib/server/**'], inApp, 'desk', 'bed', 'columns', 'steps', 'ui', 'shelf', 'workers'),
  arrows(['app/src/lib/workers/**'], inApp, 'desk', 'bed', 'columns', 'steps', 'ui', 'server', 'shelf'),
);
