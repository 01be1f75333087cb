import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';
import { ONLY, Only } from './rowViews';
import { LedgerRows } from './useLedgerRows';

const ONLY_WORDS: Readonly<Record<Only, string>> = { all: 'every row', changing: 'what changes', remarks: 'with remarks', unserved: 'not served yet' };

interface Props {
  readonly shown: LedgerRows;
  /** Makes a rule of the filter; undefined where none can be made. */
  readonly onRule: (() => void) | undefined;
  readonly mayRule: boolean;
  readonly remarks: number;
  readonly isFronting: boolean;
}

/** Which rows the ledger shows, and the keys that rule them. */
export function LedgerBar({ shown, onRule, mayRule, remarks, isFronting }: Props) {
  const { filter, only, by, marks } = shown;
  return (
    <div className="flex items-center gap-3 pb-1 max-md:flex-wrap">
      <input
        aria-label="Filter the plan"
        placeholder="name, type, value, range"
        value={filter}
        onChange={(event) => shown.setFilter(event.target.value)}
        className={`${inputLook} max-w-56 shrink-0 py-0.5`}
      />
      {onRule && filter.trim() !== '' && (
        <Button kind="quiet" onClick={onRule} title="R">
          Rule all like this
        </Button>
      )}
      <div role="group" aria-label="Show" className="flex shrink-0 gap-3">
        {ONLY.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={only === one}
            onClick={() => shown.setOnly(one)}
            className={`cursor-pointer ${only === one ? 'font-semibold underline decoration-accent decoration-2 underline-offset-4' : 'text-faded hover:text-ink'}`}
          >
            {ONLY_WORDS[one]}
          </button>
        ))}
      </div>
      <button type="button" onClick={shown.regroup} title="g" className="shrink-0 cursor-pointer text-faded hover:text-ink">
        group by {by === 'name' ? 'purpose' : 'name'}
      </button>
      {mayRule && marks.length > 0 && (
        <span role="status" className="ml-auto min-w-0 truncate text-sm">
          <b className="font-semibold text-accent">{marks.length} marked</b>{' '}
          <span className="text-faded">c keep · r change to … · d leave out · x X mark · Esc none</span>
        </span>
      )}
      {mayRule && marks.length === 0 && <span className="ml-auto min-w-0 truncate text-sm text-faded">{hints(remarks > 0, isFronting)}</span>}
    </div>
  );
}

/** The keys that matter most, as many as a line of 1280 pixels holds. */
function hints(hasRemarks: boolean, isFronting: boolean): string {
  const keys = [
    hasRemarks && 'o next remark',
    isFronting && 'f own addresses',
    'c keep',
    'r change',
    'd leave out',
    hasRemarks && 'm mend',
    'x mark',
    'R rule',
  ];
  return [...keys.filter((one) => one !== false).slice(0, 5), '? all keys'].join(' · ');
}
