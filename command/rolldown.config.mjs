/** The zone tools as one file: a look at a zone file need not wait for a hundred modules. */
export default {
  input: 'dist/zone.js',
  platform: 'node',
  output: { file: 'dist/zoneTools.js', format: 'cjs' },
};
