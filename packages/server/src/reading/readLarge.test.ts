import { InvalidInput } from '../refusals';
import { LargeKind, readLarge } from './readLarge';

const ZONE = 'canoes.test.';
const sent = (body: unknown): Uint8Array => new TextEncoder().encode(JSON.stringify(body));
const set = (owner: string, type: string, ...data: string[]) => ({ owner, type, ttl: 300, data });

/** What is said of a body that is not taken. */
function refusal(kind: LargeKind, octets: Uint8Array): string {
  try {
    readLarge(kind, octets, ZONE);
    return 'taken';
  } catch (error) {
    if (!(error instanceof InvalidInput)) throw error;
    return `${error.more.field ?? ''}: ${error.title}`;
  }
}

describe('a large body', () => {
  it('is read whole, each set in one spelling', () => {
    const sets = [set('WWW.canoes.test.', 'A', '192.0.2.1'), set('canoes.test.', 'TXT', '"a" "b"')];
    const inHand = readLarge('in-hand', sent({ serial: 7, names: ['Shop.canoes.test.'], sets }), ZONE);
    expect([inHand.serial, inHand.names, inHand.count]).toEqual([7, ['Shop.canoes.test.'], 2]);
    expect(JSON.parse(inHand.sets)).toEqual([set('WWW.canoes.test.', 'A', '192.0.2.1'), set('canoes.test.', 'TXT', '"a" "b"')]);
    expect(readLarge('in-hand', sent({ names: [], sets: [] }), ZONE)).toEqual({ serial: undefined, names: [], sets: '[]', count: 0, servers: [] });
    const servers = readLarge('in-hand', sent({ names: [], sets: [], servers: ['NS9.Canoes.test', '192.0.2.9'] }), ZONE).servers;
    expect(servers).toEqual(['NS9.Canoes.test.', '192.0.2.9']);
    expect(readLarge('plan', sent({ sets: [set('canoes.test.', 'MX', '10  mail.canoes.test.')] }), ZONE).sets).toEqual([
      set('canoes.test.', 'MX', '10 mail.canoes.test.'),
    ]);
    expect(readLarge('panel', sent({ sets: null }), ZONE)).toEqual({ sets: null });
    expect(readLarge('panel', sent({ sets }), ZONE).sets).toHaveLength(2);
  });

  it('is a list of domains, of which the first line that is none is told', () => {
    const list = readLarge('sweep', sent({ name: ' Spring ', text: 'canoes.test\nno domain here!\n$$$\nchoir.test' }), null);
    expect([list.name, list.domains, list.bad.map(({ line }) => line), list.leftOut]).toEqual(['Spring', ['canoes.test', 'choir.test'], [2], 0]);
  });

  it.each<readonly [string, LargeKind, Uint8Array, string]>([
    ['no JSON', 'plan', new TextEncoder().encode('{"sets": ['), ': It is no JSON: '],
    ['not in UTF-8', 'plan', new Uint8Array([0x22, 0xff, 0x22]), ': It is not in UTF-8.'],
    ['with a NUL', 'plan', sent({ sets: [set('canoes.test.', 'TXT', '"\u0000"')] }), 'sets.0.data.0: It holds a character that cannot be kept'],
    ['with half a character', 'sweep', sent({ name: '\ud800', text: '' }), 'name: It holds a character that cannot be kept'],
    ['nested without end', 'panel', new TextEncoder().encode(`${'['.repeat(300_000)}${']'.repeat(300_000)}`), '0.0.0'],
    ['empty', 'in-hand', new Uint8Array(), ': '],
    ['of another shape', 'in-hand', sent({ names: [7], sets: [] }), 'names.0: '],
    ['with a server that is none', 'in-hand', sent({ names: [], sets: [], servers: ['a..b'] }), 'servers.0: Type the name of a server, or its address.'],
    ['with a name that is none', 'in-hand', sent({ names: ['a..b'], sets: [] }), 'names: a..b cannot be taken: '],
    [
      'with a name of another zone',
      'in-hand',
      sent({ names: ['www.choir.test.'], sets: [] }),
      'names: www.choir.test. cannot be taken: it is outside the zone.',
    ],
    ['with data that is none', 'plan', sent({ sets: [set('canoes.test.', 'A', '192.0.2.300')] }), 'sets: canoes.test. A cannot be taken: '],
    [
      'with a set of another zone',
      'plan',
      sent({ sets: [set('choir.test.', 'A', '192.0.2.3')] }),
      'sets: choir.test. A cannot be taken: it is outside the zone.',
    ],
  ])('%s is refused in a sentence that names the field', (_what, kind, octets, says) => {
    expect(refusal(kind, octets)).toContain(says);
    expect(refusal(kind, octets)).not.toBe('taken');
  });
});
