import { DerivedView } from '@wanderon/contract';
import { Popover } from 'radix-ui';
import { ReactNode } from 'react';
import { duration, fullTime, shortTime } from '../time';

/** A moment that can be opened: the sum that led to it. */
export function DerivedTime({ derived, children }: { derived: DerivedView; children?: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger className="cursor-pointer border-b border-dotted border-accent" title={derived.at === null ? 'No bound is known' : fullTime(derived.at)}>
        {children ?? momentOf(derived)}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content sideOffset={6} collisionPadding={12} className="z-50 max-w-md border border-ink bg-sheet p-3 text-sm">
          <p className="mono mb-2 font-semibold">{derived.formula}</p>
          <table>
            <tbody>
              {derived.terms.map((term) => (
                <tr key={term.symbol} className="align-baseline">
                  <td className="mono pr-3">{term.symbol}</td>
                  <td className="pr-3 whitespace-nowrap">
                    {term.value === null ? 'no end' : term.unit === 'seconds' ? duration(term.value) : shortTime(term.value)}
                  </td>
                  <td className="text-faded">{term.meaning}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-2">
            = <b>{momentOf(derived)}</b> <span className="text-faded">after {derived.follows}</span>
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function momentOf(derived: DerivedView): string {
  return derived.at === null ? 'no bound' : shortTime(derived.at);
}
