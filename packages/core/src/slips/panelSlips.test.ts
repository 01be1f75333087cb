import { panelSlips } from './panelSlips';

const ZONE = 'choir.example.';
const row = (owner: string, type: string, planned: string[], found: string[] = []) => ({ owner, type, planned, found });
const set = (owner: string, type: string, ...data: string[]) => ({ owner, type, ttl: 300, data });

describe('what a panel shows', () => {
  const rows = [
    row(ZONE, 'A', ['203.0.113.80'], ['192.0.2.80']),
    row(`www.${ZONE}`, 'CNAME', ['edge.thornwick.example.']),
    row(`_dmarc.${ZONE}`, 'TXT', ['"v=DMARC1; p=none"']),
    row(ZONE, 'MX', ['10 mx1.post.example.', '20 mx2.post.example.']),
    row(`old.${ZONE}`, 'A', [], ['192.0.2.81']),
  ];
  const told = (...sets: ReturnType<typeof set>[]): [string, readonly string[]][] =>
    panelSlips(ZONE, rows, sets).map(({ owner, type, texts }) => [`${owner} ${type}`, texts]);

  it('is explained row by row, whatever name or type it stands under', () => {
    expect(
      told(
        set(ZONE, 'A', '203.0.113.80', '192.0.2.80'),
        set(`www.${ZONE}`, 'TXT', '"edge.thornwick.example"'),
        set(`dmarc.${ZONE}`, 'TXT', '"v=DMARC1; p=none"'),
        set(ZONE, 'MX', '20 mx1.post.example.', '10 mx2.post.example.'),
      ),
    ).toEqual([
      [`${ZONE} A`, ['The old address 192.0.2.80 is left beside the new: take it out, or some visitors are still led there.']],
      [`www.${ZONE} CNAME`, ['The value is saved as TXT: it is to be CNAME. Delete it and add it anew, as CNAME.']],
      [`_dmarc.${ZONE} TXT`, ['It stands at dmarc.choir.example: the underscore is missing. Type _dmarc as the name.']],
      [`${ZONE} MX`, ['The priorities are exchanged: mx1.post.example has 10, mx2.post.example has 20.']],
    ]);
  });

  it('has no slip where something is not typed yet, is as it was before, or is what nobody planned', () => {
    expect(told()).toEqual([]);
    expect(told(set(ZONE, 'A', '192.0.2.80'), set(`old.${ZONE}`, 'A', '192.0.2.81'), set(`www.${ZONE}`, 'CNAME', 'shop.elsewhere.test.'))).toEqual([]);
    expect(told(...rows.slice(0, 4).map(({ owner, type, planned }) => set(owner, type, ...planned)))).toEqual([]);
  });
});
