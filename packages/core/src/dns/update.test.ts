import { Message, encodeMessage } from './message';
import { Name } from './name';
import { parseRdata } from './rdata';
import { CLASS_ANY, CLASS_IN, CLASS_NONE, RRset } from './record';
import { typeCode, typeMnemonic } from './typeNames';
import { changesBetween, updateMessages } from './update';

const zone = Name.parse('zone.example.');
const set = (owner: string, type: string, ttl: number, ...data: string[]): RRset => ({
  owner: Name.parse(owner, zone),
  type: typeCode(type)!,
  ttl,
  data: data.map((one) => parseRdata(typeCode(type)!, one, zone)),
});
const shown = (message: Message, section: 'answers' | 'authorities'): string[] =>
  message[section].map(
    (one) =>
      `${{ [CLASS_IN]: 'IN', [CLASS_ANY]: 'ANY', [CLASS_NONE]: 'NONE' }[one.cls]} ${one.owner.relativeTo(zone)} ${typeMnemonic(one.type)} ${one.ttl} ${one.data.length}`,
  );

describe('updates', () => {
  it('hold only what differs: data, TTL, what comes and what goes', () => {
    const served = [
      set('same', 'A', 60, '192.0.2.1', '192.0.2.2'),
      set('ttl', 'A', 60, '192.0.2.1'),
      set('data', 'A', 60, '192.0.2.1'),
      set('gone', 'A', 60, '192.0.2.1'),
      set('kept', 'A', 60, '192.0.2.1'),
    ];
    const wanted = [
      set('SAME', 'A', 60, '192.0.2.2', '192.0.2.1'),
      set('ttl', 'A', 30, '192.0.2.1'),
      set('data', 'A', 60, '192.0.2.9'),
      set('new', 'A', 60, '192.0.2.1'),
    ];
    const changes = changesBetween(served, wanted, (one) => one.owner.relativeTo(zone) === 'kept');
    expect(changes.map((change) => `${change.owner.relativeTo(zone)} ${change.before ? 'was' : '-'} ${change.after ? 'is' : '-'}`).sort()).toEqual([
      'data was is',
      'gone was -',
      'new - is',
      'ttl was is',
    ]);
  });

  it('are guarded by what was seen (RFC 2136 §2.4)', () => {
    const [message] = updateMessages(zone, changesBetween([set('a', 'A', 60, '192.0.2.1')], [set('a', 'A', 60, '192.0.2.2'), set('b', 'A', 60, '192.0.2.3')]));
    expect(shown(message!, 'answers')).toEqual(['IN a A 0 4', 'NONE b A 0 0']);
    expect(shown(message!, 'authorities')).toEqual(['NONE a A 0 4', 'IN a A 60 4', 'IN b A 60 4']);
  });

  it('take away what an alias replaces before the alias comes', () => {
    const [message] = updateMessages(zone, changesBetween([set('www', 'A', 60, '192.0.2.1')], [set('www', 'CNAME', 60, 'edge')]));
    expect(shown(message!, 'authorities')).toEqual(['ANY www A 0 0', 'IN www CNAME 60 19']);
  });

  it('never delete the apex NS set whole (RFC 2136 §3.4.2.3)', () => {
    const [message] = updateMessages(
      zone,
      changesBetween([set('@', 'NS', 60, 'ns1.old.example.', 'ns2.old.example.')], [set('@', 'NS', 30, 'ns1.new.example.', 'ns2.old.example.')]),
    );
    expect(shown(message!, 'authorities')).toEqual(['IN @ NS 30 17', 'IN @ NS 30 17', 'NONE @ NS 0 17']);
  });

  it('are split between owners, never within one', () => {
    const wanted = Array.from({ length: 100 }, (_, i) => set(`n${i}`, 'A', 60, '192.0.2.1', '192.0.2.2'));
    const messages = updateMessages(zone, changesBetween([], wanted), 900);
    expect(messages.length).toBeGreaterThan(9);
    expect(messages.flatMap((message) => message.authorities)).toHaveLength(200);
    for (const message of messages) expect(encodeMessage(message).length).toBeLessThanOrEqual(900 + 12 + 17);
    // 60 long texts of four kilobytes do not fit into one message of 65,535 octets.
    const long = Array.from({ length: 60 }, (_, i) => set(`t${i}`, 'TXT', 60, `"${'x'.repeat(250)}" `.repeat(16).trim()));
    for (const message of updateMessages(zone, changesBetween([], long))) expect(encodeMessage(message).length).toBeLessThan(65_535);
  });

  it('bring what MX, SRV and NS lead to before them, and take it away after them, message by message', () => {
    const served = [set('@', 'MX', 60, '10 old'), set('old', 'A', 60, '192.0.2.1')];
    const wanted = [set('@', 'MX', 60, '10 mail'), set('mail', 'A', 60, '192.0.2.2'), set('zz', 'TXT', 60, '"x"')];
    const messages = updateMessages(zone, changesBetween(served, wanted), 1);
    expect(messages.map((message) => shown(message, 'authorities').map((line) => line.split(' ').slice(0, 3).join(' ')))).toEqual([
      ['IN mail A'],
      ['IN zz TXT'],
      ['NONE @ MX', 'IN @ MX'],
      ['ANY old A'],
    ]);
  });

  it('hold a set that is too large to stand in a message twice: it is only asked to be there', () => {
    const long = Array.from({ length: 160 }, (_, i) => `"${'x'.repeat(240)}${i}"`).join(' ');
    const [message] = updateMessages(zone, changesBetween([set('long', 'TXT', 60, long)], [set('long', 'TXT', 30, long)]));
    expect(shown(message!, 'answers')).toEqual(['ANY long TXT 0 0']);
    expect(encodeMessage(message!).length).toBeLessThan(0xffff);
  });
});
