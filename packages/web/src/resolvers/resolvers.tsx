import { Me, ResolverView } from '@wanderon/contract';
import { Button } from '../ui/button';
import { Failed, Loading } from '../ui/states';
import { useToast } from '../ui/toast';
import { AddResolver } from './addResolver';
import { useResolverAct, useResolvers, useTrial } from './useResolvers';

export const OVER_WORDS = { udp: 'UDP', tcp: 'TCP', tls: 'TLS', https: 'HTTPS', afresh: '' };

/** The resolvers that moves are watched from, each with whether it answers now. */
export function ResolversPlace({ me }: { me: Me }) {
  const resolvers = useResolvers();
  const act = useResolverAct();
  const { fail, say } = useToast();
  const may = me.role !== 'viewer';
  const added = (resolvers.data ?? []).flatMap(({ id }) => (id === null ? [] : [id]));
  const swap = (id: string, by: number): void => {
    const ids = [...added];
    const at = ids.indexOf(id);
    [ids[at], ids[at + by]] = [ids[at + by]!, ids[at]!];
    act.mutate({ kind: 'order', ids }, { onError: fail });
  };
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <h1>Resolvers</h1>
      <p className="mb-3 text-faded">
        After a switch Wanderon asks these what they give, and until when they may go on giving it. Add the ones that your clients’ visitors use: of their
        access providers, of an office, public ones.
      </p>
      {resolvers.isPending && <Loading what="the resolvers" />}
      {resolvers.isError && <Failed error={resolvers.error} retry={() => void resolvers.refetch()} />}
      {resolvers.data && (
        <table className="mb-6 w-full">
          <thead>
            <tr className="border-b border-ink text-left">
              {['Resolver', 'Asked at', 'Where it stands', 'Now', ''].map((head) => (
                <th key={head} className="smallcaps py-1 pr-4">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {resolvers.data.map((one) => (
              <Row
                key={one.name}
                resolver={one}
                may={may}
                up={one.id !== null && added.indexOf(one.id) > 0 ? () => swap(one.id!, -1) : undefined}
                down={one.id !== null && added.indexOf(one.id) < added.length - 1 ? () => swap(one.id!, 1) : undefined}
                remove={
                  one.id === null
                    ? undefined
                    : () => act.mutate({ kind: 'remove', id: one.id! }, { onError: fail, onSuccess: () => say(`${one.name} is taken out.`) })
                }
              />
            ))}
          </tbody>
        </table>
      )}
      {resolvers.data?.length === 0 && <p className="mb-6 text-faded">None yet. What resolvers give is then worked out from what nameservers answered.</p>}
      {may && <AddResolver />}
    </div>
  );
}

function Row({
  resolver,
  may,
  up,
  down,
  remove,
}: { resolver: ResolverView; may: boolean } & Partial<Record<'up' | 'down' | 'remove', (() => void) | undefined>>) {
  const { name, address, over, stands, note } = resolver;
  return (
    <tr className="border-b border-rule align-baseline">
      <td className="py-1 pr-4 font-semibold">{name}</td>
      <td className="mono pr-4">{over === 'afresh' ? 'each zone’s own nameservers' : `${address}${over === 'udp' ? '' : ` over ${OVER_WORDS[over]}`}`}</td>
      <td className="pr-4">
        {stands}
        {note && <span className="text-faded"> {note}</span>}
      </td>
      <td className="pr-4">{may ? <Health name={name} /> : <span className="text-faded">not asked</span>}</td>
      <td className="text-right whitespace-nowrap">
        {may && up && (
          <Button kind="quiet" aria-label={`Move ${name} up`} onClick={up}>
            up
          </Button>
        )}
        {may && down && (
          <Button kind="quiet" aria-label={`Move ${name} down`} onClick={down}>
            down
          </Button>
        )}
        {may && remove && (
          <Button kind="quiet" aria-label={`Take ${name} out`} onClick={remove}>
            take out
          </Button>
        )}
      </td>
    </tr>
  );
}

function Health({ name }: { name: string }) {
  const trial = useTrial(name, true);
  if (trial.isPending) return <span className="text-faded">asking …</span>;
  if (trial.isError) return <span className="text-rust">could not be asked</span>;
  const { problem, milliseconds } = trial.data;
  return problem === null ? <span>answers in {milliseconds} ms</span> : <span className="text-rust">does not answer: {problem}</span>;
}
