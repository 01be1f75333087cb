import { SheetRow } from '@wanderon/core';
import { useHosts } from '../../api';
import { Failed, Loading } from '../../ui/states';
import { ChapterProps, stepIn } from '../movePlace';
import { slipsAt } from '../rebuild/ledgerRow';
import { StepNote } from '../stepNote';
import { HandSheet } from './handSheet';
import { rowsOf } from './rowsOf';

/** The handover sheet of a leg: what a person types into the panel of its DNS host, read back as it is typed. */
export function Sheet({ move, leg, may }: ChapterProps) {
  const hosts = useHosts();
  if (hosts.isPending) return <Loading what="the sheet" />;
  if (hosts.isError) return <Failed error={hosts.error} retry={() => void hosts.refetch()} />;
  if (!leg.chosen) return <p className="py-6 text-faded">What is to be typed is known once the way is chosen.</p>;
  const inPlace = leg.kind === 'repoint';
  const host = hosts.data.find((one) => one.id === (inPlace ? leg.oldDnsHost : leg.newDnsHost));
  const rows = rowsOf(leg, move.domain, host);
  // A slip is told once something can have been typed.
  const begun = inPlace ? leg.seen.ts !== null : leg.served !== null;
  const told = new Map<string, readonly string[]>();
  for (const { owner, type } of leg.rulings) if (begun) told.set(`${owner.toLowerCase()}/${type}`, slipsAt(leg.served, { owner, type }));
  const slips = (row: SheetRow): readonly string[] => told.get(row.id.split('/').slice(0, 2).join('/')) ?? [];
  return (
    <section className="max-w-5xl">
      <h2 className="text-[1.25rem] leading-tight">
        Handover sheet: {move.domain} at {host?.name ?? 'its DNS host'}
      </h2>
      <p className="mb-3 text-faded">
        {inPlace ? 'Only these rows: everything else in the zone stays as it is.' : 'The zone begins empty there; rows that the panel has made itself stay.'}{' '}
        {host?.entry
          ? 'Every field is written as this panel wants it.'
          : 'Nothing is known of this panel’s habits: say at Hosts how it wants names and values.'}
      </p>
      <StepNote step={stepIn(leg, inPlace ? 'changed' : leg.served ? 'served' : 'push')} move={move.id} may={may} />
      <HandSheet move={move.id} rows={rows} typed={leg.typed} may={may} slips={slips} />
    </section>
  );
}
