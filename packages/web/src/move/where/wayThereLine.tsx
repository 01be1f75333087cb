import { WayThere } from '@wanderon/core';
import { useKeys } from '../../ui/useKeys';

/** Where in a panel something is done: the link and what is clicked from there. `keyed`: a key opens the link; of several on a page one has it. */
export function WayThereLine({ way, name, keyed = true, children }: { way: WayThere; name: string; keyed?: boolean; children?: React.ReactNode }) {
  const { link, clicks, first } = way;
  useKeys(keyed && link !== undefined ? { o: () => window.open(link, '_blank', 'noopener,noreferrer') } : {});
  return (
    <div className="border-l-4 border-rule py-0.5 pl-3">
      <p className="flex flex-wrap items-baseline gap-x-2">
        {link !== undefined && (
          <a className="text-accent underline print:text-ink" href={link} target="_blank" rel="noreferrer noopener">
            Open {name}
          </a>
        )}
        {keyed && link !== undefined && <kbd className="mono text-sm text-faded print:hidden">o</kbd>}
        {clicks.length > 0 && (
          <span>
            {link === undefined && `At ${name}: `}
            {clicks.map((click, index) => (
              <span key={index}>
                {index > 0 && <span className="text-faded"> › </span>}
                <span className="font-semibold">{click}</span>
              </span>
            ))}
          </span>
        )}
        {children}
      </p>
      {first !== undefined && <p>First: {first}</p>}
    </div>
  );
}
