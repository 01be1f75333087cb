import { Name } from '../../dns/name';
import { rrsetFromText } from '../../dns/record';
import { policyWords } from '../../policy/policyWords';
import { Outside, announcesMtaSts, caaQuestions, reportQuestions, takesReports } from '../../survey/outside';
import { checkInput, planLine } from '../../testing/planLine';
import { CheckedWeb } from '../host';
import { overlaid } from '../rowWords';
import { checkRulings } from '.';

const ZONE = Name.parse('shop.client.test.');
const NEW_WEB: CheckedWeb = { name: 'New Web', addresses: ['203.0.113.80'], aliasTarget: 'sites.new.test.', issuers: ['certs.test'] };
const NOTHING: Outside = { caa: null, reports: [], mtaSts: null };
const plan = (...lines: string[]) => lines.map((line) => planLine(ZONE, line));
const said = (outside: Partial<Outside>, lines: readonly string[], newWeb = NEW_WEB): string[] =>
  checkRulings(checkInput(ZONE, plan(...lines), { outside: { ...NOTHING, ...outside }, newWeb }))
    .filter(({ code }) => /^(caa|dmarc|mta-sts)/.test(code))
    .map((one) => `${one.weight} ${one.code} ${one.owner.replace('.client.test.', '')} ${one.type}`);

describe('CAA above a zone', () => {
  const WEB = ['repoint @ A 198.51.100.1 > 203.0.113.80', 'repoint *.x A 198.51.100.1 > 203.0.113.80', 'carry mail A 192.0.2.25'];
  const caa = (...data: string[]): Partial<Outside> => ({ caa: { owner: 'client.test.', data } });

  it('counts for names that have none of their own, and for no others (RFC 8659 §3)', () => {
    expect(said(caa('0 issue "other.test"'), WEB)).toEqual(['stop caa-forbids shop A']);
    expect(said(caa('0 issue "certs.test"'), WEB)).toEqual([]);
    expect(said(caa('0 issuewild ";"'), WEB)).toEqual(['stop caa-forbids *.x.shop A']);
    expect(said(caa('0 issue "other.test"'), [...WEB, 'carry @ CAA 0 issue "certs.test"'])).toEqual([]);
    expect(said(caa('0 issue "other.test"'), ['carry mail A 192.0.2.25'])).toEqual([]);
    expect(said(caa('0 issue "other.test"'), WEB, { ...NEW_WEB, issuers: [] })).toEqual(['look caa-unknown shop A']);
  });

  it('is mended by a set of the zone’s own', () => {
    const rulings = plan(...WEB);
    const input = checkInput(ZONE, rulings, { outside: { ...NOTHING, ...caa('0 issue ";"') }, newWeb: NEW_WEB });
    const [fix] = checkRulings(input).flatMap((one) => one.fixes);
    expect(fix!.text).toMatch(/CAA set of the zone’s own/);
    const rows = rulings.map((one, index) => ({ ...one, id: String(index), decidedBy: null }));
    const after = overlaid(
      rows,
      fix!.rows.map(({ row }) => ({ id: 'new', row, by: 'a' })),
    );
    expect(checkRulings({ ...input, rulings: after }).filter(({ code }) => code.startsWith('caa'))).toEqual([]);
  });

  it('is asked for from the nearest name up, and not where the apex has its own', () => {
    expect(caaQuestions(ZONE, []).map(String)).toEqual(['client.test.', 'test.']);
    const own = rrsetFromText({ owner: 'Shop.client.test.', type: 'CAA', ttl: 60, data: ['0 issue "certs.test"'] });
    expect(caaQuestions(ZONE, [own])).toEqual([]);
  });
});

describe('reports of DMARC', () => {
  const TEXT = 'carry _dmarc TXT "v=DMARC1; p=none; rua=mailto:a@reports.test,mailto:b@shop.client.test; ruf=mailto:c@other.test"';
  const takes = (...answers: (boolean | null)[]): Partial<Outside> => ({
    reports: answers.map((one, index) => ({ about: 'shop.client.test', to: ['reports.test', 'other.test'][index]!, takes: one })),
  });

  it('go nowhere where the other domain does not say that it takes them', () => {
    expect(said(takes(false, true), [TEXT])).toEqual(['look dmarc-reports _dmarc.shop TXT']);
    expect(said(takes(false, false), [TEXT])).toHaveLength(2);
    expect(said(takes(true, null), [TEXT])).toEqual([]);
    expect(said(takes(false), ['repoint _dmarc TXT "v=DMARC1; p=none" > "v=DMARC1; p=none; rua=mailto:a@shop.client.test"'])).toEqual([]);
  });

  it('are asked about of others alone, by the name that RFC 7489 §7.1 has', () => {
    const set = rrsetFromText({ owner: '_DMARC.shop.client.test.', type: 'TXT', ttl: 60, data: planLine(ZONE, TEXT).planned!.data });
    const below = rrsetFromText({
      owner: '_dmarc.news.shop.client.test.',
      type: 'TXT',
      ttl: 60,
      data: ['"v=DMARC1; p=reject; rua=mailto:x@client.test,mailto:z@post.client.test,mailto:y@r.test"'],
    });
    expect(reportQuestions(ZONE, [set, below]).map(({ name }) => name.toString())).toEqual([
      'shop.client.test._report._dmarc.reports.test.',
      'shop.client.test._report._dmarc.other.test.',
      'news.shop.client.test._report._dmarc.r.test.',
    ]);
    expect(takesReports(['v=DMARC1;'])).toBe(true);
    expect(takesReports(['hello'])).toBe(false);
    const many = Array.from({ length: 500 }, (_, index) => `mailto:a@r${index}.test`).join(',');
    const all = {
      owner: Name.parse('_dmarc', ZONE),
      type: 16,
      ttl: 60,
      data: rrsetFromText({ owner: 'x.', type: 'TXT', ttl: 1, data: chunks(`v=DMARC1; p=none; rua=${many}`) }).data,
    };
    expect(reportQuestions(ZONE, [all])).toHaveLength(8);
  });
});

/** One text in strings of what one holds. */
function chunks(text: string): string[] {
  return [(text.match(/.{1,250}/gs) ?? []).map((part) => `"${part}"`).join(' ')];
}

describe('a policy for mail', () => {
  const page = (mode: string, ...mx: string[]): Partial<Outside> => ({
    mtaSts: { text: ['version: STSv1', `mode: ${mode}`, ...mx.map((one) => `mx: ${one}`), 'max_age: 86400'].join('\n'), problem: null },
  });
  const SAYS = 'carry _mta-sts TXT "v=STSv1; id=1"';
  const MOVES = 'repoint @ MX 10 mx.old.test. > 10 mx.post.test.';

  it('that names none of the planned mail hosts stops a move that changes them, and is told of one that does not', () => {
    expect(said(page('enforce', 'mx.old.test'), [SAYS, MOVES])).toEqual(['stop mta-sts-unfit shop MX']);
    expect(said(page('enforce', 'mx.old.test'), [SAYS, 'carry @ MX 10 mx.post.test.'])).toEqual(['look mta-sts-unfit shop MX']);
    expect(said(page('testing', 'mx.old.test'), [SAYS, MOVES])).toEqual(['look mta-sts-unfit shop MX']);
    expect(said(page('enforce', '*.post.test'), [SAYS, MOVES])).toEqual([]);
    expect(said(page('none'), [SAYS, MOVES])).toEqual([]);
    expect(said(page('enforce', 'mx.old.test'), ['drop _mta-sts TXT "v=STSv1; id=1"', MOVES])).toEqual([]);
    expect(said(page('enforce', 'mx.old.test'), [SAYS, 'repoint @ MX 10 mx.old.test. > 0 .'])).toEqual([]);
  });

  it('that cannot be read is told, the record and the page', () => {
    expect(said(page('strict', 'mx.old.test'), [SAYS])).toEqual(['look mta-sts-unreadable _mta-sts.shop TXT']);
    expect(said({ mtaSts: { text: null, problem: 'it answers 404' } }, [SAYS])).toEqual(['look mta-sts-unreadable _mta-sts.shop TXT']);
    expect(said({}, ['carry _mta-sts TXT "v=STSv1; id=no-dash"'])).toEqual(['look mta-sts-unreadable _mta-sts.shop TXT']);
    expect(said({}, ['carry _mta-sts TXT "v=STSv1; id=1" | "v=STSv1; id=2"'])).toEqual(['look mta-sts-unreadable _mta-sts.shop TXT']);
    expect(said({}, [SAYS])).toEqual([]);
  });

  it('is announced by a text of its own, and shown as its page had it', () => {
    const set = { owner: '_mta-sts.shop.client.test.', type: 'TXT', ttl: 60, data: ['"v=STSv1; id=7"'] };
    expect(announcesMtaSts(ZONE, [rrsetFromText(set)])).toBe(true);
    expect(announcesMtaSts(ZONE, [rrsetFromText({ ...set, data: ['"something"'] })])).toBe(false);
    expect(policyWords(set, { ...NOTHING, ...page('enforce', 'mx.old.test') })).toEqual([
      'MTA-STS: a policy for mail, by the id 7.',
      'Its page, when the zone was surveyed: senders have to insist on it; mail hosts mx.old.test; kept for 1 day.',
    ]);
    expect(policyWords({ ...set, owner: '_smtp._tls.shop.client.test.', data: ['"v=TLSRPTv1; rua=mailto:a@b.test"'] })).toEqual([
      'TLS reports: they go to b.test.',
    ]);
    expect(policyWords({ ...set, owner: 'default._bimi.shop.client.test.', data: ['"v=BIMI1; l=;"'] })).toEqual(['BIMI: no mark is shown.']);
  });
});
