import { OPEN_MOVES, askedFirst } from './askedFirst';

const ID = '12345678-1234-4123-8123-123456789abc';
const ROWS = { ledger: `/api/moves/${ID}/ledger`, rest: `/api/moves/${ID}/ledger?from=500&limit=5000` };
const ALWAYS = { me: '/api/me', clock: '/api/clock' };
const HEAD = { ...ALWAYS, move: `/api/moves/${ID}` };

it.each([
  ['/', '', { ...ALWAYS, desk: OPEN_MOVES }],
  ['/hosts', '', ALWAYS],
  [`/moves/${ID}`, '', HEAD],
  [`/moves/${ID}/timetable`, '', HEAD],
  [`/moves/${ID}/rebuild`, '', { ...HEAD, ...ROWS }],
  // The rows of an earlier leg are not those of the latest one.
  [`/moves/${ID}/rebuild`, `?leg=${ID}`, HEAD],
  [`/moves/${ID}/rebuild`, '?a=1', { ...HEAD, ...ROWS }],
  [`/moves/${ID}/constructor`, '', HEAD],
  // Whoever has a link to a sheet has no session.
  ['/sheet/secret', '', {}],
  // Nothing of an address that is no place of ours comes into what is named.
  [`/moves/${ID}/rebuild>; rel=x, </evil`, '', ALWAYS],
  [`/moves/${ID}\r\nset-cookie: x=y`, '', ALWAYS],
  ['/moves/../../etc', '', ALWAYS],
])('the page %j%s asks first for %j', (path, search, of) => {
  expect(askedFirst(path, search).of).toEqual(of);
});
