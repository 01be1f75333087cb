import { useTrail } from '../api';
import { fullTime, shortTime } from '../time';
import { Failed, Loading } from '../ui/states';

/** Who did what, when, with what stood there before and after. */
export function Trail({ id }: { id: string }) {
  const trail = useTrail(id);
  if (trail.isPending) return <Loading what="what was done" />;
  if (trail.isError) return <Failed error={trail.error} retry={() => void trail.refetch()} />;
  return (
    <section>
      <h2 className="mb-2 text-lg">What was done</h2>
      <table className="w-full">
        <tbody>
          {trail.data.map((event) => (
            <tr key={event.id} className="border-t border-rule align-baseline">
              <td className="py-1 pr-4 whitespace-nowrap text-faded" title={fullTime(event.at)}>
                {shortTime(event.at)}
              </td>
              <td className="pr-4 whitespace-nowrap">{event.who ?? 'Wanderon'}</td>
              <td>
                {event.text}
                {event.kind !== 'step' && (event.before !== null || event.after !== null) && (
                  <details className="text-sm">
                    <summary className="cursor-pointer text-faded">before and after</summary>
                    <pre className="mono max-h-64 overflow-auto bg-shade p-2 whitespace-pre-wrap">{`before ${JSON.stringify(event.before, null, 1)}\nafter ${JSON.stringify(event.after, null, 1)}`}</pre>
                  </details>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
