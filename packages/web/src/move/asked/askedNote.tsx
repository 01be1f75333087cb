import { Link } from 'react-router';
import { ChapterProps } from '../movePlace';
import { askedOf, askers } from './askedOf';

/** In one line what the new hosts still ask for at this point of the move; nothing where they ask for nothing. */
export function AskedNote({ move, leg, of }: Pick<ChapterProps, 'move' | 'leg'> & { of: 'before' | 'after' }) {
  if (!leg.asked) return null;
  const { open, after } = askedOf(leg);
  const things = of === 'before' ? open : after.filter((step) => step.state === 'ready').map((step) => step.title);
  if (things.length === 0) return null;
  return (
    <p className="my-2 border-l-4 border-accent bg-shade px-3 py-1.5">
      {askers(leg.asked)} for: {things.slice(0, 3).join('; ')}
      {things.length > 3 && `; and ${things.length - 3} more`}.{' '}
      <Link className="text-accent underline" to={`/moves/${move.id}/asked`}>
        Open
      </Link>
    </p>
  );
}
