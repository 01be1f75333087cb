import { Session } from '@wanderon/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../api';
import { fullTime, shortTime } from '../time';
import { Button } from '../ui/button';
import { Failed, Loading } from '../ui/states';

/** Where somebody is signed in; each can be ended from here. */
export function Sessions() {
  const queries = useQueryClient();
  const list = useQuery({ queryKey: ['sessions'], queryFn: async () => (await call<{ sessions: Session[] }>('GET', '/api/me/sessions')).sessions });
  const end = useMutation({
    mutationFn: (id: string) => call('DELETE', `/api/me/sessions/${id}`),
    onSettled: () => queries.invalidateQueries({ queryKey: ['sessions'] }),
  });
  if (list.isPending) return <Loading what="your sessions" />;
  if (list.isError) return <Failed error={list.error} retry={() => void list.refetch()} />;
  return (
    <>
      {end.error && <Failed error={end.error} />}
      <table className="w-full">
        <thead className="smallcaps text-left">
          <tr className="border-b border-ink">
            <th className="py-1 pr-4">Browser</th>
            <th className="pr-4">From</th>
            <th className="pr-4">Begun</th>
            <th className="pr-4">Last active</th>
            <th className="pr-4">Ends</th>
            <th>
              <span className="sr-only">What can be done</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {list.data.map((session) => (
            <tr key={session.id} className="border-b border-rule align-baseline">
              <td className="py-1.5 pr-4" title={session.agent}>
                {browserOf(session.agent)}
              </td>
              <td className="mono pr-4">{session.address}</td>
              {[session.begun, session.seen, session.ends].map((at, index) => (
                <td key={index} className="pr-4 whitespace-nowrap" title={fullTime(at)}>
                  {shortTime(at)}
                </td>
              ))}
              <td className="text-right whitespace-nowrap">
                {session.own ? (
                  <span className="text-faded">this one</span>
                ) : (
                  <Button kind="quiet" disabled={end.isPending} onClick={() => end.mutate(session.id)}>
                    End it
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/**
 * A browser and its system in a word or two, of what it calls itself; as it is where neither is known.
 *
 *     browserOf('Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0') // 'Firefox, Linux'
 */
export function browserOf(agent: string): string {
  // Each names those that it resembles as well: the rarest name is its own.
  const browser = ['Firefox', 'Edg', 'OPR', 'Chrome', 'Safari', 'curl'].find((name) => agent.includes(`${name}/`));
  const system = ['Windows', 'Android', 'iPhone', 'iPad', 'Macintosh', 'Linux'].find((name) => agent.includes(name));
  const words = [browser?.replace('Edg', 'Edge').replace('OPR', 'Opera'), system?.replace('Macintosh', 'macOS')].filter(Boolean);
  return words.length > 0 ? words.join(', ') : agent || 'unknown';
}
