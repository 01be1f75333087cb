// Plain JavaScript: jest loads its sequencer as it is.
const Sequencer = require('@jest/test-sequencer').default;

/**
 * What waits for servers begins first, the largest files at the head, and what only computes comes last: it fills what is left of the
 * processors while the last of the others still wait.
 */
module.exports = class ServersFirst extends Sequencer {
  sort(tests) {
    const waits = (test) => Number(test.context.config.displayName?.name !== 'unit');
    return [...super.sort(tests)].sort((a, b) => waits(b) - waits(a));
  }
};
