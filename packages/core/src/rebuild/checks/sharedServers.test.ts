import { Name } from '../../dns/name';
import { checkInput, planLine } from '../../testing/planLine';
import { sharedServers } from './sharedServers';

const ZONE = Name.parse('canoes.test.');
const said = (names: string[], lines = ['drop @ NS ns1.old.test. | ns9.else.test.', 'carry www A 192.0.2.9']): string[] =>
  sharedServers(
    checkInput(
      ZONE,
      lines.map((line) => planLine(ZONE, line)),
      { sharedServers: names },
    ),
  ).map(({ owner, type, text }) => `${owner} ${type}: ${text}`);

it('a server of both sets is told at the apex NS set, with what has to be done for it', () => {
  expect(said(['ns9.else.test.'])).toEqual([
    'canoes.test. NS: ns9.else.test serves the zone before and after. If fed by transfer: give it the new primary, have that one allow it, with a serial above the old one.',
  ]);
  expect(said(['ns8.else.test.', 'ns9.else.test.'])[0]).toMatch(/ns8\.else\.test, ns9\.else\.test serve the zone/);
  expect(said([])).toEqual([]);
});
