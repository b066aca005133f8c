import prettier from 'eslint-config-prettier';
import vue from 'eslint-plugin-vue';
import tseslint from 'typescript-eslint';

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

const arrows = WORKSPACES.map((name) => {
  const closed = WORKSPACES.filter((other) => other !== name && !ARROWS[name].includes(other));
  return {
    files: [`${name}/**/*.{ts,vue}`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: closed.flatMap((other) => [`@dusk/${other}`, `@dusk/${other}/*`]),
              message: `${name} must not know this workspace (docs/ARCHITECTURE.md).`,
            },
            { group: ['../../../*/src/*'], message: 'Import another workspace by its name.' },
          ],
        },
      ],
    },
  };
});

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

/** The mapper's own transactions lose count when SQLite rolls back by itself; `save` begins one. */
const OWN_TRANSACTIONS = {
  files: ['server/**/*.ts', 'demo/**/*.ts'],
  rules: {
    'no-restricted-syntax': [
      'error',
      { selector: "CallExpression[callee.property.name='transaction']", message: 'Use Studio.change (server/src/file/transactions.ts).' },
      { selector: "CallExpression[callee.property.name='save']", message: 'Use insert or update: save begins a transaction of its own.' },
      { selector: "CallExpression[callee.property.name='startTransaction']", message: 'Use Studio.change.' },
    ],
  },
};

export default tseslint.config(
  { ignores: ['**/dist/', '**/node_modules/', 'studio/', 'core/src/**/tables/', 'docs/'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
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
  ...arrows,
  PURE,
  OWN_TRANSACTIONS,
  prettier,
);
