/** What the tests that drive servers import of the packages, as one file each: four hundred modules are loaded once a test file otherwise. */
export default {
  input: Object.fromEntries(['core', 'contract', 'net', 'lab'].map((name) => [name, `../packages/${name}/dist/index.js`])),
  platform: 'node',
  checks: { eval: false },
  output: { dir: 'dist', format: 'cjs', entryFileNames: '[name].cjs', chunkFileNames: '[name].cjs' },
};
