/** The arrows of the house (docs/architecture.md): what a package may import of ours, and nothing else. */
const ARROWS = {
  core: [],
  contract: ['core'],
  net: ['core'],
  lab: ['core', 'net'],
  server: ['core', 'contract', 'net'],
  web: ['core', 'contract'],
};

const PACKAGES = Object.keys(ARROWS);
const TESTS = ['**/*.test.ts'];

/** What needs types: held in what ships. */
const HELD = [
  'await-thenable',
  'no-array-delete',
  'no-base-to-string',
  'no-duplicate-type-constituents',
  'no-floating-promises',
  'no-for-in-array',
  'no-implied-eval',
  'no-redundant-type-constituents',
  'no-unsafe-unary-minus',
  'no-useless-default-assignment',
  'require-array-sort-compare',
  'restrict-template-expressions',
  'unbound-method',
].map((rule) => `typescript/${rule}`);

/** Among the linter's defaults too, and held nowhere: names and numerals of the trade have no emoji, and `void` says that nothing is returned. */
const LEFT = ['typescript/no-misused-spread', 'typescript/no-meaningless-void-operator'];

const arrows = PACKAGES.map((name) => {
  const forbidden = PACKAGES.filter((other) => other !== name && !ARROWS[name].includes(other)).map((other) => `@wanderon/${other}`);
  const patterns = [{ group: ['**/packages/*', '../../*/src/**'], message: 'Import another package by its name.' }];
  if (name === 'core' || name === 'contract' || name === 'web')
    patterns.push({ group: ['node:*', 'fs', 'net', 'http', 'crypto'], message: `${name} does no I/O.` });
  return {
    files: [`packages/${name}/src/**/*.{ts,tsx}`],
    excludeFiles: TESTS,
    rules: { 'no-restricted-imports': ['error', { paths: forbidden.map((path) => ({ name: path, message: `${name} must not import ${path}.` })), patterns }] },
  };
});

export default {
  plugins: ['eslint', 'typescript'],
  jsPlugins: ['./oxlint.house.mjs'],
  categories: { correctness: 'error' },
  options: { typeAware: true, denyWarnings: true, reportUnusedDisableDirectives: 'error' },
  env: { builtin: true, node: true, browser: true },
  ignorePatterns: ['**/dist/**', '**/dist-types/**', '**/node_modules/**', '.wanderon/**'],
  rules: {
    eqeqeq: 'error',
    'no-array-constructor': 'error',
    'no-case-declarations': 'error',
    'no-empty': ['error', { allowEmptyCatch: false }],
    'no-fallthrough': 'error',
    'no-prototype-builtins': 'error',
    'no-regex-spaces': 'error',
    'no-unexpected-multiline': 'error',
    'no-useless-assignment': 'error',
    'no-var': 'error',
    'prefer-const': 'error',
    'prefer-rest-params': 'error',
    'prefer-spread': 'error',
    'preserve-caught-error': 'error',
    'typescript/ban-ts-comment': 'error',
    'typescript/no-explicit-any': 'error',
    'typescript/no-namespace': 'error',
    'typescript/no-require-imports': 'error',
    'typescript/no-unnecessary-type-constraint': 'error',
    'typescript/no-unsafe-function-type': 'error',
    ...Object.fromEntries([...HELD, ...LEFT].map((rule) => [rule, 'off'])),
  },
  overrides: [
    {
      files: ['packages/*/src/**/*.{ts,tsx}', 'command/src/**/*.ts'],
      excludeFiles: TESTS,
      rules: {
        ...Object.fromEntries(HELD.map((rule) => [rule, 'error'])),
        'typescript/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      },
    },
    ...arrows,
    {
      // One clock is injected everywhere; core has none at all.
      files: ['packages/{core,contract,server}/src/**/*.ts'],
      excludeFiles: ['packages/server/src/clock/clock.ts', ...TESTS],
      rules: {
        'no-restricted-properties': ['error', { object: 'Date', property: 'now', message: 'Ask the injected clock.' }],
        'house/injected-clock': 'error',
      },
    },
    {
      files: ['packages/{core,contract}/src/**/*.ts'],
      excludeFiles: TESTS,
      rules: {
        'no-restricted-globals': ['error', 'process', 'Buffer', 'window', 'document', 'setTimeout', 'fetch', 'TextEncoder', 'crypto', 'Promise'],
        'house/waits-for-nothing': 'error',
      },
    },
  ],
};
