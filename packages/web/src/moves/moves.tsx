import { useState } from 'react';
import { Link } from 'react-router';
import { useMoves } from '../api';
import { fullTime, shortTime, useNow, relative } from '../time';
import { inputLook } from '../ui/field';
import { Empty, Failed, Loading } from '../ui/states';

/** Every move there is and was. */
export function MovesPlace() {
  const moves = useMoves();
  const now = useNow();
  const [filter, setFilter] = useState('');
  const rows = (moves.data ?? []).filter((move) =>
    `${move.shown} ${move.domain} ${move.from ?? ''} ${move.to ?? ''}`.toLowerCase().includes(filter.toLowerCase()),
  );
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <div className="mb-3 flex items-baseline justify-between gap-4">
        <h1>Moves</h1>
        <Link to="/moves/sweeps" className="mr-auto text-accent hover:underline">
          Survey many domains
        </Link>
        {(moves.data?.length ?? 0) > 5 && (
          <input
            aria-label="Filter moves"
            placeholder="Filter"
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
            className={`${inputLook} max-w-56`}
          />
        )}
      </div>
      {moves.isPending && <Loading what="the moves" />}
      {moves.isError && <Failed error={moves.error} retry={() => void moves.refetch()} />}
      {moves.data?.length === 0 && <Empty title="No move has been begun yet.">The Desk is where one starts.</Empty>}
      {rows.length > 0 && (
        <table className="w-full">
          <thead className="smallcaps text-left">
            <tr className="border-b border-ink">
              <th className="py-1 pr-4">Domain</th>
              <th className="pr-4">From</th>
              <th className="pr-4">To</th>
              <th className="pr-4">Next</th>
              <th>Begun</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((move) => (
              <tr key={move.id} className="border-b border-rule align-baseline hover:bg-sheet">
                <td className="py-1.5 pr-4">
                  <Link to={`/moves/${move.id}/${move.next?.chapter ?? 'watch'}`} className="font-semibold hover:text-accent">
                    {move.shown}
                  </Link>
                </td>
                <td className="pr-4">{move.from ?? '—'}</td>
                <td className="pr-4">{move.to ?? '—'}</td>
                <td className={`pr-4 ${move.next?.failed ? 'text-rust' : ''}`}>
                  {move.next?.text ?? move.state}
                  {move.next?.dueAt && move.next.dueAt > now && <span className="text-faded"> · {relative(move.next.dueAt, now)}</span>}
                </td>
                <td className="text-faded" title={fullTime(move.createdAt)}>
                  {shortTime(move.createdAt)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
