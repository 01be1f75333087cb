import { LegView, MoveView } from '@wanderon/contract';
import { FormEvent, useState } from 'react';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';
import { useToast } from '../../ui/toast';

interface Given {
  readonly registrar: string | null;
  readonly expires: number | null;
  readonly locked: boolean | null;
}

const LOCKS = [
  { value: '', label: 'not looked at yet' },
  { value: 'no', label: 'no' },
  { value: 'yes', label: 'yes, changes are locked' },
] as const;

type Lock = (typeof LOCKS)[number]['value'];
const lockOf = (locked: boolean | null): Lock => (locked === null ? '' : locked ? 'yes' : 'no');
const dayOf = (at: number | null): string => (at === null ? '' : new Date(at * 1000).toISOString().slice(0, 10));

/** What the registrar shows of the domain, said by a person where no registry tells it: a lock, or an end that is near, stops the change. */
export function RegistrationGiven({ move, leg, may }: { move: MoveView; leg: LegView; may: boolean }) {
  const given = leg.givenRegistration;
  const save = useMoveAction<Given>(move.id, 'PUT', () => '/registration');
  const { fail, say } = useToast();
  const [registrar, setRegistrar] = useState(given?.registrar ?? leg.registrar ?? '');
  const [expires, setExpires] = useState(dayOf(given?.expires ?? null));
  const [locked, setLocked] = useState<Lock>(lockOf(given?.locked ?? null));
  // Whether a registry tells of it is known once it was asked.
  if (leg.registrationSeen || leg.looked.drift === undefined || !may) return null;
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    const until = expires === '' ? null : Date.parse(`${expires}T00:00:00Z`) / 1000;
    save.mutate(
      { registrar: registrar.trim() || null, expires: until, locked: locked === '' ? null : locked === 'yes' },
      { onError: fail, onSuccess: () => say('Noted.') },
    );
  };
  return (
    <form onSubmit={submit} aria-label="The registration" className="mt-5">
      <h3 className="smallcaps border-b border-ink">The registration</h3>
      <p className="py-1 text-sm text-faded">No registry tells of it. What does the registrar show?</p>
      <div className="flex flex-wrap items-end gap-3">
        <label>
          <span className="block text-sm text-faded">Registrar</span>
          <input value={registrar} onChange={(event) => setRegistrar(event.target.value)} className={`${inputLook} max-w-48`} />
        </label>
        <label>
          <span className="block text-sm text-faded">It ends on</span>
          <input type="date" value={expires} onChange={(event) => setExpires(event.target.value)} className={inputLook} />
        </label>
        <label>
          <span className="block text-sm text-faded">Is it locked?</span>
          <select value={locked} onChange={(event) => setLocked(event.target.value as typeof locked)} className={inputLook}>
            {LOCKS.map(({ value, label }) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <Button type="submit" disabled={save.isPending}>
          {given ? 'Change it' : 'Note it'}
        </Button>
      </div>
    </form>
  );
}
