import { Me } from '@wanderon/contract';
import { ReactNode } from 'react';
import { useToast } from '../ui/toast';
import { FactorForm } from './factorForm';
import { PasswordForm } from './passwordForm';
import { Sessions } from './sessions';

/** What somebody does about their own account. */
export function AccountPlace({ me }: { me: Me }) {
  const { say } = useToast();
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <h1>{me.name}</h1>
      <p className="mb-5 text-faded">
        Signed in as <span className="mono">{me.login}</span>, {me.role}.
      </p>
      <div className="grid grid-cols-2 gap-x-12 max-lg:grid-cols-1 [&_form]:max-w-md">
        <Part title="Password">
          <PasswordForm kind="plain" onDone={() => say('The password was changed; your other sessions have ended.')} />
        </Part>
        <Part title="Second factor">
          <FactorForm me={me} />
        </Part>
      </div>
      <Part title="Where you are signed in">
        <Sessions />
      </Part>
    </div>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mb-7">
      <h2 className="smallcaps mb-2 border-b border-ink pb-0.5">{title}</h2>
      {children}
    </section>
  );
}
