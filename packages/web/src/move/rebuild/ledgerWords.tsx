import { LedgerProps } from '../movePlace';
import { ownerBelow } from '../owner';

/** Where records change in place, what is served is old until the change, and that is as it should be. */
export function inPlaceWords({ seen, gate, counts, unseen }: LedgerProps['leg']): string {
  if (seen.t0) return unseen.length > 0 ? 'The records are changed, by the word of whoever did it' : 'Every nameserver gives the new values';
  if (seen.ts !== null) return 'The records are being changed';
  const changing = counts.repoint + counts.new;
  return gate.open
    ? 'Ready to be changed where they are'
    : changing === 0
      ? 'Nothing changes yet: say what is to'
      : 'What changes is planned, and nothing is changed yet';
}

/** How many servers serve the plan. */
export function servedWords({ served, pushed, isBack, account }: LedgerProps['leg']): string {
  if (!served && account) return 'The zone is planned for the other account, and seen once that is live';
  if (!served) return pushed ? 'The new zone is being pushed' : 'The new zone is planned, not pushed yet';
  const good = served.servers.filter((server) => server.problem === null && server.differs.length === 0 && server.apexNew).length;
  const all = served.servers.length;
  const which = account ? 'nameservers' : isBack ? 'servers that it goes back to' : 'new servers';
  return good === all ? `All ${good} ${which} serve the plan` : `${good} of ${all} ${which} serve the plan`;
}

/** What stands at the new host that the plan does not name: it is left alone, and said. */
export function Extras({ served, domain }: { served: LedgerProps['leg']['served']; domain: string }) {
  const extras = new Map((served?.servers ?? []).flatMap((server) => server.extras.map((set) => [`${set.owner} ${set.type}`, set])));
  if (extras.size === 0) return null;
  const names = [...extras.values()].map((set) => `${ownerBelow(set.owner, domain)} ${set.type}`);
  return (
    <p className="my-2 border-l-4 border-rule bg-shade px-3 py-1.5">
      At the new host stands besides, and is left alone: <span className="mono">{names.slice(0, 6).join(', ')}</span>
      {names.length > 6 && ` and ${names.length - 6} more`}.
    </p>
  );
}
