import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { useAllMoves } from '../api';
import { Button } from '../ui/button';
import { COARSE, fullTime, shortTime, useNow, relative } from '../time';
import { inputLook } from '../ui/field';
import { useWindowed } from '../ui/windowed';
import { Empty, Failed, Loading } from '../ui/states';

/** Every move there is and was. */
export function MovesPlace() {
  const [filter, setFilter] = useState('');
  const text = useDeferredValue(filter.trim());
  const moves = useAllMoves(text);
  const now = useNow(COARSE);
  const rows = moves.data?.pages.flatMap((page) => page.moves) ?? [];
  const { hasNextPage, isFetchingNextPage, isFetchNextPageError, fetchNextPage } = moves;
  const windowed = useWindowed<HTMLTableSectionElement>(
    rows.length,
    33,
    hasNextPage && !isFetchingNextPage && !isFetchNextPageError ? () => void fetchNextPage() : undefined,
  );
  const many = rows.length > 5 || filter !== '';
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <div className="mb-3 flex items-baseline justify-between gap-4">
        <h1>Moves</h1>
        <Link to="/moves/sweeps" className="mr-auto text-accent hover:underline">
          Survey many domains
        </Link>
        {many && (
          <input
            aria-label="Filter moves"
            placeholder="Domain"
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
            className={`${inputLook} max-w-56`}
          />
        )}
      </div>
      {moves.isPending && <Loading what="the moves" />}
      {moves.isError && <Failed error={moves.error} retry={() => void moves.refetch()} />}
      {moves.isSuccess && rows.length === 0 && text === '' && <Empty title="No move has been begun yet.">The Desk is where one starts.</Empty>}
      {moves.isSuccess && rows.length === 0 && text !== '' && <p className="py-4 text-faded">No move of a domain like that.</p>}
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
          <tbody ref={windowed.list}>
            {windowed.above > 0 && <tr style={{ height: windowed.above }} />}
            {windowed.rows.map((index) => {
              const move = rows[index]!;
              return (
                <tr key={move.id} ref={windowed.measure} data-index={index} className="border-b border-rule align-baseline hover:bg-sheet">
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
              );
            })}
            {windowed.below > 0 && <tr style={{ height: windowed.below }} />}
          </tbody>
        </table>
      )}
      {hasNextPage && (
        <Button className="mt-3" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          {isFetchingNextPage ? 'Reading …' : 'Earlier moves'}
        </Button>
      )}
    </div>
  );
}
