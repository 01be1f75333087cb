import { Name } from '../dns/name';
import { readRow } from './editRuling';

const zone = Name.parse('zone.example.');

describe('a typed row', () => {
  it('is read below the zone, one record a line', () => {
    expect(readRow(zone, { owner: 'www', type: 'a', ttl: '1h', data: '192.0.2.1\n\n 192.0.2.2 ' })).toEqual({
      ok: true,
      set: { owner: 'www.zone.example.', type: 'A', ttl: 3600, data: ['192.0.2.1', '192.0.2.2'] },
    });
    expect(readRow(zone, { owner: '', type: 'MX', ttl: '60', data: '10 mail' })).toMatchObject({
      ok: true,
      set: { owner: 'zone.example.', data: ['10 mail.zone.example.'] },
    });
  });

  it.each([
    [{ owner: 'a..b' }, 'owner'],
    [{ owner: 'www.other.example.' }, 'owner'],
    [{ type: 'NOPE' }, 'type'],
    [{ ttl: 'soon' }, 'ttl'],
    [{ ttl: '4294967295' }, 'ttl'],
    [{ data: '' }, 'data'],
    [{ data: '192.0.2' }, 'data'],
    [{ data: '192.0.2.1 (' }, 'data'],
  ])('with %p names the field that is wrong', (change, field) => {
    const read = readRow(zone, { owner: 'www', type: 'A', ttl: '60', data: '192.0.2.1', ...change });
    expect(read).toMatchObject({ ok: false, field });
  });

  it('says line and column', () =>
    expect(readRow(zone, { owner: 'www', type: 'MX', ttl: '60', data: '10 mail\nten mail' })).toMatchObject({
      problem: 'Line 2, column 1: preference must be a number.',
    }));
});
