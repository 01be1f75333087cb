import { PageHop, PageLook, hostOf, otherSpelling, redirectsSeen, remarksOnPages } from './website';

const NOW = 1_800_000_000;
const certificate = (more: Partial<NonNullable<PageHop['certificate']>> = {}): PageHop['certificate'] => ({
  names: ['reed-bank.example'],
  issuer: 'Lab Authority',
  from: NOW - 1000,
  until: NOW + 90 * 86_400,
  fingerprint: '00',
  problem: null,
  ...more,
});
const look = (start: string, end: string, more: Partial<PageLook> = {}, cert = certificate()): PageLook => ({
  start,
  hops: [{ url: end, address: '192.0.2.1', status: 200, certificate: cert }],
  problem: null,
  keepsPath: null,
  page: { title: null, fingerprint: '00', octets: 9, cut: false, headers: {} },
  ...more,
});
const END = 'https://www.reed-bank.example/';

describe('what is worth saying of a site', () => {
  it('is nothing where all spellings end at one address', () =>
    expect(remarksOnPages([look('http://reed-bank.example/', END), look(END, END)], NOW)).toEqual([]));

  it('is a certificate that is refused or ends soon, a lost path, strict transport, and spellings that end apart', () => {
    const said = (one: PageLook): string => remarksOnPages([one], NOW).join(' ');
    expect(said(look(END, END, {}, certificate({ problem: 'it has expired' })))).toMatch(/refuses its certificate, it has expired/);
    expect(said(look(END, END, {}, certificate({ until: NOW + 86_400 })))).toMatch(/ends within two weeks/);
    expect(said(look('http://reed-bank.example/', END, { keepsPath: false }))).toMatch(/every page to the front page/);
    const strict = look(END, END, { page: { title: null, fingerprint: '00', octets: 9, cut: false, headers: { 'strict-transport-security': 'max-age=1' } } });
    expect(remarksOnPages([strict, strict], NOW)).toEqual([expect.stringMatching(/HSTS/)]);
    expect(remarksOnPages([look('http://reed-bank.example/', 'http://reed-bank.example/'), look(END, END)], NOW)).toEqual([
      expect.stringMatching(/end at 2 different addresses/),
    ]);
  });
});

it('reads the host of an address, and knows its other spelling', () => {
  expect(['https://WWW.choir.test.:8443/a?b', 'http://choir.test', 'mailto:x', ''].map(hostOf)).toEqual(['www.choir.test', 'choir.test', '', '']);
  expect(['www.choir.test', 'choir.test'].map(otherSpelling)).toEqual(['choir.test', 'www.choir.test']);
});

it('tells the names that lead to another one, once each; HTTPS alone, errors and silence lead nowhere', () => {
  const apex = look('http://reed-bank.example/', END);
  const looks = [
    apex,
    look('https://reed-bank.example/', END),
    look('http://www.reed-bank.example/', END),
    look('http://shop.reed-bank.example/', 'https://SHOPS.market.example:8443/reed'),
    look('http://gone.reed-bank.example/', END, { problem: 'timed out' }),
    { ...look('http://lost.reed-bank.example/', END), hops: [{ url: END, address: '192.0.2.1', status: 404, certificate: null }] },
    { ...apex, start: 'http://empty.reed-bank.example/', hops: [] },
  ];
  expect(redirectsSeen(looks)).toEqual([
    { from: 'reed-bank.example', to: 'www.reed-bank.example' },
    { from: 'shop.reed-bank.example', to: 'shops.market.example' },
  ]);
});
