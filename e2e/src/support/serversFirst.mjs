import sequencer from '@jest/test-sequencer';

/** The package is CommonJS, whose default is one level down. */
const Sequencer = sequencer.default ?? sequencer;

/** Files that take longest, the longest first: one that begins near the end is waited for by an idle machine. Sizes tell little of it. */
const LONG = [
  'integration/predicted',
  'browser/views',
  'browser/emptyInstall',
  'integration/survey',
  'integration/killed',
  'integration/sweep',
  'integration/killedInPlace',
  'browser/ways',
  'integration/oneTransaction',
  'integration/databaseAway',
  'integration/situations',
  'integration/situationsSigned',
  'browser/survey',
  'integration/oddZones',
  'integration/randomEdits',
  'browser/many',
  'browser/path',
  'integration/realServers',
  'integration/statements',
  'integration/nothingDescribed',
  'integration/inPlace',
  'integration/hostile',
  'browser/byHand',
  'integration/zoneTools',
  'integration/coverage',
  'browser/emptyInstallWays',
  'integration/ownPlace',
  'integration/secrets',
  'integration/back',
  'integration/access',
  'integration/namesByDomain',
  'integration/loader',
  'integration/bentServers',
  'integration/slips',
  'reading/hostile',
  'timetable/reachability',
  'timetable/reachabilityInPlace',
  'timetable/mistakes',
  'reading/readText',
  'policy/policies',
  'reading/mutations',
  'src/exploration',
];

/**
 * What waits for servers begins first, the longest files at the head, and what only computes comes last: it fills what is left of the
 * processors while the last of the others still wait.
 */
export default class ServersFirst extends Sequencer {
  sort(tests) {
    const computes = (test) => Number(test.context.config.displayName?.name === 'unit');
    const place = ({ path }) => {
      const found = LONG.findIndex((name) => path.endsWith(`/${name}.test.ts`));
      return found < 0 ? LONG.length : found;
    };
    return [...super.sort(tests)].sort((a, b) => computes(a) - computes(b) || place(a) - place(b));
  }
}
