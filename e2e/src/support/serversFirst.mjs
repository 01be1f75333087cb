import sequencer from '@jest/test-sequencer';

/** The package is CommonJS, whose default is one level down. */
const Sequencer = sequencer.default ?? sequencer;

/**
 * What waits for servers begins first, the largest files at the head, and what only computes comes last: it fills what is left of the
 * processors while the last of the others still wait.
 */
export default class ServersFirst extends Sequencer {
  sort(tests) {
    const waits = (test) => Number(test.context.config.displayName?.name !== 'unit');
    return [...super.sort(tests)].sort((a, b) => waits(b) - waits(a));
  }
}
