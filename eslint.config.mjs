import { readdirSync } from 'node:fs';
import js from '@eslint/js';
import { createNodeResolver, importX } from 'eslint-plugin-import-x';
import tseslint from 'typescript-eslint';

/** Arrows run one way: web, server and cli know the core; nothing knows the web; the core knows no platform. */
const only = (files, message, patterns) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: patterns.map((group) => ({ group: [group], message })) }] },
});

const PLATFORM = ['node:*', 'fs', 'path', '@angular/*', '@ngrx/*', 'rxjs', 'express', 'sequelize', 'ws', '@eager-ember/*'];

/** What engines may answer differently, or what the core must not know. */
const UNSURE = [
  { selector: 'NewExpression[callee.name="Date"]', message: 'The core knows no clock.' },
  { selector: 'BinaryExpression[operator="**"]', message: 'Engines may differ in the last bit: use pow from math/.' },
  { selector: 'CallExpression[callee.property.name=/^toLocale/]', message: 'The core knows no locale.' },
];
const BY_NAME = {
  selector: 'CallExpression[callee.property.name="column"]',
  message: 'Columns have names and types: read a table by its definition (defineTable), a column of an entry by columnsIn.',
};
/** What each concept is called, and the parts of a ruleset that are called otherwise than the concept that has them. */
const CONCEPTS = [
  ...readdirSync(new URL('packages/core/src/concepts/', import.meta.url), { withFileTypes: true }).flatMap((one) =>
    one.isDirectory() ? [one.name] : [],
  ),
  ...['economy', 'groups', 'offers', 'teamRules'],
];
const NAMES_A_CONCEPT = {
  selector: `Literal[value=/^(${CONCEPTS.join('|')})$/]`,
  message: 'No file outside concepts/ names a concept: have it say what you need in its declaration.',
};
const OWN_INDEX = {
  selector: 'ImportDeclaration[source.value="./index.js"]',
  message: 'Inside a concept nobody knows its declaration: ask its state.ts, or the file that it stands in.',
};

export default tseslint.config(
  { ignores: ['**/dist/**', '**/bundled/**', '**/dist-*/**', '**/.angular/**', '.data/**', '.cache/**', 'docs/**', '**/node_modules/**'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports', disallowTypeAnnotations: false }],
      'max-lines': ['error', { max: 400 }],
      eqeqeq: 'error',
    },
  },
  {
    files: ['**/*.ts'],
    // Nobody imports a test: it stands in no circle.
    ignores: ['**/*.spec.ts', '**/*.e2e.ts'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] },
      'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts', '.js'], extensionAlias: { '.js': ['.ts', '.js'] } })],
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true, allowUnsafeDynamicCyclicDependency: true }] },
  },
  only(['packages/core/src/**/*.ts'], 'The core imports no platform and no other package of ours.', PLATFORM),
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'setTimeout',
        'setInterval',
        'performance',
        'fetch',
        'localStorage',
        'navigator',
        'Buffer',
      ],
      'no-restricted-properties': [
        'error',
        ...['random', 'sin', 'cos', 'tan', 'pow', 'exp', 'log', 'log2', 'log10', 'atan2', 'hypot', 'cbrt'].map((property) => ({
          object: 'Math',
          property,
          message: 'Engines may differ in the last bit: use the core’s own arithmetic.',
        })),
        { object: 'Date', property: 'now', message: 'The core knows no clock.' },
      ],
      'no-restricted-syntax': ['error', ...UNSURE],
    },
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.spec.ts', 'packages/core/src/world/**'],
    rules: { 'no-restricted-syntax': ['error', ...UNSURE, BY_NAME] },
  },
  {
    files: ['packages/core/src/concepts/*/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: { 'no-restricted-syntax': ['error', ...UNSURE, BY_NAME, OWN_INDEX] },
  },
  // What a concept declares is read in one go: its work is in the files beside it.
  { files: ['packages/core/src/concepts/*/index.ts'], rules: { 'max-lines': ['error', { max: 120 }] } },
  {
    files: ['packages/core/src/{analysis,formula,math,replication,ruleset,workbench,world}/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: PLATFORM, message: 'The core imports no platform and no other package of ours.' },
            {
              // The questions that clients may ask are listed beside the concepts, in a file of their own.
              group: ['**/concepts/**', '!**/concepts/questions.js'],
              message: 'No concept is named outside its folder and the registry: declare what you need in defineConcept.',
            },
          ],
        },
      ],
      'no-restricted-syntax': ['error', ...UNSURE, NAMES_A_CONCEPT],
    },
  },
  {
    files: ['packages/core/src/{analysis,formula,math,replication,ruleset,workbench}/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: { 'no-restricted-syntax': ['error', ...UNSURE, BY_NAME, NAMES_A_CONCEPT] },
  },
  { files: ['packages/core/src/**/*.spec.ts'], rules: { 'no-restricted-imports': 'off' } },
  only(['packages/server/src/**/*.ts', 'packages/cli/src/**/*.ts'], 'Nothing imports the web package; packages share only the core.', [
    '@eager-ember/web*',
    '@angular/*',
    '@ngrx/*',
    '**/web/**',
  ]),
  // Rooms and what is kept know nothing of what carries the answers: HTTP and sockets say an error in their own ways.
  {
    ...only(
      ['packages/server/src/{rooms,drafts,database}/**/*.ts'],
      'Throw an error of errors.ts: HTTP and sockets say it in their own ways.',
      ['@eager-ember/web*', '@angular/*', '@ngrx/*', '**/web/**', '**/http/**', '**/sockets/**', 'express', 'ws'],
    ),
    ignores: ['**/*.spec.ts'],
  },
  only(['packages/web/src/**/*.ts'], 'The web package knows the core alone.', [
    '@eager-ember/server*',
    '@eager-ember/cli*',
    'node:*',
    'express',
    'sequelize',
    '**/server/**',
  ]),
  {
    files: ['**/*.mjs', '**/*.cjs'],
    languageOptions: {
      globals: Object.fromEntries(
        [
          ...['describe', 'it', 'expect', 'spyOn', 'jasmine', 'beforeAll', 'beforeEach', 'afterAll', 'afterEach'],
          'process',
          '__dirname',
          'console',
          'URL',
          'setTimeout',
          'clearTimeout',
          'setInterval',
          'clearInterval',
          'module',
          'require',
          'performance',
          'Buffer',
          'fetch',
          'WebSocket',
        ].map((name) => [name, 'readonly']),
      ),
    },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
);
