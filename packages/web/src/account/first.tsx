import { Me } from '@wanderon/contract';
import { useQueryClient } from '@tanstack/react-query';
import { call } from '../api';
import { Button } from '../ui/button';
import { FactorForm } from './factorForm';
import { PasswordForm } from './passwordForm';

/**
 * What has to be done before anything else: a password that was given is changed, a second factor that is asked for is set up.
 * `onCodes`: recovery codes are shown, which nobody can be shown again.
 */
export function FirstThings({ me, onCodes }: { me: Me; onCodes: (shown: boolean) => void }) {
  const queries = useQueryClient();
  const signOut = async (): Promise<void> => {
    await call('POST', '/api/sign-out');
    await queries.invalidateQueries();
  };
  const [title, reason] =
    me.must === 'password'
      ? ['Choose a password of your own', 'The one that you signed in with was given to you, and somebody else knows it.']
      : ['Set up a second factor', 'An administrator asks for one: a code of an app, beside the password.'];
  return (
    <main className="mx-auto w-full max-w-md px-4 pt-[12vh] pb-8">
      <p className="mb-6 text-faded">
        Wanderon, signed in as <span className="mono">{me.login}</span>
      </p>
      <h1>{title}</h1>
      <p className="mb-5">{reason}</p>
      {me.must === 'password' ? <PasswordForm /> : <FactorForm me={me} onCodes={onCodes} />}
      <p className="mt-8 border-t border-rule pt-2">
        <Button kind="quiet" className="-ml-1.5" onClick={() => void signOut()}>
          Sign out
        </Button>
      </p>
    </main>
  );
}
