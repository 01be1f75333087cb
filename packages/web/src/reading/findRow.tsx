import { Find } from '@wanderon/core';
import { KeyboardEvent } from 'react';
import { PastedText } from './pastedText';

/** One find: taken or left with a tick or a key, its value as it was understood, what is asked about it, and the other ways to read it. */
export function FindRow({ find, pasted, isMarked, onMark }: { find: Find; pasted: PastedText; isMarked: boolean; onMark: () => void }) {
  const said = pasted.saidOf(find);
  const served = pasted.servedOf(find);
  const isTaken = pasted.isTaken(find);
  const shown = typeof said === 'number' ? { ...find, ...find.others[said] } : find;
  const name = find.kind === 'address' ? 'address' : find.kind === 'nameserver' ? 'nameserver' : shown.owner;
  const key = (event: KeyboardEvent): void => {
    const other = Number(event.key) - 2;
    if (event.key === 'y' || event.key === '1') pasted.say([find], 'take');
    else if (event.key === 'n') pasted.say([find], 'leave');
    else if (other >= 0 && other < find.others.length) pasted.say([find], other);
    else return;
    event.preventDefault();
  };
  return (
    <li
      className={`grid grid-cols-[1.25rem_minmax(6rem,10rem)_4rem_1fr] items-baseline gap-x-2 border-b border-rule px-1 py-0.5 ${isMarked ? 'bg-tint' : ''}`}
      onMouseEnter={onMark}
      onFocus={onMark}
      onKeyDown={key}
      data-line={find.line}
    >
      <input
        type="checkbox"
        aria-label={`Take ${name} ${find.type} of line ${find.line}`}
        checked={isTaken}
        onChange={(event) => pasted.say([find], event.target.checked ? 'take' : 'leave')}
      />
      <span className="mono break-words font-semibold">{name}</span>
      <span className="mono">{find.kind === 'record' ? find.type : ''}</span>
      <span className={`mono min-w-0 break-words ${isTaken ? '' : 'text-faded'}`}>{shown.data}</span>
      {served?.is === 'other' && find.trust !== 'out' && (
        <span className="col-span-3 col-start-2 text-sm text-rust">
          {find.data === '' ? 'The server gives' : 'The server gives something else:'} <span className="mono break-words">{served.data.join(', ')}</span>
        </span>
      )}
      {find.trust === 'ask' && served?.is === 'same' && (
        <span className="col-span-3 col-start-2 text-sm text-faded">The server gives this value. {find.questions.join(' ')}</span>
      )}
      {find.trust === 'ask' && served?.is !== 'same' && (
        <span className="col-span-3 col-start-2 text-sm">
          {find.questions.map((question) => (
            <span key={question} className="block text-rust">
              {question}
            </span>
          ))}
          {find.others.map((other, index) => (
            <button
              key={`${other.owner} ${other.data}`}
              type="button"
              aria-pressed={said === index}
              className={`mr-3 text-left text-accent hover:underline ${said === index ? 'font-semibold' : ''}`}
              onClick={() => pasted.say([find], index)}
            >
              {index + 2}: <span className="mono">{`${other.owner} ${find.type} ${other.data}`.trim()}</span>
            </button>
          ))}
        </span>
      )}
    </li>
  );
}
