import { Name } from '../../dns/name';
import { ruling } from '../../testing/moving';
import { checkInput } from '../../testing/planLine';
import { addressNamed } from './addressNamed';

const ZONE = Name.parse('2.0.192.in-addr.arpa.');
const said = (owner: string, type: string, ...data: string[]): string[] => {
  const row = ruling(owner, type, 'carry', 3600, data, data);
  return addressNamed(checkInput(ZONE, [row])).map(
    ({ weight, code, text, fixes }) => `${weight} ${code}: ${text.split(' ')[0]!} ${fixes.map((fix) => fix.rows[0]!.row!.planned!.data.join(', ')).join()}`,
  );
};

describe('the name of an address', () => {
  it('is none that stands for addresses itself: the zone comes off its end', () => {
    expect(said('7.2.0.192.in-addr.arpa.', 'PTR', 'mail.quay.example.2.0.192.in-addr.arpa.')).toEqual([
      'look address-named: mail.quay.example.2.0.192.in-addr.arpa. mail.quay.example.',
    ]);
    expect(said('7.2.0.192.in-addr.arpa.', 'PTR', 'a.quay.example.', 'b.quay.example.2.0.192.in-addr.arpa.')).toEqual([
      'look address-named: b.quay.example.2.0.192.in-addr.arpa. a.quay.example., b.quay.example.',
    ]);
    // What is left would be no name that a host has, or it is another zone's: what was meant nobody knows.
    expect(said('7.2.0.192.in-addr.arpa.', 'PTR', 'mail.2.0.192.in-addr.arpa.')).toEqual(['look address-named: mail.2.0.192.in-addr.arpa. ']);
    expect(said('7.2.0.192.in-addr.arpa.', 'PTR', '8.3.0.192.in-addr.arpa.')).toEqual(['look address-named: 8.3.0.192.in-addr.arpa. ']);
  });

  it('is fine elsewhere, an alias into a smaller range is, and so is a PTR that is about services', () => {
    expect(said('7.2.0.192.in-addr.arpa.', 'PTR', 'mail.quay.example.')).toEqual([]);
    expect(said('7.2.0.192.in-addr.arpa.', 'CNAME', '7.0-63.2.0.192.in-addr.arpa.')).toEqual([]);
    expect(said('_services._dns-sd._udp.quay.example.', 'PTR', '_http._tcp.2.0.192.in-addr.arpa.')).toEqual([]);
  });
});
