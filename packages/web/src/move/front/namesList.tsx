import { FrontView } from '@wanderon/contract';
import { listWords, plain } from '@wanderon/core';

/** The names that show the website now, each with what it leads to and by the plan will; ticked where it goes along. */
export function NamesList({ front, disabled, onTick }: { front: FrontView; disabled: boolean; onTick: (owner: string, moves: boolean) => void }) {
  const { names, moreNames } = front;
  const isKnown = front.web !== null;
  if (names.length === 0) return <p className="text-faded">No name leads to a website now.</p>;
  return (
    <ul className="columns-2 gap-x-8 max-lg:columns-1" aria-label="Names that show the website now">
      {names.map((name) => (
        <li key={name.owner} className="break-inside-avoid border-b border-rule py-0.5">
          <label className={`grid grid-cols-[1.25rem_minmax(0,1fr)] items-baseline gap-x-2 ${name.isFree ? 'cursor-pointer' : ''}`}>
            <input
              type="checkbox"
              disabled={disabled || !name.isFree || !isKnown}
              checked={isKnown && name.moves}
              onChange={(event) => onTick(name.owner, event.target.checked)}
            />
            <span className="min-w-0 leading-snug">
              <span className="mono font-semibold [overflow-wrap:anywhere]">{name.owner}</span>{' '}
              <span className="mono text-faded [overflow-wrap:anywhere]">{some(name.now)}</span>
              {name.moves && name.isFree && name.then.length > 0 && name.then.join() !== name.now.join() && (
                <span className="mono [overflow-wrap:anywhere]"> → {some(name.then)}</span>
              )}
              {isKnown && (!name.moves || !name.isFree) && <span className="text-sm text-faded"> · {name.moves ? name.why : `stays: ${name.why}`}</span>}
            </span>
          </label>
        </li>
      ))}
      {moreNames > 0 && <li className="py-1 text-faded">and {moreNames} more, which go as these do</li>}
    </ul>
  );
}

function some(values: readonly string[]): string {
  const shown = values.map(plain);
  return shown.length <= 2 ? listWords(shown) : `${shown[0]} and ${shown.length - 1} more`;
}
