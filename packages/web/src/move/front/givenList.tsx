import { FrontView } from '@wanderon/contract';
import { givenKey, plain } from '@wanderon/core';

type Item = FrontView['items'][number];

/** What was given, a line each: what it is taken for, the line that it stood in, and a tick that says otherwise. Questions come first. */
export function GivenList({
  items,
  marked,
  lineOf,
  onMark,
  onSay,
  onForget,
}: {
  items: readonly Item[];
  marked: string | undefined;
  /** The line that it stood in. */
  lineOf: (key: string) => string | undefined;
  onMark: (key: string | undefined) => void;
  onSay: (key: string, taken: boolean) => void;
  /** Takes out what was typed or kept; undefined where it stands in the text. */
  onForget: (key: string) => (() => void) | undefined;
}) {
  const order = (item: Item): number => (item.question !== null && item.taken === undefined ? 0 : item.use === 'none' ? 2 : 1);
  return (
    <ul aria-label="What was understood">
      {[...items]
        .sort((a, b) => order(a) - order(b))
        .map((item) => {
          const key = givenKey(item);
          const shown = item.kind === 'record' ? `${item.owner} ${item.type}` : '';
          const forget = onForget(key);
          return (
            <li
              key={key}
              className={`grid grid-cols-[1.25rem_minmax(0,1fr)_auto] items-baseline gap-x-2 border-b border-rule py-0.5 ${marked === key ? 'bg-tint' : ''}`}
              title={lineOf(key)}
              onMouseEnter={() => onMark(key)}
              onFocus={() => onMark(key)}
              onMouseLeave={() => onMark(undefined)}
            >
              <input
                type="checkbox"
                aria-label={`Take ${shown} ${item.data}`}
                disabled={item.use === 'none'}
                checked={item.isTaken}
                onChange={(event) => onSay(key, event.target.checked)}
              />
              <span className={`min-w-0 ${item.isTaken ? '' : 'text-faded'}`}>
                {shown !== '' && <span className="mono">{shown} </span>}
                <span className="mono font-semibold [overflow-wrap:anywhere]">{shortened(plain(item.data))}</span>
                <span className="text-sm text-faded"> · {item.words}</span>
              </span>
              {forget ? (
                <button type="button" className="text-sm text-faded hover:text-rust" aria-label={`Take out ${item.data}`} onClick={forget}>
                  take out
                </button>
              ) : (
                <span />
              )}
              {item.question !== null && (
                <span className={`col-start-2 text-sm ${item.taken === undefined ? 'text-rust' : 'text-faded'}`}>{item.question}</span>
              )}
            </li>
          );
        })}
    </ul>
  );
}

/** Characters of a value that are shown; a longer one is shortened in its middle. */
const LONGEST = 60;

function shortened(value: string): string {
  return value.length <= LONGEST ? value : `${value.slice(0, LONGEST - 20)} … ${value.slice(-16)}`;
}
