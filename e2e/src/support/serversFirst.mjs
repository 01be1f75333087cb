import sequencer from '@jest/test-sequencer';

/** The package is CommonJS, whose default is one level down. */
const Sequencer = sequencer.default ?? sequencer;

/** Files that take longest, the longest first: one that begins near the end is waited for by an idle machine. Sizes tell little of it. */
const LONG = [
  'integration/predicted',
  'integration/killedInPlace',
  'integration/killed',
  'integration/survey',
  'browser/views',
  'browser/many',
  'integration/situations',
  'integration/inPlace',
  'integration/oddZones',
  'integration/hostile',
  'integration/sweep',
  'integration/zoneTools',
  'integration/situationsSigned',
  'integration/oneTransaction',
  'browser/ways',
  'integration/access',
  'integration/loader',
  'browser/path',
  'browser/survey',
  'browser/byHand',
  'integration/bentServers',
  'integration/back',
  'timetable/reachability',
  'timetable/reachabilityInPlace',
  'timetable/mistakes',
  'survey/readInHand',
  'policy/policies',
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
