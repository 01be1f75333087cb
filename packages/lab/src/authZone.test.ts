import { CLASS_ANY, CLASS_NONE, Message, Name, RCODE, parseRdata, parseZoneFile, printRdata, typeCode, typeMnemonic, updateMessage } from '@wanderon/core';
import { AuthZone } from './authZone';

const origin = Name.parse('zone.example.');
const fresh = (): AuthZone =>
  new AuthZone(
    origin,
    parseZoneFile(
      `$TTL 60
@ SOA ns1 host 1 2 3 4 30
@ NS ns1
ns1 A 192.0.2.53
www CNAME edge
edge A 192.0.2.1
out CNAME www.other.example.
a.b.c TXT "below two empty names"
*.wild A 192.0.2.44
sub NS ns.sub
ns.sub A 192.0.2.99
loop CNAME loop
`,
      origin,
    ).records,
  );
const at = (text: string): Name => Name.parse(text, origin);
const shown = (zone: AuthZone, name: string, type: string): string => {
  const found = zone.lookUp(at(name), typeCode(type)!);
  const part = (records: typeof found.answers): string =>
    records.map((one) => `${one.owner.relativeTo(origin)} ${typeMnemonic(one.type)} ${one.type === 6 ? '' : printRdata(one.type, one.data)}`.trim()).join(', ');
  return `${found.rcode}${found.authoritative ? ' aa' : ''} | ${part(found.answers)} | ${part(found.authorities)} | ${part(found.additionals)}`;
};

describe('an authoritative zone', () => {
  it.each([
    ['edge', 'A', '0 aa | edge A 192.0.2.1 | @ NS ns1.zone.example. | '],
    ['edge', 'TXT', '0 aa |  | @ SOA | '],
    ['www', 'A', '0 aa | www CNAME edge.zone.example., edge A 192.0.2.1 | @ NS ns1.zone.example. | '],
    ['out', 'A', '0 aa | out CNAME www.other.example. |  | '],
    ['nothing', 'A', '3 aa |  | @ SOA | '],
    ['b.c', 'A', '0 aa |  | @ SOA | '],
    ['x.wild', 'A', '0 aa | x.wild A 192.0.2.44 | @ NS ns1.zone.example. | '],
    ['wild', 'A', '0 aa |  | @ SOA | '],
    ['deep.sub', 'A', '0 | ' + ' | sub NS ns.sub.zone.example. | ns.sub A 192.0.2.99'],
    ['@', 'NS', '0 aa | @ NS ns1.zone.example. |  | ns1 A 192.0.2.53'],
    ['loop', 'A', '2 aa |  |  | '],
  ])('%s %s', (name, type, wanted) => expect(shown(fresh(), name, type)).toBe(wanted));

  const record = (owner: string, type: string, cls: number, data = '', ttl = 60) => ({
    owner: at(owner),
    type: typeCode(type)!,
    cls,
    ttl,
    data: data === '' ? new Uint8Array(0) : parseRdata(typeCode(type)!, data, origin),
  });
  const update = (prerequisites: ReturnType<typeof record>[], updates: ReturnType<typeof record>[]): Message => updateMessage(origin, prerequisites, updates);

  it.each([
    ['NXRRSET', [record('nothing', 'A', CLASS_ANY)]],
    ['YXRRSET', [record('edge', 'A', CLASS_NONE)]],
    ['NXDOMAIN', [record('nothing', 'ANY', CLASS_ANY)]],
    ['YXDOMAIN', [record('edge', 'ANY', CLASS_NONE)]],
    ['NXRRSET', [record('edge', 'A', 1, '192.0.2.2', 0)]],
  ] as const)('refuses an update with %s where a prerequisite fails, and changes nothing', (rcode, prerequisites) => {
    const zone = fresh();
    expect(zone.update(update([...prerequisites], [record('edge', 'A', CLASS_ANY)]))).toEqual({ rcode: RCODE[rcode], changed: false });
    expect([zone.serial, shown(zone, 'edge', 'A')]).toEqual([1, shown(fresh(), 'edge', 'A')]);
  });

  it('applies additions, removals and new TTLs, and moves the serial on once', () => {
    const zone = fresh();
    const result = zone.update(
      update(
        [record('edge', 'A', 1, '192.0.2.1', 0)],
        [
          record('edge', 'A', CLASS_ANY),
          record('edge', 'A', 1, '192.0.2.8', 30),
          record('new', 'TXT', 1, '"x"'),
          record('a.b.c', 'TXT', CLASS_NONE, '"below two empty names"'),
        ],
      ),
    );
    expect(result).toEqual({ rcode: 0, changed: true });
    expect(zone.serial).toBe(2);
    expect(shown(zone, 'edge', 'A')).toContain('192.0.2.8');
    expect(shown(zone, 'b.c', 'A')).toMatch(/^3 /);
  });

  it('keeps the apex NS set from being deleted, and does nothing twice', () => {
    const zone = fresh();
    expect(zone.update(update([], [record('@', 'NS', CLASS_ANY), record('@', 'NS', CLASS_NONE, 'ns1'), record('@', 'SOA', CLASS_ANY)]))).toEqual({
      rcode: 0,
      changed: false,
    });
    expect(zone.update(update([], [record('edge', 'A', 1, '192.0.2.1')]))).toEqual({ rcode: 0, changed: false });
    expect(zone.update(update([], [record('edge', 'CNAME', 1, 'www')]))).toEqual({ rcode: 0, changed: false });
    expect(zone.update(update([], [{ ...record('edge', 'A', 1, '192.0.2.5'), owner: Name.parse('www.other.example.') }]))).toEqual({
      rcode: RCODE.NOTZONE,
      changed: false,
    });
    expect(zone.serial).toBe(1);
  });
});
