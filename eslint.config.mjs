import js from '@eslint/js';
import tseslint from 'typescript-eslint';

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

const arrows = PACKAGES.map((name) => {
  const forbidden = PACKAGES.filter((other) => other !== name && !ARROWS[name].includes(other)).map((other) => `@wanderon/${other}`);
  const patterns = [{ group: ['**/packages/*', '../../*/src/**'], message: 'Import another package by its name.' }];
  if (name === 'core' || name === 'contract' || name === 'web')
    patterns.push({ group: ['node:*', 'fs', 'net', 'http', 'crypto'], message: `${name} does no I/O.` });
  return {
    files: [`packages/${name}/src/**/*.{ts,tsx}`],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-imports': ['error', { paths: forbidden.map((path) => ({ name: path, message: `${name} must not import ${path}.` })), patterns }] },
  };
});

export default tseslint.config(
  { ignores: ['**/dist/**', '**/dist-types/**', '**/node_modules/**', '.wanderon/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-empty-object-type': 'off',
      'no-empty': ['error', { allowEmptyCatch: false }],
      eqeqeq: 'error',
    },
  },
  {
    // Core has nothing to wait for (below), nor has the contract; types need not be worked out for them here once more.
    files: ['packages/{net,lab,server,web}/src/**/*.{ts,tsx}', 'command/src/**/*.ts'],
    ignores: ['**/*.test.ts', 'packages/web/vite.config.ts'],
    // One program for all of them: each by itself would work out the same types again.
    languageOptions: { parserOptions: { project: './tsconfig.lint.json', tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
    },
  },
  ...arrows,
  {
    // One clock is injected everywhere; core has none at all.
    files: ['packages/{core,server}/src/**/*.ts'],
    ignores: ['packages/server/src/clock/clock.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-properties': ['error', { object: 'Date', property: 'now', message: 'Ask the injected clock.' }],
      'no-restricted-syntax': ['error', { selector: 'NewExpression[callee.name="Date"][arguments.length=0]', message: 'Ask the injected clock.' }],
    },
  },
  {
    files: ['packages/{core,contract}/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'process', 'Buffer', 'window', 'document', 'setTimeout', 'fetch', 'TextEncoder', 'crypto', 'Promise'],
      'no-restricted-syntax': [
        'error',
        { selector: ':function[async=true]', message: 'Core and contract wait for nothing.' },
        { selector: 'NewExpression[callee.name="Date"][arguments.length=0]', message: 'Ask the injected clock.' },
      ],
    },
  },
);
