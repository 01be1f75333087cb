import { Name } from '../dns/name';
import { CheckInput } from '../rebuild/checks/check';
import { Ruling, RulingKind } from '../rebuild/ruling';

/**
 * A row of a plan in one line: `carry www A 192.0.2.1`, `repoint @ A 192.0.2.1 > 192.0.2.2`, `drop x TXT "y"`, `new x A 192.0.2.3`; several
 * values are parted by `|`, and `!` at the end says that a person ruled it so.
 */
export function planLine(zone: Name, line: string, ttl = 3600): Ruling {
  const byHand = line.endsWith(' !');
  const [, kind, label, type, rest] = /^(\w+) (\S+) (\S+) (.*?)(?: !)?$/s.exec(line) as unknown as [string, RulingKind, string, string, string];
  const owner = Name.parse(label, zone).toString();
  const [before, after] =
    kind === 'new' ? [undefined, rest] : kind === 'repoint' ? (rest.split(' > ') as [string, string]) : [rest, kind === 'drop' ? undefined : rest];
  const set = (text: string | undefined): Ruling['found'] => (text === undefined ? undefined : { owner, type, ttl, data: text.split(' | ') });
  const found = set(before);
  return { owner, type, ruling: kind, found, planned: kind === 'carry' ? found : set(after), reason: byHand ? 'decided by hand' : '' };
}

/** What the checks are given, with nothing known of any host but what is said. */
export function checkInput(zone: Name, rulings: readonly Ruling[], more: Partial<CheckInput> = {}): CheckInput {
  return {
    zone,
    rulings: asStored(rulings),
    oldWeb: [],
    newWeb: undefined,
    fronted: [],
    lacks: [],
    most: null,
    ttls: null,
    redirects: [],
    faults: [],
    sharedServers: [],
    leaves: undefined,
    edge: undefined,
    outside: null,
    apexAlias: { host: 'New DNS', takes: false, known: true },
    ...more,
  };
}

/** Rows as they come out of a database: what is equal in them is not one object. */
function asStored(rulings: readonly Ruling[]): Ruling[] {
  return rulings.map((row) => ({ ...row, found: row.found && { ...row.found }, planned: row.planned && { ...row.planned } }));
}
