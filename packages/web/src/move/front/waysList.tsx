import { ComparedWayView, FrontView } from '@wanderon/contract';
import { WayId, capital } from '@wanderon/core';
import { ReactNode } from 'react';
import { duration, shortTime } from '../../time';
import { DerivedTime } from '../../ui/derivation';

/** The one or two ways that fit what was given, five lines each, and the others folded with a line each. */
export function WaysList({
  front,
  value,
  now,
  onChange,
  disabled,
}: {
  front: FrontView;
  value: WayId | undefined;
  now: number;
  onChange: (way: WayId) => void;
  disabled: boolean;
}) {
  const fitting = front.fit.flatMap((id) => front.ways.filter(({ way }) => way === id));
  const others = front.ways.filter(({ way }) => !front.fit.includes(way));
  const chosen = others.find(({ way }) => way === value);
  const shown = chosen ? [chosen, ...fitting] : fitting;
  return (
    <fieldset disabled={disabled}>
      <legend className="sr-only">Which way</legend>
      {shown.map((way) => (
        <Way key={way.way} way={way} missing={front.missing[way.way]} isChosen={value === way.way} now={now} onChoose={() => onChange(way.way)} />
      ))}
      {others.length > (chosen ? 1 : 0) && (
        <details className="mt-1">
          <summary className="cursor-pointer text-accent">Other ways</summary>
          <ul>
            {others
              .filter((way) => way !== chosen)
              .map((way) => (
                <li key={way.way} className="border-b border-rule py-1 leading-snug">
                  <label className={`flex items-baseline gap-2 ${way.ruledOut === null ? 'cursor-pointer' : 'text-faded'}`}>
                    <input type="radio" name="way" value={way.way} disabled={way.ruledOut !== null} checked={false} onChange={() => onChange(way.way)} />
                    <span>
                      {way.title}
                      <span className="block text-sm text-faded">
                        {way.ruledOut ?? (front.missing[way.way] ? `Still missing: ${front.missing[way.way]}.` : way.changes)}
                      </span>
                    </span>
                  </label>
                </li>
              ))}
          </ul>
        </details>
      )}
    </fieldset>
  );
}

function Way({
  way,
  missing,
  isChosen,
  now,
  onChoose,
}: {
  way: ComparedWayView;
  missing: string | undefined;
  isChosen: boolean;
  now: number;
  onChoose: () => void;
}) {
  return (
    <section className={`mb-1 border-l-[3px] pb-1 pl-2 ${isChosen ? 'border-accent bg-shade' : 'border-transparent'}`}>
      <label className={`flex items-baseline gap-2 py-0.5 font-semibold ${way.ruledOut === null ? 'cursor-pointer' : 'text-faded'}`}>
        <input type="radio" name="way" value={way.way} disabled={way.ruledOut !== null} checked={isChosen} onChange={onChoose} />
        {way.title}
      </label>
      {way.ruledOut !== null ? (
        <p className="ml-6 text-rust">{way.ruledOut}</p>
      ) : (
        <dl className="ml-6 grid grid-cols-[7.5rem_minmax(0,1fr)] gap-x-2 leading-snug">
          <Line title="What changes">{way.changes}</Line>
          <Line title="Safe to switch">
            {way.untilSound === null ? (
              'not known'
            ) : way.untilSound < 1 ? (
              'now'
            ) : (
              <>
                from {shortTime(now + way.untilSound)}, in {duration(way.untilSound)}, if the TTLs are lowered now
              </>
            )}
          </Line>
          <Line title="Finished">
            {way.settling === null ? (
              'no end is known'
            ) : (
              <>
                everywhere by <DerivedTime derived={way.untilSettled} />
                {way.settling < 1 ? '' : `, ${duration(way.settling)} after the switch`}
              </>
            )}
          </Line>
          <Line title="Going back">
            {way.back === null ? 'takes an unknown time' : `${duration(way.back)}: ${way.backWords}`}
            {way.delegationBack !== null && `; or the nameservers, ${duration(way.delegationBack)} at least`}
          </Line>
          {way.against.length > 0 && <Line title="Against it">{way.against.join(' ')}</Line>}
          {missing !== undefined && <Line title="Still missing">{<span className="text-rust">{capital(missing)}.</span>}</Line>}
        </dl>
      )}
    </section>
  );
}

function Line({ title, children }: { title: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-faded">{title}</dt>
      <dd>{children}</dd>
    </>
  );
}
