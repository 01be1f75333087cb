import { duration } from '../../time';
import { lowerSheet, raiseSheet, tickedOn } from '@wanderon/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useHosts, useMoveAction } from '../../api';
import { Failed, Loading } from '../../ui/states';
import { useToast } from '../../ui/toast';
import { LedgerProps, stepIn } from '../movePlace';
import { StepNote } from '../stepNote';
import { freshPlace, placeHost, placeName } from '../where/placeHost';
import { WhereThere } from '../where/whereThere';
import { HandSheet } from './handSheet';
import { SheetLinks } from './sheetLinks';

/** What a person sets in a panel so that TTLs are low before the cutover, or lasting after it. */
export function TtlSheet({ move, leg, may, now, which }: LedgerProps & { which: 'lower' | 'raise' }) {
  const hosts = useHosts(move.id);
  const [giving, setGiving] = useState(false);
  const { fail } = useToast();
  const mark = useMoveAction<{ sheet: typeof which; row: string; typed: boolean }>(move.id, 'POST', () => '/typed');
  if (hosts.isPending) return <Loading what="the sheet" />;
  if (hosts.isError && hosts.data === undefined) return <Failed error={hosts.error} retry={() => void hosts.refetch()} />;
  if (!leg.chosen) return <p className="py-6 text-faded">What is to be typed is known once the way is chosen.</p>;
  const place = which === 'lower' ? 'live DNS' : 'planned DNS';
  const host = placeHost(hosts.data, leg, place);
  const name = placeName(host, leg, place);
  const panel = { entry: host?.entry ?? null, ...(host && { habits: host.habits }) };
  const zone = `${move.domain}.`;
  const rows = which === 'lower' ? lowerSheet(leg, zone, panel, leg.lowerTo) : raiseSheet(leg, zone, panel);
  const typed = tickedOn(which, leg.ticks);
  const step = stepIn(leg, which === 'lower' && stepIn(leg, 'lower')?.state === 'left' ? 'lowered' : which);
  return (
    <section className="max-w-5xl">
      <h2 className="text-[1.25rem] leading-tight">
        {which === 'lower' ? 'TTLs to lower' : 'TTLs to raise'}: {move.domain} at {name}
      </h2>
      <p className="text-faded">
        {which === 'lower'
          ? `Only the TTL of these records changes, to ${duration(leg.lowerTo)} or what the panel has nearest to it. Their values stay.`
          : 'Only the TTL of these records changes: they were typed low for the move. Their values stay.'}{' '}
        It belongs to the{' '}
        <Link className="text-accent underline" to={`/moves/${move.id}/${which === 'lower' ? 'timetable' : 'watch'}`}>
          {which === 'lower' ? 'timetable' : 'watch'}
        </Link>
        .
      </p>
      <WhereThere
        host={host}
        fresh={freshPlace(leg, place)}
        name={name}
        act="records"
        domain={move.domain}
        used={rows.length > 0 && rows.every((row) => typed.includes(row.id))}
        may={may}
      />
      <StepNote step={step} leg={leg} move={move.id} may={may} />
      {rows.length === 0 ? (
        <p className="py-2 text-faded">{panel.entry?.ttls === null ? 'No TTL can be set in this panel.' : 'Every TTL is as it is to be.'}</p>
      ) : (
        <HandSheet
          rows={rows}
          typed={typed}
          onTick={may ? (row, is) => mark.mutate({ sheet: which, row, typed: is }, { onError: fail }) : undefined}
          slips={() => []}
          onGive={may ? () => setGiving(true) : undefined}
        />
      )}
      {giving && <SheetLinks leg={leg.id} sheet={which} now={now} onClose={() => setGiving(false)} />}
    </section>
  );
}
