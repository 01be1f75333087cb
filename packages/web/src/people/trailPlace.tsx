import { Me, TrailPage } from '@wanderon/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { Link, Navigate } from 'react-router';
import { call } from '../api';
import { fullTime, shortTime } from '../time';
import { Button } from '../ui/button';
import { inputLook } from '../ui/field';
import { Empty, Failed, Loading } from '../ui/states';

/** All that is on record, the newest first: who signed in, what was refused, what became of people, hosts and domains. */
export function TrailPlace({ me }: { me: Me }) {
  const [text, setText] = useState('');
  const wanted = useDeferredValue(text.trim());
  const trail = useInfiniteQuery({
    queryKey: ['trail', wanted],
    queryFn: ({ pageParam }) => call<TrailPage>('GET', `/api/trail?text=${encodeURIComponent(wanted)}${pageParam === null ? '' : `&before=${pageParam}`}`),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: (before) => before,
  });
  if (me.role !== 'administrator') return <Navigate to="/" replace />;
  const entries = trail.data?.pages.flatMap((page) => page.entries) ?? [];
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <Link to="/people" className="text-sm text-faded hover:text-accent">
        People
      </Link>
      <div className="mb-3 flex items-baseline gap-4">
        <h1>What is on record</h1>
        <input
          type="search"
          aria-label="Find in what is on record"
          placeholder="Words, a person, a domain"
          value={text}
          onChange={(event) => setText(event.target.value)}
          className={`${inputLook} ml-auto max-w-72`}
        />
      </div>
      {trail.isPending && <Loading what="what is on record" />}
      {trail.isError && <Failed error={trail.error} retry={() => void trail.refetch()} />}
      {trail.data && entries.length === 0 && <Empty title="Nothing on record says that." />}
      {entries.length > 0 && (
        <table className="w-full">
          <thead className="smallcaps text-left">
            <tr className="border-b border-ink">
              <th className="py-1 pr-4">When</th>
              <th className="pr-4">Who</th>
              <th className="pr-4">Domain</th>
              <th>What</th>
            </tr>
          </thead>
          <tbody>
            {entries.map((entry) => (
              <tr key={entry.id} className="border-b border-rule align-baseline">
                <td className="py-1 pr-4 whitespace-nowrap text-faded" title={fullTime(entry.at)}>
                  {shortTime(entry.at)}
                </td>
                <td className="pr-4 whitespace-nowrap">{entry.who ?? <span className="text-faded">Wanderon</span>}</td>
                <td className="pr-4 whitespace-nowrap">{entry.domain}</td>
                <td className="[overflow-wrap:anywhere]">{entry.text}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {trail.hasNextPage && (
        <Button className="mt-3" disabled={trail.isFetchingNextPage} onClick={() => void trail.fetchNextPage()}>
          Earlier ones
        </Button>
      )}
    </div>
  );
}
