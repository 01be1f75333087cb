import { Name } from '../dns/name';
import { LedgerRow, adoptedRow, editRow, editRows, newRow } from './ledgerRow';
import { pushChanges } from './pushChanges';
import { rrsetFromText } from '../dns/record';
import { ruling } from '../testing/moving';

const zone = Name.parse('zone.test.');
const row = (id: string, ...more: Parameters<typeof ruling>): LedgerRow => ({ ...ruling(...more), id, decidedBy: null });
const www = row('1', 'www.zone.test.', 'A', 'repoint', 3600, ['192.0.2.1'], ['192.0.2.2']);
const mx = row('2', 'zone.test.', 'MX', 'carry', 3600, ['10 mail.zone.test.'], ['10 mail.zone.test.']);
const fresh = row('3', 'new.zone.test.', 'TXT', 'new', 300, undefined, ['"x"']);

describe('many rows of the ledger', () => {
  it('are ruled together; those that are so already are left out, and where one cannot be so none is', () => {
    const carried = { ...www, ruling: 'carry', planned: www.found } as LedgerRow;
    expect(editRows(zone, [www, carried, mx], { ruling: 'carry' })).toMatchObject({ ok: true, rows: [{ id: '1', row: { ruling: 'carry' } }] });
    // As a database gives it: its parts in another order.
    const { owner, type, ttl, data } = www.found!;
    const asStored = { ...carried, planned: { ttl, data: [...data], type, owner } } as LedgerRow;
    expect(editRows(zone, [asStored], { ruling: 'carry' })).toEqual({ ok: true, rows: [] });
    expect(editRows(zone, [www, fresh], { ruling: 'drop' })).toMatchObject({
      ok: true,
      rows: [
        { id: '1', row: { ruling: 'drop' } },
        { id: '3', row: null },
      ],
    });
    expect(editRows(zone, [fresh], { ruling: 'repoint', data: '"y"' })).toMatchObject({
      ok: true,
      rows: [{ row: { ruling: 'new', planned: { data: ['"y"'] } } }],
    });
    expect(editRows(zone, [www, fresh], { ruling: 'carry' })).toMatchObject({ ok: false, problem: expect.stringContaining('new.zone.test TXT') as string });
    expect(editRows(zone, [www, mx], { ruling: 'repoint', data: '192.0.2.9' })).toMatchObject({
      ok: false,
      problem: expect.stringContaining('zone.test MX') as string,
    });
  });
});

describe('a row of the ledger', () => {
  it('is left out, carried and repointed, and what is new is taken out', () => {
    expect(editRow(zone, www, { ruling: 'drop' })).toMatchObject({ ok: true, row: { ruling: 'drop', planned: undefined } });
    expect(editRow(zone, www, { ruling: 'carry' })).toMatchObject({ ok: true, row: { planned: { data: ['192.0.2.1'] } } });
    expect(editRow(zone, mx, { ruling: 'repoint', data: '20 relay.test.', ttl: '1h' })).toMatchObject({
      ok: true,
      row: { planned: { ttl: 3600, data: ['20 relay.test.'] } },
    });
    expect(editRow(zone, fresh, { ruling: 'drop' })).toEqual({ ok: true, row: null });
  });

  it.each([
    ['the apex NS set', row('4', 'zone.test.', 'NS', 'drop', 60, ['a.test.'], undefined), { ruling: 'carry' } as const, /belongs to the DNS host/],
    ['a new row', fresh, { ruling: 'carry' } as const, /cannot be kept/],
    ['a found row', www, { ruling: 'new' } as const, /changed, not added/],
    ['a value', www, { ruling: 'repoint', data: 'nonsense' } as const, /not an IPv4 address/],
  ])('refuses what cannot be: %s', (_what, before, edit, problem) => {
    const result = editRow(zone, before, edit);
    expect(result.ok ? '' : result.problem).toMatch(problem);
  });

  it('is added once', () => {
    const typed = { owner: 'WWW', type: 'A', ttl: '60', data: '192.0.2.7' };
    expect(newRow(zone, [mx], typed)).toMatchObject({ ok: true, row: { ruling: 'new', owner: 'WWW.zone.test.' } });
    expect(newRow(zone, [www], typed)).toMatchObject({ ok: false, problem: expect.stringMatching(/in the plan already/) });
  });

  it('takes a change of the old zone into the plan without losing what was planned', () => {
    const change = (owner: string, type: string, ...data: string[]) => ({ owner, type, data, ttl: 60 });
    expect(adoptedRow([www, mx], change('zone.test.', 'MX', '5 other.test.'), 'old').row).toMatchObject({
      ruling: 'carry',
      planned: { data: ['5 other.test.'] },
    });
    expect(adoptedRow([www, mx], change('zone.test.', 'TXT', '"v"'), 'old')).toMatchObject({ id: undefined, row: { ruling: 'carry' } });
    expect(adoptedRow([www, mx], change('zone.test.', 'MX'), 'old')).toEqual({ id: '2', row: null });
    expect(adoptedRow([www], change('www.zone.test.', 'A', '192.0.2.77'), 'old').row).toMatchObject({
      ruling: 'repoint',
      found: { data: ['192.0.2.77'] },
      planned: { data: ['192.0.2.2'] },
    });
    expect(adoptedRow([www], change('www.zone.test.', 'A'), 'old').row).toMatchObject({ ruling: 'new', planned: { data: ['192.0.2.2'] } });
  });

  it('takes what the new host serves into the plan', () => {
    const change = (owner: string, type: string, ...data: string[]) => ({ owner, type, data, ttl: 60 });
    expect(adoptedRow([www], change('www.zone.test.', 'A', '192.0.2.88'), 'new').row).toMatchObject({
      ruling: 'repoint',
      planned: { ttl: 3600, data: ['192.0.2.88'] },
    });
    expect(adoptedRow([www], change('www.zone.test.', 'A'), 'new').row).toMatchObject({ ruling: 'drop', planned: undefined });
    expect(adoptedRow([fresh], change('new.zone.test.', 'TXT'), 'new')).toEqual({ id: '3', row: null });
  });
});

describe('a push', () => {
  const set = (owner: string, type: string, ...data: string[]) => rrsetFromText({ owner, type, ttl: 300, data });
  const wanted = [set('zone.test.', 'MX', '10 mail.test.'), set('www.zone.test.', 'A', '192.0.2.2')];
  const how = { keep: () => false, sent: new Map<string, string[]>(), assents: new Map() };
  const names = (all: readonly { owner: Name; type: number }[]): string[] => all.map((one) => `${one.owner.toString()} ${one.type}`);

  it('names what stands there and is not ours, and takes it only with assent', () => {
    const served = [set('k1._domainkey.zone.test.', 'TXT', '"key"'), set('www.zone.test.', 'A', '192.0.2.99')];
    const first = pushChanges(served, wanted, how);
    expect(names(first.foreign)).toEqual(['k1._domainkey.zone.test. 16', 'www.zone.test. 1']);
    const take = (what: 'take' | 'leave') =>
      new Map(first.foreign.map((one) => [`${one.owner.toString()}/${one.type === 1 ? 'A' : 'TXT'}`, { what, data: one.texts }]));
    const taken = pushChanges(served, wanted, { ...how, assents: take('take') });
    expect([taken.foreign, names(taken.changes)]).toEqual([[], ['k1._domainkey.zone.test. 16', 'zone.test. 15', 'www.zone.test. 1']]);
    // Left: what the plan does not name stays, what it names is overwritten.
    expect(names(pushChanges(served, wanted, { ...how, assents: take('leave') }).changes)).toEqual(['zone.test. 15', 'www.zone.test. 1']);
    // It was said of another value.
    const changed = [set('k1._domainkey.zone.test.', 'TXT', '"other key"'), served[1]!];
    expect(names(pushChanges(changed, wanted, { ...how, assents: take('take') }).foreign)).toEqual(['k1._domainkey.zone.test. 16']);
  });

  it('changes what it sent itself without asking', () => {
    const sent = new Map([['www.zone.test./A', ['192.0.2.50']]]);
    expect(pushChanges([set('www.zone.test.', 'A', '192.0.2.50')], wanted, { ...how, sent })).toMatchObject({ foreign: [] });
    expect(pushChanges([set('www.zone.test.', 'A', '192.0.2.51')], wanted, { ...how, sent }).foreign).toHaveLength(1);
    // What we sent and the plan no longer names goes; what somebody put beside it later stays.
    const gone = new Map([['old.zone.test./A', ['192.0.2.60']]]);
    const later = pushChanges([set('old.zone.test.', 'A', '192.0.2.60'), set('theirs.zone.test.', 'CAA', '0 issue "x"')], [], { ...how, sent: gone });
    expect([names(later.changes), later.foreign]).toEqual([['old.zone.test. 1'], []]);
  });
});
