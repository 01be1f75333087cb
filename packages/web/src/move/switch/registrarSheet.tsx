import { RegistrarStep, USUAL_FORM, registrarSheet } from '@wanderon/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useHosts } from '../../api';
import { useKeys } from '../../ui/useKeys';
import { Copy, useCopying } from '../../ui/copy';
import { ChapterProps } from '../movePlace';

/** What to do at the registrar, in its page's order: one key copies the next name and moves on. Ticks are one's own. */
export function RegistrarSheet({ move, leg }: Pick<ChapterProps, 'move' | 'leg'>) {
  const hosts = useHosts(move.id);
  const [chosen, setChosen] = useState('');
  const [done, setDone] = useState<ReadonlySet<string>>(new Set());
  const copying = useCopying();
  const registrars = (hosts.data ?? []).filter((host) => host.role === 'registrar');
  const named = registrars.find((host) => host.name.toLowerCase() === leg.registrar?.toLowerCase());
  const host = registrars.find((one) => one.id === chosen) ?? named ?? (leg.registrar === null && registrars.length === 1 ? registrars[0] : undefined);
  const steps = registrarSheet(host?.form ?? USUAL_FORM, leg.newNameservers, leg.oldNameservers);
  const next = steps.flatMap(({ id, copy }) => (copy !== undefined && !done.has(id) ? [{ id, copy }] : []))[0];
  const tick = (step: RegistrarStep): void => {
    const ticked = new Set(done);
    if (!ticked.delete(step.id)) ticked.add(step.id);
    setDone(ticked);
  };
  const copyNext = async ({ id, copy }: { readonly id: string; readonly copy: string }): Promise<void> => {
    if (await copying(copy, `${copy.split('\n')[0]!} is copied.`)) setDone((before) => new Set([...before, id]));
  };
  useKeys({ y: () => next && copyNext(next) });
  return (
    <div>
      <h3 className="smallcaps flex items-baseline gap-3 border-b border-ink">
        <span>Handover sheet: {host?.name ?? leg.registrar ?? 'registrar'}</span>
        {leg.registrar === null && registrars.length > 1 && (
          <select
            aria-label="Registrar"
            value={host?.id ?? ''}
            onChange={(event) => setChosen(event.target.value)}
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
      </h3>
      <p className="py-1.5">
        Set the nameservers of <span className="mono font-semibold">{move.domain}</span> <Copy value={move.domain} label="the domain" /> to exactly these{' '}
        {leg.newNameservers.length}. <span className="text-sm text-faded">y copies the next one.</span>
      </p>
      <ol>
        {steps.map((step) => (
          <li key={step.id} className="grid grid-cols-[1.25rem_1fr] items-baseline gap-3 border-t border-rule py-1">
            <input
              type="checkbox"
              aria-label={step.copy && step.isName ? `${step.copy} is typed` : step.text}
              checked={done.has(step.id)}
              onChange={() => tick(step)}
            />
            <div className={done.has(step.id) ? 'text-faded' : ''}>
              {step.copy !== undefined && (
                <span className={`mono text-[1rem] whitespace-pre-line ${done.has(step.id) ? 'line-through' : 'font-semibold'}`}>
                  {step.copy} <Copy value={step.copy} label={step.copy} />
                </span>
              )}
              <span className={step.copy !== undefined && step.id !== 'list' ? 'ml-2 text-sm text-faded' : 'block'}>{step.text}</span>
            </div>
          </li>
        ))}
      </ol>
      {host && !host.form && (
        <p className="border-t border-rule py-1 text-sm text-faded">
          Nothing is known of its page: this is how most are.{' '}
          <Link className="text-accent underline" to={`/hosts/${host.id}/change`}>
            Say how it is
          </Link>
        </p>
      )}
    </div>
  );
}
