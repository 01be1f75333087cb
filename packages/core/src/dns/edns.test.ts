import { utf8 } from './bytes';
import { extendedErrors } from './edns';
import { decodeMessage, encodeMessage, query, reply } from './message';
import { Name } from './name';

const asked = query(Name.parse('zone.example.'), 1, { id: 3 });
const option = (code: number, ...octets: number[]) => ({ code, data: Uint8Array.from(octets) });

describe('EDNS', () => {
  it('carries every option, flag and upper bit of the response code unchanged', () => {
    const edns = { udpSize: 4096, version: 1, dnssecOk: true, reserved: 0x1234, options: [option(65001, 1, 2, 3), option(10), option(65001, 9)] };
    const read = decodeMessage(encodeMessage({ ...asked, rcode: 0xabc, reserved: true, edns }));
    expect([read.rcode, read.reserved, read.edns]).toEqual([0xabc, true, edns]);
  });

  it('tells extended errors with their meaning and the text of the server (RFC 8914)', () => {
    const edns = {
      udpSize: 1232,
      version: 0,
      dnssecOk: false,
      options: [option(15, 0, 18, ...utf8('zürück\0')), option(15, 9), option(15, 0x20, 0), option(3, 0, 1)],
    };
    expect(extendedErrors(decodeMessage(encodeMessage(reply(asked, { rcode: 5, edns }))).edns)).toEqual([
      { code: 18, meaning: 'prohibited', text: 'zürück' },
      { code: 0x2000, meaning: 'code 8192', text: '' },
    ]);
    expect(extendedErrors(undefined)).toEqual([]);
    // Looking from each NUL for the end of the text would take a minute.
    const nuls = option(15, 0, 1, ...new Uint8Array(65_000), 120);
    expect(extendedErrors({ ...edns, options: Array.from({ length: 30 }, () => nuls) }).map(({ text }) => text.length)).toEqual(Array(30).fill(65_001));
  });
});
