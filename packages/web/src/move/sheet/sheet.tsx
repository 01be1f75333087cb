import { Name, SheetRow, isRefusedByAll, legSheet, panelQuestions, planFile, rebuildsZone, styleSentence, tickedOn } from '@wanderon/core';
import { PanelShown } from '@wanderon/contract';
import { useState } from 'react';
import { useHosts, useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { saveFile } from '../../ui/saveFile';
import { Failed, Loading } from '../../ui/states';
import { useToast } from '../../ui/toast';
import { LedgerProps, stepIn } from '../movePlace';
import { slipsAt } from '../rebuild/ledgerRow';
import { asRuling } from '../asRuling';
import { StepNote } from '../stepNote';
import { HandSheet } from './handSheet';
import { freshPlace, placeHost } from '../where/placeHost';
import { WhereThere } from '../where/whereThere';
import { InVain } from './inVain';
import { AskedOfPanel, Lessons } from './lessons';
import { PanelDialog } from './panelDialog';
import { SheetLinks } from './sheetLinks';

/** The handover sheet of a leg: what a person types into the panel of its DNS host, read back as it is typed. */
export function Sheet({ move, leg, may, now }: LedgerProps) {
  const hosts = useHosts(move.id);
  const [giving, setGiving] = useState(false);
  const [pasting, setPasting] = useState(false);
  const { fail } = useToast();
  const mark = useMoveAction<{ row: string; typed: boolean }>(move.id, 'POST', () => '/typed');
  const forget = useMoveAction<PanelShown>(move.id, 'POST', () => '/panel');
  if (hosts.isPending) return <Loading what="the sheet" />;
  if (hosts.isError && hosts.data === undefined) return <Failed error={hosts.error} retry={() => void hosts.refetch()} />;
  if (!leg.chosen) return <p className="py-6 text-faded">What is to be typed is known once the way is chosen.</p>;
  const inPlace = !rebuildsZone(leg);
  const host = placeHost(hosts.data, leg, 'planned DNS');
  const panel = { entry: host?.entry ?? null, ...(host && { habits: host.habits }) };
  const name = host?.name ?? 'its DNS host';
  const rows = legSheet(leg, `${move.domain}.`, { ...panel, shown: leg.shown ?? undefined });
  // A slip is told once something can have been typed.
  const begun = leg.kind === 'repoint' ? leg.seen.ts !== null : leg.served !== null;
  const told = new Map(leg.rulings.map(({ owner, type }) => [`${owner.toLowerCase()}/${type}`, { owner, type }]));
  const typed = tickedOn('records', leg.ticks);
  const isRefused = !inPlace && isRefusedByAll(leg.served?.servers ?? []);
  const isUsed = rows.length > 0 && rows.every((row) => typed.includes(row.id));
  const slips = (row: SheetRow): readonly string[] => {
    const set = begun ? told.get(row.id.split('/').slice(0, 2).join('/')) : undefined;
    return set ? slipsAt(leg.served, set, typed.includes(row.id)) : [];
  };
  return (
    <section className="max-w-5xl">
      <h2 className="text-[1.25rem] leading-tight">
        Handover sheet: {move.domain} at {name}
      </h2>
      <p className="text-faded">
        {startWords(leg, host?.habits.begins.length ?? 0)} {styleSentence(host?.entry ?? null)}
      </p>
      {isRefused && (
        <div className="my-2 border-l-4 border-accent bg-shade px-3 py-1.5 print:hidden">
          <p>
            <b className="font-semibold">Was the domain added there?</b> All its nameservers refuse to answer for {move.domain}.
          </p>
          <WhereThere host={host} name={name} act="zone" domain={move.domain} may={may} />
        </div>
      )}
      {!isRefused && <WhereThere host={host} fresh={freshPlace(leg, 'planned DNS')} name={name} act="records" domain={move.domain} used={isUsed} may={may} />}
      {host && may && <AskedOfPanel host={host} questions={panelQuestions(host.entry, rows, move.domain)} />}
      {host && may && <Lessons host={host} lessons={leg.served?.lessons ?? []} />}
      <InVain warnings={rebuildsZone(leg) ? (host?.habits.warnings ?? []) : []} />
      <p className="mt-1 mb-3 flex flex-wrap gap-2 print:hidden">
        {may && <Button onClick={() => setPasting(true)}>Paste what the panel shows</Button>}
        {may && leg.shown && <Button onClick={() => forget.mutate({ sets: null }, { onError: fail })}>Forget what it showed</Button>}
        {!inPlace && !leg.isBack && (
          <Button onClick={() => saveFile(`${move.domain}.zone`, 'text/dns', planFile(Name.parse(`${move.domain}.`), leg.rulings.map(asRuling), panel))}>
            Save as a zone file
          </Button>
        )}
      </p>
      {!isRefused && (
        <div className="print:hidden">
          <StepNote
            step={stepIn(
              leg,
              leg.kind === 'repoint' && leg.seen.ts !== null ? 'changed' : leg.kind === 'delegation' && leg.served ? 'served' : inPlace ? 'changed' : 'push',
            )}
            leg={leg}
            move={move.id}
            may={may}
          />
        </div>
      )}
      <HandSheet
        rows={rows}
        typed={typed}
        onTick={may ? (row, typed) => mark.mutate({ row, typed }, { onError: fail }) : undefined}
        slips={slips}
        onGive={may ? () => setGiving(true) : undefined}
      />
      {pasting && <PanelDialog move={move} leg={leg} host={name} onClose={() => setPasting(false)} />}
      {giving && <SheetLinks leg={leg.id} sheet="records" now={now} onClose={() => setGiving(false)} />}
    </section>
  );
}

/** From where the sheet goes to the plan. */
function startWords({ isBack, shown, ...leg }: Pick<LedgerProps['leg'], 'kind' | 'account' | 'isBack' | 'shown'>, begins: number): string {
  if (shown) return `From what the panel showed: ${shown.length} record ${shown.length === 1 ? 'set' : 'sets'}.`;
  if (!rebuildsZone(leg) || isBack) return 'Only these rows: everything else in the zone stays as it is.';
  if (begins > 0) return `A zone begins there with ${begins} ${begins === 1 ? 'record' : 'records'}, which the sheet sets right.`;
  return 'The zone begins empty there; rows that the panel has made itself stay.';
}
