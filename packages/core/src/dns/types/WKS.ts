import { WireError } from '../bytes';
import { ipv4 } from '../fields';
import { IP_PROTOCOLS, SERVICES, numberOf } from '../mnemonics';
import { plainField, readNumber, recordType } from '../recordType';

/** RFC 1035 §3.4.2: a protocol and a bit for each port; both are read by name or number, and printed as numbers. */
const services = plainField(
  'services',
  (words, out) => {
    const protocol = words.bare('protocol');
    out.u8(numberOf(IP_PROTOCOLS, protocol.text) ?? readNumber(protocol, 'protocol', 255));
    const ports: number[] = [];
    while (words.left > 0) {
      const token = words.bare('service');
      ports.push(numberOf(SERVICES, token.text) ?? readNumber(token, 'service', 0xffff));
    }
    const octets = new Uint8Array(ports.length === 0 ? 0 : (Math.max(...ports) >> 3) + 1);
    for (const port of ports) octets[port >> 3]! |= 0x80 >> (port & 7);
    out.bytes(octets);
  },
  (data, out) => {
    out.decimal(data.u8());
    const octets = data.rest();
    if (octets.at(-1) === 0) throw new WireError('a list of services has a zero octet at its end');
    for (let port = 0; port < octets.length * 8; port++) {
      if ((octets[port >> 3]! & (0x80 >> (port & 7))) === 0) continue;
      out.u8(32);
      out.decimal(port);
    }
  },
  (data) => {
    data.skip(1);
    data.skip(data.left);
  },
);

/** RFC 1035 §3.4.2 */
export const WKS = recordType('WKS', 11, [ipv4('address'), services]);
