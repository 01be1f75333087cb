const shared = {
  testEnvironment: 'node',
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: { parser: { syntax: 'typescript', tsx: true, decorators: true }, transform: { legacyDecorator: true, decoratorMetadata: true }, target: 'es2022' },
      },
    ],
  },
  moduleNameMapper: {
    '^@wanderon/(core|contract|net|lab)$': '<rootDir>/packages/$1/src/index.ts',
    // The same for the browser and for Node.
    '^csv-stringify/browser/esm/sync$': 'csv-stringify/sync',
  },
  setupFiles: ['<rootDir>/e2e/src/support/seed.ts'],
  // Looked up without the detour that a global takes in the test's own context: sums over thousands of worlds run in half the time.
  sandboxInjectedGlobals: 'Math Number Object Array Map Set WeakMap Infinity String JSON Uint8Array DataView Promise Error Date'.split(' '),
  modulePathIgnorePatterns: ['<rootDir>/(?!e2e/).*/dist/', '<rootDir>/.wanderon/'],
};

const withServers = {
  // As built (e2e/rolldown.config.mjs), as the servers are that these tests drive.
  moduleNameMapper: { ...shared.moduleNameMapper, '^@wanderon/(core|contract|net|lab)$': '<rootDir>/e2e/dist/$1.cjs' },
  setupFiles: [...shared.setupFiles, '<rootDir>/e2e/src/support/timeout.ts'],
  globalSetup: '<rootDir>/e2e/src/support/clusterUp.ts',
  globalTeardown: '<rootDir>/e2e/src/support/clusterDown.ts',
};

export default {
  testSequencer: '<rootDir>/e2e/src/support/serversFirst.mjs',
  projects: [
    { ...shared, displayName: 'unit', testMatch: ['<rootDir>/packages/*/src/**/*.test.ts'] },
    { ...shared, displayName: 'integration', testMatch: ['<rootDir>/e2e/src/integration/**/*.test.ts'], ...withServers },
    { ...shared, displayName: 'browser', testMatch: ['<rootDir>/e2e/src/browser/**/*.test.ts'], ...withServers },
  ],
};
