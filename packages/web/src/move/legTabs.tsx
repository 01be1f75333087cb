import { LegView, MoveView } from '@wanderon/contract';
import { Link, useLocation } from 'react-router';

/** The legs of a move that has several, the one on the screen marked. */
export function LegTabs({ move, leg }: { move: MoveView; leg: LegView }) {
  const { pathname } = useLocation();
  if (move.legs.length === 1) return leg.next ? <p className="pr-3 text-sm text-faded">First of two stages.</p> : null;
  return (
    <ol aria-label="Stages" className="mt-1 pr-3 text-sm">
      {move.legs.map((one, index) => (
        <li key={one.id} aria-current={one.id === leg.id || undefined}>
          {one.id === leg.id ? (
            <span className="font-semibold">{legWords(one, index)}</span>
          ) : (
            <Link className="text-accent underline" to={{ pathname, search: index === move.legs.length - 1 ? '' : `?leg=${one.id}` }}>
              {legWords(one, index)}
            </Link>
          )}
          {one.followed && <span className="text-faded"> over</span>}
        </li>
      ))}
    </ol>
  );
}

function legWords({ kind, account, isBack }: LegView, index: number): string {
  return `${index + 1} ${isBack ? 'back out' : kind === 'delegation' ? 'nameservers' : account ? 'another account' : 'records in place'}`;
}
