import { signInSchema } from '@wanderon/contract';
import { useQueryClient } from '@tanstack/react-query';
import { FormEvent, useState } from 'react';
import { ProblemError, call } from '../api';
import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { Failed } from '../ui/states';
import { TideDrawing } from './tideDrawing';

export function SignIn() {
  const queries = useQueryClient();
  const [login, setLogin] = useState('');
  const [password, setPassword] = useState('');
  // Asked for once login and password are right, where the account has a second factor.
  const [code, setCode] = useState<string>();
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [error, setError] = useState<unknown>();
  const [busy, setBusy] = useState(false);

  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const read = signInSchema.safeParse({ login, password, ...(code === undefined ? {} : { code }) });
    setProblems(read.success ? {} : Object.fromEntries(read.error.issues.map((issue) => [String(issue.path[0]), issue.message])));
    if (!read.success) return;
    setBusy(true);
    try {
      await call('POST', '/api/sign-in', read.data);
      await queries.invalidateQueries();
    } catch (failure) {
      const asksForCode = failure instanceof ProblemError && failure.problem.needsCode === true;
      // Asking is no refusal: that a code is needed is seen by its field.
      setError(asksForCode && code === undefined ? undefined : failure);
      setCode(asksForCode ? '' : undefined);
      if (!asksForCode) setPassword('');
    } finally {
      setBusy(false);
    }
  };

  return (
    <main className="flex min-h-screen flex-col">
      <div className="mx-auto w-full max-w-sm grow px-4 pt-[16vh]">
        <p className="text-[1.9rem] leading-none font-semibold">Wanderon</p>
        <p className="mt-2 mb-7 text-faded">Moves a domain to its new hosts without losing a record, a message or a visitor.</p>
        <form onSubmit={(event) => void submit(event)} noValidate>
          <Field label="Login" autoFocus autoComplete="username" value={login} onChange={(event) => setLogin(event.target.value)} problem={problems['login']} />
          <Field
            label="Password"
            type="password"
            autoComplete="current-password"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
            problem={problems['password']}
          />
          {code !== undefined && (
            <Field
              label="Code"
              mono
              autoFocus
              inputMode="numeric"
              autoComplete="one-time-code"
              hint="What your app for codes shows now, or a recovery code."
              value={code}
              onChange={(event) => setCode(event.target.value)}
            />
          )}
          {error !== undefined && <Failed error={error} />}
          <Button kind="main" type="submit" disabled={busy} className="mt-1 px-5 py-1.5">
            Sign in
          </Button>
        </form>
      </div>
      <TideDrawing />
    </main>
  );
}
