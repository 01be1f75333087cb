import { PageHop, PageLook } from '../survey/website';
import { pageChanges } from './pageChanges';

const START = 'http://reed-bank.example/';
const END = 'https://www.reed-bank.example/';
const hop = (url: string, status = 200, problem: string | null = null): PageHop => ({
  url,
  address: '192.0.2.1',
  status,
  certificate: url.startsWith('https:')
    ? { names: ['www.reed-bank.example'], issuer: 'Lab Authority', from: 0, until: 1_900_000_000, fingerprint: '00', problem }
    : null,
});
const body = { title: 'Reed bank', fingerprint: 'aa', octets: 900, cut: false, headers: { 'strict-transport-security': 'max-age=9' } };
const before: PageLook = { start: START, hops: [hop(START, 301), hop(END)], problem: null, keepsPath: true, page: body };
const changes = (now: Partial<PageLook>, old: Partial<PageLook> = {}): string[] =>
  pageChanges([{ ...before, ...old }], [{ ...before, ...now }]).map(({ weight, text }) => `${weight}: ${text}`);

describe('a website held against how it was', () => {
  it('is as before, whatever the certificate, the server and the way there', () => {
    expect(changes({})).toEqual([]);
    const other = { ...hop(END), address: '203.0.113.9', certificate: { ...hop(END).certificate!, issuer: 'Another', fingerprint: '11' } };
    expect(
      changes({ hops: [hop(START, 301), hop('http://www.reed-bank.example/', 301), other], page: { ...body, headers: { ...body.headers, server: 'x' } } }),
    ).toEqual([]);
    expect(pageChanges([before], [{ ...before, start: END, hops: [hop(END, 500)] }])).toEqual([]);
  });

  it('is broken where visitors are turned away or led astray', () => {
    expect(changes({ hops: [], page: null, problem: 'www.reed-bank.example has no address' })).toEqual([
      'broken: does not answer: www.reed-bank.example has no address',
    ]);
    expect(changes({ hops: [hop(START, 301), hop(END, 404)], page: { ...body, title: 'Not here' } })).toEqual(['broken: answers 404, before 200']);
    expect(changes({ hops: [hop(START, 301), hop(END, 200, 'it is for other names')] })).toEqual([
      'broken: a browser refuses the certificate: it is for other names',
    ]);
    expect(changes({ keepsPath: false })).toEqual([expect.stringMatching(/^broken: the redirect drops the path/)]);
    expect(changes({ page: { ...body, headers: { ...body.headers, 'x-robots-tag': 'noindex' } } })).toEqual([expect.stringMatching(/^broken: search engines/)]);
  });

  it('is otherwise where they get something else', () => {
    expect(changes({ hops: [hop(START)] })).toEqual([`otherwise: ends at ${START}, before at ${END}`]);
    expect(changes({ hops: [hop(START, 302), hop(END)] })).toEqual(['otherwise: redirects with 302, before with 301']);
    expect(changes({ page: { ...body, headers: {} } })).toEqual(['otherwise: the header strict-transport-security is gone, before max-age=9']);
    expect(changes({ page: { ...body, title: null, fingerprint: 'bb' } })).toEqual(['otherwise: its title is missing, before “Reed bank”']);
    expect(changes({ page: { ...body, fingerprint: 'bb', octets: 80 } })).toEqual(['otherwise: reads otherwise: 80 octets, before 900']);
    expect(changes({ page: { ...body, fingerprint: 'bb', cut: true } })).toEqual([]);
  });

  it('is told once of all pages, what is broken first', () => {
    const plain = { ...body, headers: {} };
    const both = [before, { ...before, start: END, hops: [hop(END)], keepsPath: null }];
    const now = [
      { ...both[0]!, page: plain, keepsPath: false },
      { ...both[1]!, page: plain },
    ];
    expect(pageChanges(both, now).map(({ weight, pages }) => [weight, pages])).toEqual([
      ['broken', [START]],
      ['otherwise', [START, END]],
    ]);
  });

  it('is not blamed for what was so before', () => {
    expect(changes({ problem: 'nobody listens', hops: [], page: null }, { problem: 'nobody listens', hops: [], page: null })).toEqual([]);
    expect(changes({}, { problem: 'nobody listens', hops: [], page: null })).toEqual(['otherwise: answers, and did not before']);
    const refused = [hop(START, 301), hop(END, 200, 'it has expired')];
    expect(changes({ hops: refused }, { hops: refused })).toEqual([]);
  });
});
