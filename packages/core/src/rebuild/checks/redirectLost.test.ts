import { Name } from '../../dns/name';
import { checkInput, planLine } from '../../testing/planLine';
import { CheckInput } from './check';
import { redirectLost } from './redirectLost';

const ZONE = Name.parse('canoes.test.');
const said = (redirects: CheckInput['redirects'], ...lines: string[]): string[] =>
  redirectLost(
    checkInput(
      ZONE,
      lines.map((line) => planLine(ZONE, line)),
      { redirects },
    ),
  ).map(({ owner, type, weight, text }) => `${weight} ${owner} ${type}: ${text}`);

describe('a redirect that the survey saw', () => {
  const TO_WWW = { from: 'canoes.test', to: 'www.canoes.test' };
  const moved = 'repoint @ A 192.0.2.80 > 203.0.113.80';

  it('is told once at the name that moves, with what rebuilds it', () => {
    expect(said([TO_WWW], moved, 'repoint @ AAAA 2001:db8::80 > 2001:db8:1::80')).toEqual([
      'look canoes.test. A: Its web server led visitors to www.canoes.test: no record does that, and nothing in the plan rebuilds it. ' +
        'Say that www.canoes.test is the main spelling, so that it is looked at.',
    ]);
    expect(said([{ from: 'canoes.test', to: 'xn--crmerie-alder-xgb.test' }], moved)[0]).toContain('led visitors to crèmerie-alder.test:');
    expect(said([{ from: 'canoes.test', to: 'boats.test' }], moved)).toEqual([
      'look canoes.test. A: Its web server led visitors to boats.test: no record does that, and nothing in the plan rebuilds it. ' +
        'Have the new web host do it, as a task for redirects.',
    ]);
  });

  it('stays where its name stays, and is nobody’s where the name leads nowhere any more', () => {
    expect(said([TO_WWW], 'carry @ A 192.0.2.80')).toEqual([]);
    expect(said([TO_WWW], 'drop @ A 192.0.2.80')).toEqual([]);
    expect(said([TO_WWW], 'repoint www A 192.0.2.80 > 203.0.113.80')).toEqual([]);
    expect(said([], moved)).toEqual([]);
  });
});
