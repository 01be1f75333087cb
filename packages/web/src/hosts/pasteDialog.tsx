import { Find, readText } from '@wanderon/core';
import { useDeferredValue, useId, useMemo, useState } from 'react';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { inputLook } from '../ui/field';

/** Lines not understood that are shown: nobody reads more. */
const SHOWN = 60;
/** Finds that say the same are one. */
const keyOf = ({ kind, owner, type, data }: Find): string => `${kind}/${owner}/${type}/${data}`;

/** A host's page or mail, pasted: what it gives is shown with what was guessed, and nothing of it is taken unasked. */
export function PasteDialog({
  own,
  takes,
  onTake,
  onClose,
}: {
  own: readonly string[];
  /** Where a find goes, in words; undefined where there is no place for it here. */
  takes: (find: Find) => string | undefined;
  onTake: (finds: readonly Find[]) => void;
  onClose: () => void;
}) {
  const id = useId();
  const [text, setText] = useState('');
  const [changed, setChanged] = useState<ReadonlyMap<string, boolean>>(new Map());
  const pasted = useDeferredValue(text);
  const domains = own.join(' ');
  const { finds: all, unread } = useMemo(() => readText(pasted, { zone: undefined, as: 'new', own: domains.split(' ').filter(Boolean) }), [pasted, domains]);
  const finds = all.filter(({ kind }) => kind !== 'name');
  const isTaken = (find: Find): boolean => takes(find) !== undefined && (changed.get(keyOf(find)) ?? find.trust === 'sure');
  const taken = finds.filter(isTaken);
  return (
    <Dialog open onClose={onClose} title="Paste its page or mail" wide>
      <label htmlFor={id} className="mb-0.5 block text-faded">
        A table, a list, fields or sentences, as they stand there. Nothing is sent.
      </label>
      <textarea id={id} rows={6} autoFocus spellCheck={false} value={text} onChange={(event) => setText(event.target.value)} className={`${inputLook} mono`} />
      <div aria-live="polite" className="mt-2 max-h-[38vh] overflow-y-auto">
        {text.trim() !== '' && finds.length === 0 && <p className="py-1 text-faded">Nothing was found in it.</p>}
        <ul>
          {finds.map((find) => {
            const place = takes(find);
            return (
              <li key={keyOf(find)} className="border-b border-rule py-1">
                <label className={`grid grid-cols-[1.25rem_9rem_1fr_auto] items-baseline gap-2 ${place === undefined ? 'text-faded' : 'cursor-pointer'}`}>
                  <input
                    type="checkbox"
                    disabled={place === undefined}
                    checked={isTaken(find)}
                    onChange={(event) => setChanged(new Map([...changed, [keyOf(find), event.target.checked]]))}
                  />
                  <span className="mono break-words">
                    {find.kind === 'nameserver' ? 'nameserver' : find.kind === 'address' ? 'address' : `${find.owner} ${find.type}`}
                  </span>
                  <span className="mono min-w-0 break-words font-semibold">{find.data.replace(/\.$/, '')}</span>
                  <span className="text-sm text-faded">{place ?? 'no place for it here'}</span>
                </label>
                {find.questions.map((question) => (
                  <p key={question} className="ml-7 text-sm text-rust">
                    {question}
                  </p>
                ))}
              </li>
            );
          })}
        </ul>
        {unread.length > 0 && (
          <>
            <h3 className="smallcaps mt-2 border-b border-ink">Not understood</h3>
            <ul>
              {unread.slice(0, SHOWN).map((one) => (
                <li key={one.line} className="grid grid-cols-[3rem_1fr] gap-2 border-b border-rule py-0.5">
                  <span className="text-faded">line {one.line}</span>
                  <span className="mono break-words">{one.text}</span>
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
      <div className="mt-3 flex gap-2">
        <Button
          kind="main"
          disabled={taken.length === 0}
          onClick={() => {
            onTake(taken);
            onClose();
          }}
        >
          {taken.length === 0 ? 'Take these' : taken.length === 1 ? 'Take this one' : `Take these ${taken.length}`}
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Dialog>
  );
}
