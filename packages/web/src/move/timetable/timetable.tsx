import { DerivedView } from '@wanderon/contract';
import { isFirstUse } from '@wanderon/core';
import { ReactNode } from 'react';
import { useHorizons } from '../../api';
import { duration, fullTime, relative, shortTime } from '../../time';
import { DerivedTime } from '../../ui/derivation';
import { Failed, Loading } from '../../ui/states';
import { Agreed } from './agreed';
import { ChapterSteps } from '../chapterSteps';
import { ChapterProps, stepIn } from '../movePlace';
import { ownerBelow } from '../owner';

/** When what happens, and why not sooner; the one place where Wanderon is told to act by itself. */
export function Timetable({ move, leg, now, may }: ChapterProps) {
  const lower = stepIn(leg, 'lower');
  const { times } = leg;
  if (!times) return <p className="py-6 text-faded">The times follow from the survey and the way that is chosen.</p>;
  const decided = leg.approved;
  const { tl, t0 } = leg.seen;
  const switched = t0 !== null;
  const inPlace = leg.kind === 'repoint';
  const first = isFirstUse(leg);
  const lowering: [string, ReactNode, ReactNode][] = [
    [
      inPlace ? 'Lower the TTLs' : 'Lower the TTLs at the old host',
      lower?.doneAt ? shortTime(lower.doneAt) : lower?.dueAt ? shortTime(lower.dueAt) : leg.oldByHand ? 'in its panel' : decided ? 'now' : 'once approved',
      lower?.state === 'left' ? 'left to a person' : lower?.doneAt ? 'done' : '',
    ],
    [
      inPlace ? 'Seen lowered at every nameserver' : 'Seen lowered at every old nameserver',
      tl ? shortTime(tl.firstNew) : '—',
      tl ? `seen between ${shortTime(tl.lastOld)} and ${shortTime(tl.firstNew)}` : 'counted from when it is seen, not from when it was asked for',
    ],
  ];
  const rows: [string, ReactNode, ReactNode][] = [
    ...(lower ? lowering : []),
    [
      inPlace ? 'Safe to change from' : 'Safe to switch from',
      <DerivedTime key="e" derived={times.earliestSwitch} />,
      times.certain && times.earliestSwitch.at !== null ? relative(times.earliestSwitch.at, now) : 'if the TTLs were lowered now',
    ],
    [
      inPlace ? 'Change' : 'Switch',
      switched
        ? shortTime(t0.firstNew)
        : leg.plannedSwitch
          ? shortTime(leg.plannedSwitch)
          : inPlace
            ? 'when somebody says so'
            : 'when somebody changes it at the registrar',
      switched ? (inPlace ? 'seen at every nameserver' : 'seen at every server of the registry') : '',
    ],
    ...(inPlace
      ? []
      : ([
          [
            first ? 'Nobody is told that there is no such domain after' : 'Nobody is led to the old nameservers after',
            <DerivedTime key="h" derived={times.delegation} />,
            switched && times.delegation.at !== null ? relative(times.delegation.at, now) : 'if switched at the earliest or planned time',
          ],
        ] as [string, ReactNode, ReactNode][])),
    ...(!inPlace && times.extended.at !== times.delegation.at
      ? ([
          [
            'The slowest kind of resolver leaves them by',
            <DerivedTime key="x" derived={times.extended} />,
            times.extended.at === null
              ? 'no end is known: the old zone still names the old nameservers'
              : 'of those that extend a delegation from the old servers’ answers',
          ],
        ] as [string, ReactNode, ReactNode][])
      : []),
    ['No old answer after', <DerivedTime key="l" derived={times.last} />, switched && times.last.at !== null ? relative(times.last.at, now) : ''],
    ['Raise the TTLs, then close', stepIn(leg, 'raise')?.doneAt ? shortTime(stepIn(leg, 'raise')!.doneAt!) : 'once finished everywhere', ''],
  ];
  const shown = switched ? times.last.at : times.earliestSwitch.at;
  return (
    <section className="max-w-4xl">
      <h2 className="text-[1.25rem] leading-tight">
        {switched
          ? 'Old answers may be remembered until '
          : times.certain
            ? `The ${inPlace ? 'change' : 'switch'} is safe from `
            : decided
              ? `Once seen lowered, the ${inPlace ? 'change' : 'switch'} is safe from about `
              : `Lowered now, the ${inPlace ? 'change' : 'switch'} is safe from `}
        <DerivedTime derived={switched ? times.last : times.earliestSwitch} />
      </h2>
      <p className="mb-4 text-faded" title={shown === null ? undefined : fullTime(shown)}>
        {shown !== null && `${relative(shown, now)}; `}
        {times.last.at === null
          ? 'no end is known yet for what comes after it. '
          : `old answers may be remembered for ${duration(times.last.at - (switched ? t0.firstNew : Math.max(times.earliestSwitch.at ?? 0, leg.plannedSwitch ?? 0)))} after that. `}
        An underlined time opens to show how it is worked out.
      </p>
      <ChapterSteps leg={leg} chapter="timetable" move={move} may={may} />
      {may && !switched && leg.seen.ts === null && <Agreed move={move} leg={leg} first={first} />}
      <table className="mb-6 w-full">
        <tbody>
          {rows.map(([title, at, note]) => (
            <tr key={title} className="border-b border-rule align-baseline">
              <td className="py-1.5 pr-6 whitespace-nowrap max-md:whitespace-normal">{title}</td>
              <td className="pr-4 font-semibold whitespace-nowrap">{at}</td>
              <td className="text-faded">{note}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h3 className="smallcaps border-b border-ink">Until when each record may be remembered, the latest first</h3>
      <Horizons move={move} leg={leg} />
    </section>
  );
}

function Horizons({ move, leg }: Pick<ChapterProps, 'move' | 'leg'>) {
  const horizons = useHorizons(move.id, leg.id);
  if (horizons.isPending) return <Loading what="the times" />;
  if (horizons.isError) return <Failed error={horizons.error} retry={() => void horizons.refetch()} />;
  const { horizons: sets, total } = horizons.data;
  if (total === 0) return <p className="py-2 text-faded">No set changes.</p>;
  return (
    <div className="max-h-72 overflow-y-auto">
      <table className="w-full">
        <tbody>
          {sets.map((set) => (
            <Horizon key={set.owner + set.type} name={ownerBelow(set.owner, move.domain)} type={set.type} derived={set.horizon} />
          ))}
        </tbody>
      </table>
      {total > sets.length && <p className="py-1 text-faded">and {total - sets.length} sets with earlier ones.</p>}
    </div>
  );
}

function Horizon({ name, type, derived }: { name: string; type: string; derived: DerivedView }) {
  return (
    <tr className="border-b border-rule">
      <td className="py-0.5 pr-4">
        <span className="mono font-semibold">{name}</span> <span className="mono text-faded">{type}</span>
      </td>
      <td className="pr-4 whitespace-nowrap">
        <DerivedTime derived={derived} />
      </td>
    </tr>
  );
}
