import { USUAL_FORM, registrarSheet, tickedOn } from '@wanderon/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useHosts, useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Copy, useCopying } from '../../ui/copy';
import { useToast } from '../../ui/toast';
import { useKeys } from '../../ui/useKeys';
import { ChapterProps } from '../movePlace';
import { RegistrarSteps } from '../sheet/registrarSteps';
import { SheetLinks } from '../sheet/sheetLinks';
import { freshPlace, placeHost, placeName } from '../where/placeHost';
import { WhereThere } from '../where/whereThere';

/** What to do at the registrar, in its page's order: one key copies the next name and moves on. Ticks are everybody's. */
export function RegistrarSheet({ move, leg, may, now }: Pick<ChapterProps, 'move' | 'leg' | 'may' | 'now'>) {
  const hosts = useHosts(move.id);
  const [giving, setGiving] = useState(false);
  const copying = useCopying();
  const { fail } = useToast();
  const mark = useMoveAction<{ sheet: 'registrar'; row: string; typed: boolean }>(move.id, 'POST', () => '/typed');
  const choose = useMoveAction<{ host: string }>(move.id, 'PUT', () => '/registrar');
  const registrars = (hosts.data ?? []).filter((host) => host.role === 'registrar');
  const host = placeHost(hosts.data ?? [], leg, 'registrar');
  const name = placeName(host, leg, 'registrar');
  const done = new Set(tickedOn('registrar', leg.ticks));
  const steps = registrarSheet(host?.form ?? USUAL_FORM, leg.newNameservers, leg.oldNameservers);
  const next = steps.flatMap(({ id, copy }) => (copy !== undefined && !done.has(id) ? [{ id, copy }] : []))[0];
  const tick = (row: string, typed: boolean): void => mark.mutate({ sheet: 'registrar', row, typed }, { onError: fail });
  const copyNext = async ({ id, copy }: { readonly id: string; readonly copy: string }): Promise<void> => {
    if ((await copying(copy, `${copy.split('\n')[0]!} is copied.`)) && may) tick(id, true);
  };
  useKeys({ y: () => next && copyNext(next) });
  return (
    <div>
      <h3 className="smallcaps flex items-baseline gap-3 border-b border-ink">
        <span>Handover sheet: {name}</span>
        {may && leg.registrar === null && registrars.length > 0 && (
          <select
            aria-label="Registrar"
            value={host?.id ?? ''}
            onChange={(event) => event.target.value !== '' && choose.mutate({ host: event.target.value }, { onError: fail })}
            className="border border-rule bg-sheet text-sm normal-case"
          >
            <option value="">Which registrar is it?</option>
            {registrars.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        )}
        {may && (
          <Button kind="quiet" className="ml-auto text-sm normal-case" onClick={() => setGiving(true)}>
            Give it to somebody
          </Button>
        )}
      </h3>
      <div className="pt-1.5">
        <WhereThere
          host={host}
          name={name}
          act="nameservers"
          domain={move.domain}
          used={steps.length > 0 && steps.every(({ id, isName }) => !isName || done.has(id))}
          may={may}
          fresh={freshPlace(leg, 'registrar')}
          onMade={(made) => choose.mutate({ host: made.id }, { onError: fail })}
        />
      </div>
      <p className="py-1.5">
        Set the nameservers of <span className="mono font-semibold">{move.domain}</span> <Copy value={move.domain} label="the domain" /> to exactly these{' '}
        {leg.newNameservers.length}. <span className="text-sm text-faded">y copies the next one.</span>
      </p>
      <RegistrarSteps steps={steps} done={done} onTick={may ? tick : undefined} />
      {host && !host.form && (
        <p className="border-t border-rule py-1 text-sm text-faded">
          Nothing is known of its page: this is how most are.{' '}
          <Link className="text-accent underline" to={`/hosts/${host.id}/change`}>
            Say how it is
          </Link>
        </p>
      )}
      {giving && <SheetLinks leg={leg.id} sheet="registrar" now={now} onClose={() => setGiving(false)} />}
    </div>
  );
}
