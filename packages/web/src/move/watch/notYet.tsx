import { WatchView } from '@wanderon/contract';
import { fullTime, relative } from '../../time';

const ACTS = { do: 'do this', wait: 'it comes', nothing: 'do nothing' } as const;

/** Why somebody may not see the new yet: from what is wrong at the servers down to what one's own machine remembers. */
export function NotYet({ reasons, now }: { reasons: WatchView['notYet']; now: number }) {
  if (reasons.length === 0) return null;
  return (
    <section aria-label="Not seen yet?" className="mb-5">
      <h3 className="smallcaps border-b border-ink">Not seen yet?</h3>
      <ul>
        {reasons.map(({ place, act, text, until }) => (
          <li key={place + text} className="grid grid-cols-[5rem_minmax(0,1fr)] gap-3 border-b border-rule py-1 leading-snug">
            <span className={act === 'do' ? 'font-semibold text-rust' : 'text-faded'}>{ACTS[act]}</span>
            <span>
              <span className="[overflow-wrap:anywhere]">{text}</span>
              {until !== null && until > now && (
                <span className="block text-sm text-faded" title={fullTime(until)}>
                  {place === 'certificate' ? 'Usually within the hour: ' : 'Until the latest: '}
                  {relative(until, now)}
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
