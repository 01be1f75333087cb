import { RulingView } from '@wanderon/contract';
import { Name, planFile } from '@wanderon/core';
import { csv } from '../../ui/csv';
import { saveFile } from '../../ui/saveFile';
import { asRuling } from '../asRuling';

const HEADING = ['ruling', 'owner', 'type', 'TTL', 'planned', 'found', 'why', 'by'];

/** The plan to take along, with the TTLs that it is to have in the end. */
export function PlanExports({ rulings, domain }: { rulings: readonly RulingView[]; domain: string }) {
  const rows = (): string[][] =>
    rulings.map(({ ruling, owner, type, planned, found, reason, decidedBy }) => [
      ...[ruling, owner, type, String((planned ?? found)?.ttl ?? '')],
      ...[planned?.data.join(' | ') ?? '', found?.data.join(' | ') ?? '', reason, decidedBy ?? ''],
    ]);
  const forms = [
    ['zone file', `${domain}.plan.zone`, 'text/dns', () => planFile(Name.parse(`${domain}.`), rulings.map(asRuling), { entry: null }, 'settled')],
    ['CSV', `${domain}.plan.csv`, 'text/csv', () => csv(HEADING, rows())],
    ['JSON', `${domain}.plan.json`, 'application/json', () => JSON.stringify({ domain, rulings }, null, 1)],
  ] as const;
  return (
    <span className="text-sm">
      {' '}
      · save as{' '}
      {forms.map(([title, file, type, make], index) => (
        <span key={title}>
          {index > 0 && ', '}
          <button type="button" className="cursor-pointer text-accent hover:underline" onClick={() => saveFile(file, type, make())}>
            {title}
          </button>
        </span>
      ))}
      {' · '}
      <button type="button" className="cursor-pointer text-accent hover:underline" onClick={() => window.print()}>
        print
      </button>
    </span>
  );
}
