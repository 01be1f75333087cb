import { FirstPerson } from '@wanderon/contract';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../api';
import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { problemAt } from '../ui/problemAt';
import { Failed } from '../ui/states';
import { TideDrawing } from './tideDrawing';

const FIELDS = ['name', 'login', 'password'] as const;

/** The first page of a new installation: whoever started it makes the first account, an administrator's. */
export function Begin({ secret }: { secret: string }) {
  const [typed, setTyped] = useState<Pick<FirstPerson, 'login' | 'name' | 'password'>>({ name: '', login: '', password: '' });
  const begin = useMutation({
    mutationFn: async () => {
      await call('POST', '/api/begin', { ...typed, secret });
      await call('POST', '/api/sign-in', { login: typed.login.trim(), password: typed.password });
    },
    // Read anew, so that the link is in no history of this page and the session is known from the start.
    onSuccess: () => window.location.replace('/'),
  });
  const text = (field: (typeof FIELDS)[number]) => ({
    value: typed[field],
    onChange: (event: { target: { value: string } }) => setTyped({ ...typed, [field]: event.target.value }),
    problem: problemAt(begin.error, field),
  });
  return (
    <main className="flex min-h-screen flex-col">
      <div className="mx-auto w-full max-w-sm grow px-4 pt-[12vh]">
        <p className="text-[1.9rem] leading-none font-semibold">Wanderon</p>
        <p className="mt-2 mb-6 text-faded">
          Nobody has an account here yet. Yours is the first: as administrator you add the others, and can do everything they can.
        </p>
        <form
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            begin.mutate();
          }}
        >
          <Field label="Your name" autoFocus autoComplete="name" {...text('name')} />
          <Field label="Login" mono autoComplete="username" hint="Small letters, digits, dots, dashes or underscores." {...text('login')} />
          <Field label="Password" type="password" autoComplete="new-password" hint="At least 12 characters; a few words are good." {...text('password')} />
          {begin.error && !FIELDS.some((field) => problemAt(begin.error, field)) && (
            <>
              <Failed error={begin.error} />
              <p className="mb-2">
                <Link to="/" className="text-accent underline">
                  Sign in
                </Link>
              </p>
            </>
          )}
          <Button kind="main" type="submit" disabled={begin.isPending} className="mt-1 px-5 py-1.5">
            Make my account
          </Button>
        </form>
      </div>
      <TideDrawing />
    </main>
  );
}
