import fc from 'fast-check';
import { Name } from '../dns/name';
import { RRset, rrsetFromText, rrsetToText } from '../dns/record';
import { typeMnemonic } from '../dns/typeNames';
import { changesBetween } from '../dns/update';
import { LegPlan } from '../move/plan';
import { Scope, inScope } from '../move/scope';
import { plan as usual } from '../testing/moving';
import { HostKnowledge } from './host';
import { LedgerRow, editRow } from './ledgerRow';
import { proposeRepoint } from './proposeRepoint';
import { changedZone, loweredZone, raisedZone } from './zoneAfter';

const ZONE = Name.parse('zone.test.');
const LABELS = ['@', 'a', 'www.a', 'b', 'www.b', 'deep.a', 'c', '*', '_dmarc.b'];
const TEXTS: Readonly<Record<string, readonly string[]>> = {
  A: ['192.0.2.1', '192.0.2.2'],
  AAAA: ['2001:db8::1'],
  TXT: ['"x"', '"y"'],
  MX: ['10 mail.post.test.'],
};
const owner = (label: string): string => (label === '@' ? 'zone.test.' : `${label}.zone.test.`);
const web = (name: string, addresses: string[], aliasTarget?: string): HostKnowledge => ({ name, nameservers: [], addresses, aliasTarget, requires: [] });
const WEBS = [web('One Web', ['203.0.113.1']), web('Two Web', ['203.0.113.2', '2001:db8::2']), web('Three Web', [], 'sites.three.test.')];

const set = fc
  .record({ label: fc.constantFrom(...LABELS), type: fc.constantFrom(...Object.keys(TEXTS)), ttl: fc.constantFrom(300, 3600, 86_400) })
  .chain(({ label, type, ttl }) => fc.subarray([...TEXTS[type]!], { minLength: 1 }).map((data) => rrsetFromText({ owner: owner(label), type, ttl, data })));
const zones = fc.uniqueArray(set, { minLength: 3, maxLength: 20, selector: ({ owner: name, type }) => `${name.key}/${type}` });
const acts = fc.array(fc.record({ who: fc.constantFrom(0, 1, 2), what: fc.constantFrom('lower', 'change', 'raise'), sets: zones }), {
  minLength: 1,
  maxLength: 14,
});

/** Two moves of names that do not meet, with what people ruled of some rows. */
const SCOPES: readonly Scope[] = [
  { kind: 'names', names: ['a.zone.test', 'www.a.zone.test'] },
  { kind: 'names', names: ['b.zone.test', 'www.b.zone.test'] },
];

function planOf(scope: Scope, found: readonly RRset[], newWeb: HostKnowledge, drops: readonly number[]): LegPlan {
  const dns = web('Old DNS', []);
  const rows = proposeRepoint(ZONE, found, { scope, oldWeb: [], dns, newWeb }).map((row, index): LedgerRow => ({ ...row, id: String(index), decidedBy: null }));
  for (const index of drops) {
    const row = rows[index % rows.length]!;
    const edited = inScope(scope, row.owner, row.type) ? editRow(ZONE, row, { ruling: 'drop' }) : undefined;
    if (edited?.ok && edited.row) rows[rows.indexOf(row)] = { ...row, ...edited.row };
  }
  return { ...usual, kind: 'repoint', scope, rulings: rows, newServers: usual.oldServers, newNameservers: usual.oldNameservers };
}

const isIn = (scope: Scope, set: RRset): boolean => inScope(scope, set.owner.toString(), typeMnemonic(set.type));
const lines = (sets: readonly RRset[]): string[] => sets.map((one) => JSON.stringify(rrsetToText(one))).sort();

it('nothing outside its scope is touched by a move, whatever another one and somebody else do meanwhile', () => {
  let touched = 0;
  fc.assert(
    fc.property(
      zones,
      acts,
      fc.tuple(fc.constantFrom(...WEBS), fc.constantFrom(...WEBS)),
      fc.array(fc.nat(40), { maxLength: 4 }),
      (found, done, webs, drops) => {
        const plans = SCOPES.map((scope, index) => planOf(scope, found, webs[index]!, drops));
        let served: readonly RRset[] = found;
        for (const { who, what, sets } of done) {
          const plan = plans[who];
          const before = served;
          const wanted = !plan
            ? // Somebody else, at names that are in neither.
              [...served.filter((one) => SCOPES.some((scope) => isIn(scope, one))), ...sets.filter((one) => SCOPES.every((scope) => !isIn(scope, one)))]
            : what === 'lower'
              ? loweredZone(plan, served, 60)
              : what === 'change'
                ? changedZone(plan, served, 300)
                : raisedZone(plan, served);
          const changes = changesBetween(served, wanted);
          const gone = new Set(changes.map((one) => `${one.owner.key}/${one.type}`));
          served = [...served.filter((one) => !gone.has(`${one.owner.key}/${one.type}`)), ...changes.flatMap((one) => one.after ?? [])];
          if (!plan) continue;
          touched += changes.length;
          const outside = (all: readonly RRset[]): string[] => lines(all.filter((one) => !isIn(plan.scope, one)));
          expect(outside(served)).toEqual(outside(before));
          // And of its own names all is as it is planned, once it was changed.
          if (what !== 'change') continue;
          for (const row of plan.rulings.filter((one) => one.ruling !== 'carry')) {
            const there = served.find((one) => one.owner.toString().toLowerCase() === row.owner.toLowerCase() && rrsetToText(one).type === row.type);
            expect(there && [...rrsetToText(there).data].sort()).toEqual(row.planned && [...row.planned.data].sort());
          }
        }
      },
    ),
    { numRuns: 500 },
  );
  expect(touched).toBeGreaterThan(500);
});
