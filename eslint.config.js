import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import prettier from 'eslint-config-prettier';
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import imports from 'eslint-plugin-import-x';
import vue from 'eslint-plugin-vue';
import tseslint from 'typescript-eslint';
import typedParser from './eslint.parser.js';
import { scriptOf } from './scripts/typed.mjs';
import { roomsOf } from './eslint.rooms.js';

/** Which workspaces a workspace may import: core ← wire ← server, web; core ← cli; demo and e2e on top. */
const ARROWS = {
  core: [],
  wire: ['core'],
  server: ['core', 'wire'],
  web: ['core', 'wire'],
  cli: ['core'],
  demo: ['core', 'wire', 'server'],
  e2e: ['core', 'wire', 'server', 'demo'],
};
const WORKSPACES = Object.keys(ARROWS);

const patternsOf = (name) => {
  const closed = WORKSPACES.filter((other) => other !== name && !ARROWS[name].includes(other));
  return [
    {
      group: closed.flatMap((other) => [`@dusk/${other}`, `@dusk/${other}/*`]),
      message: `${name} must not know this workspace (docs/ARCHITECTURE.md).`,
    },
    { group: ['../../../*/src/*'], message: 'Import another workspace by its name.' },
  ];
};
const restricted = (files, patterns) => ({ files, rules: { 'no-restricted-imports': ['error', { patterns }] } });
const arrows = WORKSPACES.flatMap((name) => [
  restricted([`${name}/**/*.{ts,vue}`], patternsOf(name)),
  ...roomsOf(name).map(({ room, pattern }) => restricted([`${name}/src/${room}/**/*.{ts,vue}`], [...patternsOf(name), pattern])),
]);

/** What core may not touch: it runs in a page, in a worker, on the server and in the shell alike. */
const PURE = {
  files: ['core/src/**/*.ts'],
  rules: {
    'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage', 'Buffer', 'performance', 'setTimeout'],
    'no-restricted-syntax': [
      'error',
      { selector: 'ImportDeclaration[source.value=/^node:/]', message: 'core reads no files and knows no Node.' },
    ],
  },
};

/** Who reads the machine's clock knows what day it is, and holds on that day alone: a clock is told. */
const CLOCK = [
  { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Take the clock that is told (server/src/file/clock.ts).' },
  { selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']", message: 'Take the clock that is told.' },
];
/** What is drawn anew each time, or waits for how fast a machine is. */
const CHANCE = [
  {
    selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
    message: 'Draw with a seed (@dusk/core/random).',
  },
];
const WAITING = [
  { selector: "CallExpression[callee.object.name='performance'][callee.property.name='now']", message: 'Timings belong in a bench.' },
  { selector: "CallExpression[callee.property.name='waitForTimeout']", message: 'Wait for what is awaited.' },
];

/** The mapper's own transactions lose count when SQLite rolls back by itself; `save` begins one. */
const OWN_TRANSACTIONS = {
  files: ['server/**/*.ts', 'demo/**/*.ts'],
  rules: {
    'no-restricted-syntax': [
      'error',
      ...CLOCK,
      ...CHANCE,
      { selector: "CallExpression[callee.property.name='transaction']", message: 'Use Studio.change (server/src/file/transactions.ts).' },
      { selector: "CallExpression[callee.property.name='save']", message: 'Use insert or update: save begins a transaction of its own.' },
      { selector: "CallExpression[callee.property.name='startTransaction']", message: 'Use Studio.change.' },
    ],
  },
};

const OWN = OWN_TRANSACTIONS.rules['no-restricted-syntax'].slice(1);
/** Tests hold on any day, at any place, on any machine. */
const ANY_DAY = [
  { files: ['{core,wire,cli,web,e2e}/**/*.ts'], ignores: ['{core,wire,cli,web}/src/**', 'web/outing/**'], of: [...CLOCK, ...CHANCE] },
  { files: ['{core,wire,cli,web}/test/**/*.ts', 'e2e/**/*.test.ts', 'e2e/{studio,clock,hand}.ts'], of: [...CLOCK, ...CHANCE, ...WAITING] },
  { files: ['{server,demo}/test/**/*.ts'], of: [...OWN, ...WAITING] },
].map(({ of, ...where }) => ({ ...where, rules: { 'no-restricted-syntax': ['error', ...of] } }));

const PAGE = join(import.meta.dirname, 'web/src');
/** Components over any kind of thing: the parser adds to their script, which no program knows then. */
const GENERIC = readdirSync(PAGE, { recursive: true })
  .filter((file) => file.endsWith('.vue') && scriptOf(readFileSync(join(PAGE, file), 'utf8')) === undefined)
  .map((file) => `web/src/${file}`);

export default tseslint.config(
  { ignores: ['.cache/', '**/dist/', '**/dist-*/', '**/node_modules/', 'studio/', 'core/src/**/tables/', 'docs/'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'].map((config) => ({ files: ['web/**/*.{ts,vue}'], ...config })),
  { files: ['**/*.ts'], languageOptions: { parser: typedParser } },
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: typedParser } } },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', caughtErrorsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
      'no-undef': 'off',
      eqeqeq: 'error',
    },
  },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  { files: ['**/test/**/*.ts', 'e2e/**/*.ts'], rules: { '@typescript-eslint/no-unused-expressions': 'off' } },
  {
    files: ['**/*.{ts,vue}'],
    ignores: GENERIC,
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  {
    files: ['*/src/**/*.{ts,vue}'],
    plugins: { 'import-x': imports },
    settings: {
      'import-x/resolver-next': [
        createTypeScriptImportResolver({ noWarnOnMultipleProjects: true, project: ['tsconfig.json', 'web/tsconfig.json'] }),
      ],
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  ...arrows,
  PURE,
  OWN_TRANSACTIONS,
  ...ANY_DAY,
  prettier,
);
