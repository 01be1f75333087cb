import { SiteInput } from '@wanderon/contract';
import { useState } from 'react';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';
import { Failed } from '../../ui/states';
import { ChapterProps } from '../movePlace';

/** At which spelling visitors are to end, and where the site stands until the domain leads to it: what the look at it is held against. */
export function SiteWishes({ move, may }: { move: ChapterProps['move']; may: boolean }) {
  const [moving, setMoving] = useState(false);
  const wish = useMoveAction<SiteInput>(move.id, 'PUT', () => '/site');
  const { site, settled } = move.watch!;
  const { main, provisional, spellings, forms } = site;
  if (spellings.length === 0) return null;
  const open = may && !settled && move.state === 'open';
  const say = (change: Partial<SiteInput>): void => wish.mutate({ main, provisional, ...change }, { onSuccess: () => setMoving(false) });
  return (
    <div className="grid grid-cols-[7rem_minmax(0,1fr)] gap-y-1 border-y border-rule py-1.5">
      {spellings.length > 1 && (
        <>
          <span className="text-faded">Main spelling</span>
          <p className="flex flex-wrap items-baseline gap-x-4">
            {open
              ? [...spellings, null].map((one) => (
                  <button
                    key={one ?? ''}
                    type="button"
                    aria-pressed={main === one}
                    disabled={wish.isPending}
                    onClick={() => say({ main: one })}
                    className={`min-h-[24px] cursor-pointer ${one === null ? '' : 'mono'} ${main === one ? 'font-semibold underline decoration-accent decoration-2 underline-offset-4' : 'text-faded hover:text-ink'}`}
                  >
                    {one ?? 'not said'}
                  </button>
                ))
              : (main ?? 'not said')}
          </p>
        </>
      )}
      <span className="text-faded">Beforehand at</span>
      <div className="flex flex-wrap items-baseline gap-x-4">
        {moving ? (
          <ProvisionalForm at={provisional ?? forms} busy={wish.isPending} onSay={(name) => say({ provisional: name })} onLeave={() => setMoving(false)} />
        ) : (
          <>
            {provisional === null ? (
              <span className="text-faded">not said</span>
            ) : (
              <a href={`https://${provisional}/`} target="_blank" rel="noreferrer" className="mono text-accent underline [overflow-wrap:anywhere]">
                {provisional}
              </a>
            )}
            {open && (
              <Button kind="quiet" className="-my-1 px-0" onClick={() => setMoving(true)}>
                {provisional === null ? 'Say where' : 'Change'}
              </Button>
            )}
          </>
        )}
      </div>
      {wish.isError && (
        <div className="col-span-2">
          <Failed error={wish.error} />
        </div>
      )}
    </div>
  );
}

function ProvisionalForm({ at, busy, onSay, onLeave }: { at: string | null; busy: boolean; onSay: (name: string | null) => void; onLeave: () => void }) {
  const [name, setName] = useState(at ?? '');
  return (
    <form
      className="flex grow flex-wrap items-baseline gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onSay(name.trim() === '' ? null : name.trim());
      }}
    >
      <input
        aria-label="Provisional address of the site"
        autoFocus
        spellCheck={false}
        placeholder="the name that the web host gave the site"
        value={name}
        onChange={(event) => setName(event.target.value)}
        className={`${inputLook} mono max-w-80 grow py-0.5`}
      />
      <Button type="submit" disabled={busy}>
        {name.trim() === '' ? 'There is none' : 'It is there'}
      </Button>
      <Button kind="quiet" onClick={onLeave}>
        Leave it
      </Button>
    </form>
  );
}
