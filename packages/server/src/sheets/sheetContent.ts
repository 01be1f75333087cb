import { OpenSheetView } from '@wanderon/contract';
import {
  SheetKind,
  SheetRow,
  USUAL_FORM,
  dnsHostOf,
  frontingOfRows,
  legSheet,
  lowerSheet,
  ownerOf,
  raiseSheet,
  readBack,
  rebuildsZone,
  registrarOf,
  registrarSheet,
  styleSentence,
  tickedOn,
  typeOf,
  wayThere,
} from '@wanderon/core';
import { LoadedLeg } from '../moves/legLoader';

/** One sheet of a leg for somebody without an account: what is done, where, and what of it is ticked. */
export function sheetContent(current: LoadedLeg, domain: string, sheet: SheetKind): Omit<OpenSheetView, 'endsAt'> {
  const { host, content } = sheet === 'registrar' ? registrarContent(current) : zoneContent(current, domain, sheet);
  const ids = new Set<string>((content.sheet === 'registrar' ? content.steps : content.rows).map(({ id }) => id));
  const there = host && wayThere(host, sheet === 'registrar' ? 'nameservers' : 'records', domain);
  return {
    domain,
    host: host?.name ?? (sheet === 'registrar' ? (namedRegistrar(current.leg) ?? 'its registrar') : 'its DNS host'),
    where: there ? { ...there, clicks: [...there.clicks] } : null,
    warnings: sheet === 'records' && rebuildsZone(current.leg.plan) ? [...(host?.habits.warnings ?? [])] : [],
    typed: tickedOn(sheet, current.said.ticks).filter((row) => ids.has(row)),
    content,
  };
}

/** The registrar as the registry tells it, or a person. */
const namedRegistrar = ({ seen, said }: LoadedLeg['leg']): string | null => seen.registration?.registrar ?? said.registration?.registrar ?? null;

function registrarContent({ leg, row, hosts, said }: LoadedLeg) {
  const host = registrarOf([...hosts.values()], { chosen: said.registrar ?? null, named: namedRegistrar(leg) });
  const steps = registrarSheet(host?.form ?? USUAL_FORM, row.new_nameservers, row.old_nameservers);
  return { host, content: { sheet: 'registrar' as const, names: row.new_nameservers.length, steps } };
}

function zoneContent(current: LoadedLeg, domain: string, sheet: Exclude<SheetKind, 'registrar'>) {
  const { row, leg, hosts } = current;
  const { plan } = leg;
  const inPlace = !rebuildsZone(plan);
  const isLive = inPlace || sheet === 'lower';
  const host = isLive ? dnsHostOf([...hosts.values()], row.old_dns_host, row.old_nameservers) : hosts.get(row.new_dns_host ?? '');
  const isBack = row.back_of !== null;
  const zone = `${domain}.`;
  const panel = { entry: host?.entry ?? null, ...(host && { habits: host.habits }) };
  const rows =
    sheet === 'lower' ? lowerSheet(plan, zone, panel, leg.said.lowerTo) : sheet === 'raise' ? raiseSheet(plan, zone, panel) : recordRows(current, zone, panel);
  // What is lowered or raised stands there: everything else of the zone stays, wherever it is.
  const isOnly = inPlace || isBack || sheet !== 'records';
  return { host, content: { sheet, inPlace: isOnly, style: styleSentence(panel.entry), rows: rows.map((one) => ({ ...one })) } };
}

function recordRows({ row, rows, leg, said }: LoadedLeg, zone: string, panel: Parameters<typeof legSheet>[2]): SheetRow[] {
  const servers = readBack(leg).map(({ differs, apex }) => ({
    apex: apex ?? null,
    differs: differs.map(({ key, answer }) => ({ owner: ownerOf(key), type: typeOf(key), ttl: answer.ttl, data: answer.data })),
  }));
  const fronting = frontingOfRows(leg.plan);
  const rulings = rows.map((one) => ({ ...one, fronting: fronting(one) }));
  return legSheet(
    { kind: row.kind, account: row.account, newNameservers: row.new_nameservers, isBack: row.back_of !== null, rulings, served: { servers } },
    zone,
    { ...panel, shown: said.shown },
  );
}
