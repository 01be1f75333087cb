import { Name } from '../../dns/name';
import { Edge, Fronting } from '../../hosts/fronting';
import { PanelTtls } from '../../hosts/enter';
import { RRsetText } from '../../dns/record';
import { Outside } from '../../survey/outside';
import { SeenRedirect } from '../../survey/website';
import { PageChange } from '../../watch/pageChanges';
import { CheckedWeb } from '../host';
import { Fix } from '../fix';
import { Ruling } from '../ruling';

/** What is broken about some pages where the plan leads. */
export type SiteFault = Pick<PageChange, 'pages' | 'text'>;

/** A remark about one row of the ledger. `stop` keeps the gate shut, `look` asks for a second look. */
export interface Remark {
  readonly owner: string;
  readonly type: string;
  readonly weight: 'stop' | 'look';
  readonly code: string;
  readonly text: string;
  /** What would mend it, the likeliest first. */
  readonly fixes: readonly Fix[];
}

export interface CheckInput {
  readonly zone: Name;
  readonly rulings: readonly Ruling[];
  readonly oldWeb: readonly CheckedWeb[];
  /** Sets as the old host answered them, where what it stores is not known. */
  readonly fronted: readonly RRsetText[];
  /** Types that the DNS host to which the zone goes cannot hold. */
  readonly lacks: readonly string[];
  /** Records that it takes in one zone; null: no limit is known. */
  readonly most: number | null;
  /** TTLs that its panel lets be chosen; null where they are not known. */
  readonly ttls: PanelTtls | null;
  /** Spellings of the website that led to another host, of which nothing in the plan says that they will again, nor were they seen to where it leads. */
  readonly redirects: readonly SeenRedirect[];
  /** What is broken about pages where the plan leads, as they were looked at last. */
  readonly faults: readonly SiteFault[];
  /** Names of servers that the old and the new nameserver set have in common. */
  readonly sharedServers: readonly string[];
  /** The DNS host that is left, with its services that forward mail or visitors and end with the zone. */
  readonly leaves: { readonly name: string; readonly forwards: readonly string[] } | undefined;
  /** How names are fronted at the DNS host, and how its edge reaches the web host. */
  readonly edge:
    | {
        readonly host: string;
        readonly fronting: ReadonlyMap<string, Fronting>;
        readonly how: Edge;
        /** The address that stands in for names of which only its edge answers; empty: none is needed. */
        readonly standIn: string;
      }
    | undefined;
  /** What the DNS host makes of an alias at the apex. */
  readonly apexAlias: { readonly host: string; readonly takes: boolean; readonly known: boolean };
  /** What stands outside of the zone and decides what its records mean; null where it was not asked. */
  readonly outside: Outside | null;
  /** The web host to which the website goes, where one is chosen. */
  readonly newWeb: CheckedWeb | undefined;
}

export type Check = (input: CheckInput) => Remark[];

/** `fixes`: those that are known; what cannot be mended so is undefined. */
export function remark(
  ruling: Pick<Ruling, 'owner' | 'type'>,
  weight: Remark['weight'],
  code: string,
  text: string,
  fixes: readonly (Fix | undefined)[] = [],
): Remark {
  return { owner: ruling.owner, type: ruling.type, weight, code, text, fixes: fixes.filter((fix): fix is Fix => fix !== undefined) };
}
