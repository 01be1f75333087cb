import { otherSets, readNameserverSet, typedServers } from '@wanderon/core';
import { useId, useState } from 'react';
import { useHosts } from '../../api';
import { inputLook } from '../../ui/field';
import { ChapterProps } from '../movePlace';

/** What stands in the registrar's form, pasted back before it is saved: each slip is named while there is time. */
export function CheckForm({ move, leg }: Pick<ChapterProps, 'move' | 'leg'>) {
  const id = useId();
  const hosts = useHosts(move.id);
  const [text, setText] = useState('');
  const fields = typedServers(text);
  const known = { wanted: leg.newNameservers, old: leg.oldNameservers };
  const others = otherSets(hosts.data ?? [], known);
  const read = readNameserverSet({ zone: move.domain, ...known, others }, fields);
  return (
    <div className="border-t border-rule py-2">
      <label htmlFor={id} className="font-semibold">
        Before you save: paste the form back
      </label>
      <p id={`${id}-help`} className="mb-1 text-sm text-faded">
        Copy the form as it stands there, labels and all. Nothing is sent.
      </p>
      <textarea
        id={id}
        aria-describedby={`${id}-help`}
        rows={Math.min(6, Math.max(2, fields.length + 1))}
        spellCheck={false}
        value={text}
        onChange={(event) => setText(event.target.value)}
        className={`${inputLook} mono`}
      />
      <div aria-live="polite">
        {fields.length > 0 && (
          <p className={`pt-1 font-semibold ${read.asPlanned && read.slips.length === 0 ? '' : 'text-rust'}`}>{words(read, leg.newNameservers.length)}</p>
        )}
        {fields.length > 0 && !read.unchanged && (
          <ul>
            {read.slips.map((slip, index) => (
              <li key={`${index} ${slip.text}`} className="border-b border-rule py-0.5 break-words">
                {slip.text}
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}

function words({ asPlanned, unchanged, slips }: ReturnType<typeof readNameserverSet>, wanted: number): string {
  if (unchanged) return 'These are the names from before: nothing was typed yet.';
  if (asPlanned && slips.length === 0) return wanted === 2 ? 'As planned: these two, and no other.' : `As planned: these ${wanted}, and no other.`;
  if (asPlanned) return 'The names are right; how they are written is not.';
  return `Do not save it like this: ${slips.length === 1 ? 'one thing is' : `${slips.length} things are`} wrong.`;
}
