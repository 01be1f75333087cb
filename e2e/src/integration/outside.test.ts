import { Name, RRset, TYPE_CODES, printRdata, rrsetFromText } from '@wanderon/core';
import { DnsClient, HttpWorld, Walker } from '@wanderon/net';
import { askOutside } from '../../../packages/server/src/survey/askOutside';
import { RealServers, loopback } from '../support/realServers';

const SERVER = loopback(51);
const SILENT = loopback(52);
const ZONE = Name.parse('shop.client.test.');
const HEAD = `$TTL 300\n@ SOA ns1.client.test. host.client.test. 1 3600 600 86400 300\n@ NS ns1.client.test.\n`;
const set = (owner: string, type: string, ...data: string[]): RRset => rrsetFromText({ owner, type, ttl: 60, data });
const isRoot = process.getuid?.() === 0;

(isRoot ? describe : describe.skip)('what stands outside of a zone, at real servers (port 53 on loopback, so as root)', () => {
  const servers = new RealServers();
  const client = new DnsClient();
  const http: HttpWorld = { routes: client.routes, resolve: () => Promise.resolve([]) };
  const asked = (sets: readonly RRset[], address = SERVER): ReturnType<typeof askOutside> =>
    askOutside(new Walker(client, [{ name: 'root.test.', addresses: [address] }]), http, ZONE, sets, undefined);

  beforeAll(async () => {
    await servers.bind(
      SERVER,
      {
        '.': `$TTL 300\n@ SOA root.test. host.test. 1 3600 600 86400 300\n@ NS root.test.\nroot.test. A ${SERVER}\ntest. NS root.test.\n`,
        'test.': `${HEAD}ns1.client A ${SERVER}\nroot A ${SERVER}\nclient NS ns1.client.test.\nlost NS ns1.lost.test.\nns1.lost A ${SILENT}\n@ CAA 0 issue "of-the-registry.test"\n`,
        'client.test.': `${HEAD}ns1 A ${SERVER}\n@ CAA 0 issue "certs.test"\n@ CAA 0 issuewild ";"\nshop NS ns1\n`,
        'shop.client.test.': HEAD,
        'reports.test.': `${HEAD}shop.client.test._report._dmarc TXT "v=DMARC1"\n*._report._dmarc TXT "no such thing"\n`,
        'any.test.': `${HEAD}*._report._dmarc TXT "v=DMARC1"\n`,
        'none.test.': HEAD,
      },
      { keyed: false },
    );
  });
  afterAll(() => servers.close());

  it('is the CAA set of the nearest name up, and none where the zone has its own', async () => {
    const { caa } = await asked([]);
    expect([caa!.owner, [...caa!.data].sort()]).toEqual(['client.test.', ['0 issue "certs.test"', '0 issuewild ";"']]);
    expect((await asked([set('shop.client.test.', 'CAA', '0 issue "own.test"')])).caa).toBeNull();
    // Nobody could be asked: nothing is known, and nothing is claimed.
    expect((await asked([], SILENT)).caa).toBeNull();
  });

  it('is whether others take reports, by their own word, a wildcard’s included; what cannot be asked is not known', async () => {
    const to = (...domains: string[]): RRset =>
      set('_dmarc.shop.client.test.', 'TXT', `"v=DMARC1; p=none; rua=${domains.map((one) => `mailto:a@${one}`).join(',')}"`);
    const { reports } = await asked([to('reports.test', 'any.test', 'none.test', 'lost.test', 'client.test')]);
    expect(reports.map((one) => [one.about, one.to, one.takes])).toEqual([
      ['shop.client.test', 'reports.test', true],
      ['shop.client.test', 'any.test', true],
      ['shop.client.test', 'none.test', false],
      ['shop.client.test', 'lost.test', null],
    ]);
    const other = set('_dmarc.news.shop.client.test.', 'TXT', '"v=DMARC1; p=none; rua=mailto:a@reports.test"');
    expect((await asked([other])).reports).toEqual([{ about: 'news.shop.client.test', to: 'reports.test', takes: false }]);
  });

  it('says why a policy that is announced was not read', async () => {
    const { mtaSts } = await asked([set('_mta-sts.shop.client.test.', 'TXT', '"v=STSv1; id=1"')]);
    expect([mtaSts!.text, mtaSts!.problem]).toEqual([null, expect.stringContaining('mta-sts.shop.client.test')]);
    expect((await asked([])).mtaSts).toBeNull();
  });

  it('is printed as it is read again', async () => {
    const data = (await asked([])).caa!.data;
    const again = rrsetFromText({ owner: 'client.test.', type: 'CAA', ttl: 60, data: [...data] });
    expect(again.data.map((one) => printRdata(TYPE_CODES.CAA, one))).toEqual(data);
  });
});
