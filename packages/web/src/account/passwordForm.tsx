import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api';
import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { problemAt } from '../ui/problemAt';
import { Failed } from '../ui/states';

/** A new password of one's own. What is wrong is said at its field by the server, which knows the common ones. */
export function PasswordForm({ kind = 'main', onDone }: { kind?: 'main' | 'plain'; onDone?: () => void }) {
  const queries = useQueryClient();
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const [again, setAgain] = useState('');
  const [differs, setDiffers] = useState(false);
  const change = useMutation({
    mutationFn: () => call('PUT', '/api/me/password', { current, password }),
    onSuccess: async () => {
      for (const clear of [setCurrent, setPassword, setAgain]) clear('');
      await queries.invalidateQueries({ queryKey: ['me'] });
      onDone?.();
    },
  });
  const at = (field: string): string | undefined => problemAt(change.error, field);
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        setDiffers(password !== again);
        if (password === again) change.mutate();
      }}
    >
      <Field
        label="Password that you have now"
        type="password"
        autoComplete="current-password"
        value={current}
        onChange={(event) => setCurrent(event.target.value)}
        problem={at('current')}
      />
      <Field
        label="New password"
        type="password"
        autoComplete="new-password"
        value={password}
        onChange={(event) => setPassword(event.target.value)}
        hint="At least 12 characters; several words are good."
        problem={at('password')}
      />
      <Field
        label="New password, again"
        type="password"
        autoComplete="new-password"
        value={again}
        onChange={(event) => setAgain(event.target.value)}
        problem={differs ? 'The two are not the same.' : undefined}
      />
      {change.error && !at('current') && !at('password') && <Failed error={change.error} />}
      <Button kind={kind} type="submit" disabled={change.isPending}>
        Change the password
      </Button>
    </form>
  );
}
