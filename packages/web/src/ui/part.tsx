import { ComponentType, useEffect, useState } from 'react';
import { ProblemError } from '../problemError';
import { reloadIfNewer } from '../newerProgram';
import { Failed, Loading } from './states';

/**
 * A part of the program that is read when it is first shown. Where it cannot be read the rest of the page stands, with what waits there for
 * its answer, and it is read again on request: `what` is being read meanwhile.
 */
export function part<P extends object>(what: string, read: () => Promise<ComponentType<P>>): ComponentType<P> {
  let known: ComponentType<P> | undefined;
  return function Part(props: P) {
    const [state, setState] = useState<'reading' | 'read' | 'failed'>('reading');
    useEffect(() => {
      if (known || state !== 'reading') return;
      read().then(
        (component) => {
          known = component;
          setState('read');
        },
        () => {
          setState('failed');
          void reloadIfNewer();
        },
      );
    }, [state]);
    if (known) {
      const Known = known;
      return <Known {...props} />;
    }
    return state === 'failed' ? <Failed error={UNREAD} retry={() => setState('reading')} /> : <Loading what={what} />;
  };
}

const UNREAD = new ProblemError({
  type: 'about:blank',
  title: 'This part of Wanderon could not be read.',
  status: 0,
  detail: 'Check the connection and try again.',
  kept: 'Nothing was changed.',
});
