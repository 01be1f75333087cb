import fc from 'fast-check';

// A property that failed prints its seed; SEED takes it up again.
const { SEED } = process.env;
if (SEED !== undefined) fc.configureGlobal({ seed: Number(SEED) });
