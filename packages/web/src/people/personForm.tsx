import { EditPerson, Me, Person } from '@wanderon/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { ReactNode, useState } from 'react';
import { call } from '../api';
import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { problemAt } from '../ui/problemAt';
import { Failed } from '../ui/states';
import { useToast } from '../ui/toast';
import { RoleField } from './roleField';

/** What an administrator can do about somebody's account. What weakens it or shuts it ends their sessions, and is said beforehand. */
export function PersonForm({ person, me, onDone }: { person: Person; me: Me; onDone: () => void }) {
  const queries = useQueryClient();
  const { say } = useToast();
  const { name, role, disabled, demanded } = person;
  const [typed, setTyped] = useState<EditPerson>({ name, role, disabled, demanded });
  const [password, setPassword] = useState('');
  const done = async (words: string): Promise<void> => {
    await Promise.all(['people', 'me'].map((key) => queries.invalidateQueries({ queryKey: [key] })));
    say(words);
    onDone();
  };
  const save = useMutation({ mutationFn: () => call('PUT', `/api/people/${person.id}`, typed), onSuccess: () => done(`${typed.name}: saved.`) });
  const give = useMutation({
    mutationFn: () => call('PUT', `/api/people/${person.id}/password`, { password }),
    onSuccess: () => done(`${name} has a new password, and changes it at first use.`),
  });
  const out = useMutation({
    mutationFn: () => call<{ ended: number }>('POST', `/api/people/${person.id}/sign-out`),
    onSuccess: ({ ended }) => done(`${name} was signed out${ended === 1 ? '' : ` of ${ended} sessions`}.`),
  });
  const take = useMutation({
    mutationFn: () => call('DELETE', `/api/people/${person.id}/second-factor`),
    onSuccess: () => done(`${name} has no second factor any more.`),
  });
  const weak = problemAt(give.error, 'password');
  const ends = typed.role !== role || (typed.disabled && !disabled) || (typed.demanded && !demanded && !person.factor);
  return (
    <>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <Field label="Name" autoComplete="off" value={typed.name} onChange={(event) => setTyped({ ...typed, name: event.target.value })} />
        <RoleField value={typed.role} onChange={(wanted) => setTyped({ ...typed, role: wanted })} />
        <Choice checked={typed.demanded} onChange={(wanted) => setTyped({ ...typed, demanded: wanted })}>
          Ask for a second factor
        </Choice>
        <Choice checked={typed.disabled} onChange={(wanted) => setTyped({ ...typed, disabled: wanted })}>
          Shut the account: nobody signs in with it; what they did stays on record
        </Choice>
        {save.error && <Failed error={save.error} />}
        <div className="mt-3 flex items-baseline gap-3">
          <Button kind="main" type="submit" disabled={save.isPending}>
            Save
          </Button>
          {ends && <span className="text-sm text-faded">{person.id === me.id ? 'Your other sessions end.' : 'Their sessions end.'}</span>}
        </div>
      </form>
      {person.id !== me.id && (
        <form
          className="mt-5 border-t border-rule pt-3"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            give.mutate();
          }}
        >
          <Field
            label="New password"
            mono
            autoComplete="off"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
            hint="Their sessions end; they change it when they use it."
            problem={weak}
          />
          {give.error && !weak && <Failed error={give.error} />}
          <Button type="submit" disabled={give.isPending || password === ''}>
            Give it
          </Button>
        </form>
      )}
      <div className="mt-5 flex flex-wrap items-center gap-3 border-t border-rule pt-3">
        <Button disabled={out.isPending || person.sessions === 0} onClick={() => out.mutate()}>
          Sign out everywhere
        </Button>
        {person.factor && person.id !== me.id && (
          <Button disabled={take.isPending} onClick={() => take.mutate()}>
            Take the second factor off
          </Button>
        )}
        {[out.error, take.error].map((error, index) => error && <Failed key={index} error={error} />)}
      </div>
    </>
  );
}

function Choice({ checked, onChange, children }: { checked: boolean; onChange: (checked: boolean) => void; children: ReactNode }) {
  return (
    <label className="mb-1.5 flex items-baseline gap-2">
      <input type="checkbox" checked={checked} onChange={(event) => onChange(event.target.checked)} />
      <span>{children}</span>
    </label>
  );
}
