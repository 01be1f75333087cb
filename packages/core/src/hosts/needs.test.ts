import { Name } from '../dns/name';
import { rrsetFromText } from '../dns/record';
import { HostKnowledge } from '../rebuild/host';
import { LedgerRow } from '../rebuild/ledgerRow';
import { proposeRulings } from '../rebuild/propose';
import { Ruling } from '../rebuild/ruling';
import { hostChanges } from './hostChanges';
import { earlySets, givenRow, needsOf } from './needs';
import { Requirement, plainRequirement } from './requirement';

const ZONE = Name.parse('choir.example.');
const need = (owner: string, type: string, data: string, more: Partial<Requirement> = {}): Requirement => plainRequirement({ owner, type, data, ...more });
const web = (...requires: Requirement[]): HostKnowledge => ({
  name: 'Larkspur',
  nameservers: [],
  addresses: ['203.0.113.90'],
  aliasTarget: undefined,
  requires,
});
const dns: HostKnowledge = { name: 'New DNS', nameservers: ['ns1.new.example.'], addresses: [], aliasTarget: undefined, requires: [] };
const FOUND = [
  { owner: 'choir.example.', type: 'A', ttl: 3600, data: ['192.0.2.1'] },
  { owner: 'choir.example.', type: 'TXT', ttl: 3600, data: ['"v=spf1 -all"'] },
].map(rrsetFromText);

/** The plan as it is proposed, with a value that the host gave, as if a person had typed it. */
function planOf(newWeb: HostKnowledge, given: Readonly<Record<string, string>> = {}): Parameters<typeof needsOf>[0] {
  let rows: LedgerRow[] = proposeRulings(ZONE, FOUND, { oldWeb: [], newDns: dns, newWeb }).map((row, index) => ({
    ...row,
    id: String(index),
    decidedBy: null,
  }));
  let met = new Map<string, string>();
  for (const [id, typed] of Object.entries(given)) {
    const made = givenRow(
      { zone: ZONE, newWeb, met },
      rows,
      newWeb.requires.find((one) => one.id === id)!,
      typed,
    );
    if (!made.ok) throw new Error(made.problem);
    const row: LedgerRow = { ...made.row, id: made.id ?? `given ${id}`, decidedBy: 'p' };
    rows = [...rows.filter((one) => one.id !== row.id), row];
    met = new Map([...met, [id, made.data]]);
  }
  return { zone: ZONE, rulings: rows, newWeb, met };
}
const states = (plan: Parameters<typeof needsOf>[0]): string[] => needsOf(plan).map((one) => `${one.requirement.owner} ${one.state}`);
const textsAt = (plan: Parameters<typeof needsOf>[0], owner: string, type: string): readonly string[] | undefined =>
  plan.rulings.find((row) => row.owner === owner && row.type === type)?.planned?.data;

describe('what a web host asks for', () => {
  it('is proposed where it is the same for every site: beside the texts that are there, and never in the place of addresses', () => {
    const plan = planOf(web(need('_proof', 'TXT', '"site={zone}"'), need('@', 'TXT', '"larkspur=1"'), need('@', 'A', '203.0.113.91')));
    expect(textsAt(plan, '_proof.choir.example.', 'TXT')).toEqual(['"site=choir.example"']);
    expect(textsAt(plan, 'choir.example.', 'TXT')).toEqual(['"v=spf1 -all"', '"larkspur=1"']);
    expect(textsAt(plan, 'choir.example.', 'A')).toEqual(['203.0.113.90']);
    expect(states(plan)).toEqual(['_proof planned', '@ planned', '@ open']);
  });

  it('is open while the value for this site is not known, and planned once it is given', () => {
    const host = web(need('@', 'TXT', '', { id: 'token' }));
    expect(states(planOf(host))).toEqual(['@ open']);
    const plan = planOf(host, { token: 'larkspur-site=k2f9' });
    expect(states(plan)).toEqual(['@ planned']);
    expect(textsAt(plan, 'choir.example.', 'TXT')).toEqual(['"v=spf1 -all"', '"larkspur-site=k2f9"']);
  });

  it('is open again where somebody takes the value out of the plan', () => {
    const plan = planOf(web(need('@', 'TXT', '', { id: 'token' })), { token: 'a=1' });
    const without = plan.rulings.map((row): Ruling => (row.type === 'TXT' ? { ...row, planned: row.found } : row));
    expect(states({ ...plan, rulings: without })).toEqual(['@ open']);
  });

  it('takes another value in the place of the one that was given before, and leaves what others put beside it', () => {
    const host = web(need('@', 'TXT', '', { id: 'token' }));
    const first = planOf(host, { token: 'a=1' });
    const rows = first.rulings.map((row, index): LedgerRow => ({ ...row, id: String(index), decidedBy: null }));
    const again = givenRow({ zone: ZONE, newWeb: host, met: first.met! }, rows, host.requires[0]!, 'a=2');
    expect(again.ok && again.row.planned?.data).toEqual(['"v=spf1 -all"', '"a=2"']);
    const same = givenRow({ zone: ZONE, newWeb: host, met: first.met! }, rows, host.requires[0]!, '"a=1"');
    expect(same.ok && same.row.planned?.data).toEqual(['"v=spf1 -all"', '"a=1"']);
  });

  it('puts what was given for this site in the place of what stands there, and several values given for one name side by side', () => {
    const host = web(need('shop', 'A', '', { id: 'one' }), need('shop', 'A', '', { id: 'two' }), need('edge', 'CNAME', '', { id: 'alias' }));
    const found = (owner: string, type: string, data: string): LedgerRow => {
      const set = { owner: `${owner}.choir.example.`, type, ttl: 3600, data: [data] };
      return { ...set, id: owner, ruling: 'carry', found: set, planned: set, reason: '', decidedBy: null };
    };
    const rows = [found('shop', 'A', '192.0.2.9'), found('edge', 'CNAME', 'old.edge.example.')];
    const give = (id: string, value: string, met: ReadonlyMap<string, string> = new Map()): readonly string[] | undefined => {
      const given = givenRow(
        { zone: ZONE, newWeb: host, met },
        rows,
        host.requires.find((one) => one.id === id)!,
        value,
      );
      return given.ok ? [given.row.ruling, ...(given.row.planned?.data ?? [])] : undefined;
    };
    expect(give('one', '203.0.113.7')).toEqual(['repoint', '203.0.113.7']);
    expect(give('two', '203.0.113.8', new Map([['one', '203.0.113.7']]))).toEqual(['repoint', '203.0.113.7', '203.0.113.8']);
    expect(give('alias', 'x7.edge.new.example.')).toEqual(['repoint', 'x7.edge.new.example.']);
  });

  it('reads a text with and without quotes, splits what is long, and refuses what is none', () => {
    const host = web(need('_t', 'TXT', '', { id: 'token' }), need('_a', 'A', '', { id: 'address' }));
    const give = (id: string, typed: string): ReturnType<typeof givenRow> =>
      givenRow(
        { zone: ZONE, newWeb: host },
        [],
        host.requires.find((one) => one.id === id)!,
        typed,
      );
    const [bare, quoted] = [give('token', 'say "hello"'), give('token', '"say" "hello"')];
    expect(bare.ok && bare.data).toBe('"say \\"hello\\""');
    expect(quoted.ok && quoted.data).toBe('"say" "hello"');
    const long = give('token', 'x'.repeat(450));
    expect(long.ok && long.data.split('" "').map((part) => part.replace(/"/g, '').length)).toEqual([255, 195]);
    expect(give('token', '   ')).toMatchObject({ ok: false });
    expect(give('address', '203.0.113.999')).toMatchObject({ ok: false });
    expect(give('address', 'not an address')).toMatchObject({ ok: false });
  });

  it('takes the first of alternatives, and any of them for enough', () => {
    const host = web(need('_one', 'TXT', '"1"', { either: 'proof' }), need('_two', 'TXT', '"2"', { either: 'proof' }), need('_three', 'TXT', '"3"'));
    const plan = planOf(host);
    expect(plan.rulings.map((row) => row.owner)).not.toContain('_two.choir.example.');
    expect(states(plan)).toEqual(['_one planned', '_two instead', '_three planned']);
    const none: Ruling[] = [];
    expect(states({ ...plan, rulings: none })).toEqual(['_one open', '_two open', '_three open']);
  });

  it('names what has to be in the live zone beforehand, and nothing of it where a leg sets back', () => {
    const plan = planOf(web(need('_early', 'TXT', '"1"', { early: true }), need('_late', 'TXT', '"2"')));
    expect(earlySets(plan).map((row) => row.owner)).toEqual(['_early.choir.example.']);
    expect(earlySets({ ...plan, isBack: true })).toEqual([]);
    expect(needsOf({ ...plan, isBack: true })).toEqual([]);
  });

  it('puts what is looked for beside what was found, and nothing else that the plan changes in that set', () => {
    const plan = planOf(web(need('@', 'TXT', '"proof=1"', { early: true })));
    const changed = plan.rulings.map((row): Ruling =>
      row.type === 'TXT' ? { ...row, planned: { ...row.planned!, data: ['"v=spf1 include:new.example -all"', '"proof=1"'] } } : row,
    );
    expect(earlySets({ ...plan, rulings: changed })).toMatchObject([{ data: ['"v=spf1 -all"', '"proof=1"'], found: ['"v=spf1 -all"'], values: ['"proof=1"'] }]);
    // Found there already, nothing is to be put; and the place of one alias is taken by no other.
    const there = changed.map((row): Ruling => (row.type === 'TXT' ? { ...row, found: { ...row.found!, data: ['"proof=1"'] } } : row));
    expect(earlySets({ ...plan, rulings: there })).toEqual([]);
    const alias = { owner: '_v.choir.example.', type: 'CNAME', ttl: 60 };
    const row: Ruling = {
      owner: alias.owner,
      type: 'CNAME',
      ruling: 'repoint',
      reason: '',
      found: { ...alias, data: ['old.example.'] },
      planned: { ...alias, data: ['new.example.'] },
    };
    expect(earlySets({ zone: ZONE, rulings: [row], newWeb: web(need('_v', 'CNAME', 'new.example.', { early: true })) })).toEqual([]);
  });
});

describe('a host that was changed since a move was planned with it', () => {
  it('is told by what is otherwise, and not by the order in which it was written', () => {
    const before = web(need('_p', 'TXT', '"1"', { id: 'a' }), need('_q', 'TXT', '"1"', { id: 'b' }));
    const task = { id: 't', title: 'Add the domain', by: 'us', when: 'before', waits: false, redirects: false, note: '' } as const;
    expect(hostChanges(before, { ...before, requires: [...before.requires].reverse() })).toEqual([]);
    const after: HostKnowledge = { ...before, addresses: ['203.0.113.92'], requires: [need('_p', 'TXT', '"2"', { id: 'a' })], tasks: [task] };
    expect(hostChanges(before, after)).toEqual([
      'addresses are 203.0.113.92 now',
      'the record _p TXT is otherwise',
      'the record _q TXT is not asked for any more',
      '“Add the domain” is asked for as well',
    ]);
  });
});
