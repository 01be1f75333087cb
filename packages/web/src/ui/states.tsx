import { ReactNode } from 'react';
import { Link } from 'react-router';
import { ProblemError } from '../api';
import { Button } from './button';

export function Loading({ what }: { what: string }) {
  return <p className="py-6 text-faded" role="status">{`Reading ${what} …`}</p>;
}

export function Failed({ error, retry }: { error: unknown; retry?: () => void }) {
  const problem = error instanceof ProblemError ? error.problem : undefined;
  return (
    <div role="alert" className="my-3 border-l-4 border-rust bg-shade px-3 py-2">
      <p className="font-semibold">{problem?.title ?? 'Something went wrong.'}</p>
      {(problem?.detail || problem?.kept) && <p>{[problem.detail, problem.kept].filter(Boolean).join(' ')}</p>}
      {problem?.move && (
        <p>
          <Link to={`/moves/${problem.move}`} className="text-accent underline">
            Open that move
          </Link>
        </p>
      )}
      {retry && (
        <Button kind="quiet" onClick={retry} className="mt-1">
          Try again
        </Button>
      )}
    </div>
  );
}

export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="border-y border-rule py-8 text-center">
      <p className="text-lg">{title}</p>
      {children && <div className="mt-1 text-faded">{children}</div>}
    </div>
  );
}
