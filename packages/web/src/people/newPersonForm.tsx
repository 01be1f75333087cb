import { NewPerson, Person, Role } from '@wanderon/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api';
import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { problemAt } from '../ui/problemAt';
import { Failed } from '../ui/states';
import { useToast } from '../ui/toast';
import { RoleField } from './roleField';

/** An account for somebody; its password is changed at first use. */
export function NewPersonForm({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const { say } = useToast();
  const [typed, setTyped] = useState<NewPerson>({ login: '', name: '', role: 'technician', password: '' });
  const add = useMutation({
    mutationFn: () => call<Person>('POST', '/api/people', typed),
    onSuccess: async (person) => {
      await queries.invalidateQueries({ queryKey: ['people'] });
      say(`${person.name} can sign in as ${person.login}.`);
      onDone();
    },
  });
  const text = (field: 'login' | 'name' | 'password') => ({
    value: typed[field],
    onChange: (event: { target: { value: string } }) => setTyped({ ...typed, [field]: event.target.value }),
    problem: problemAt(add.error, field),
  });
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate();
      }}
    >
      <Field label="Name" autoFocus autoComplete="off" {...text('name')} />
      <Field label="Login" mono autoComplete="off" hint="Small letters, digits, dots, dashes or underscores." {...text('login')} />
      <RoleField value={typed.role} onChange={(role: Role) => setTyped({ ...typed, role })} />
      <Field label="First password" autoComplete="off" mono hint="Tell it to them by another way; they change it when they use it." {...text('password')} />
      {add.error && !['login', 'name', 'password'].some((field) => problemAt(add.error, field)) && <Failed error={add.error} />}
      <Button kind="main" type="submit" disabled={add.isPending}>
        Add
      </Button>
    </form>
  );
}
