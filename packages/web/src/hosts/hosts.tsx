import { Host, Me } from '@wanderon/contract';
import { Link, useNavigate } from 'react-router';
import { useHosts } from '../api';
import { Button } from '../ui/button';
import { Copy } from '../ui/copy';
import { Empty, Failed, Loading } from '../ui/states';

const ROLE_TITLES: Record<Host['role'], string> = { dns: 'DNS hosts', web: 'Web hosts', registrar: 'Registrars' };
export const ROLE_NAMES: Record<Host['role'], string> = { dns: 'DNS host', web: 'Web host', registrar: 'Registrar' };

/** What the agency knows of the places it moves between. */
export function HostsPlace({ me }: { me: Me }) {
  const hosts = useHosts();
  const go = useNavigate();
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <div className="mb-3 flex items-baseline justify-between">
        <h1>Hosts</h1>
        <span className="flex items-baseline gap-4">
          <Link to="/resolvers" className="text-accent hover:underline">
            Resolvers
          </Link>
          {me.role !== 'viewer' && <Button onClick={() => void go('/hosts/new')}>Add a host</Button>}
        </span>
      </div>
      {hosts.isPending && <Loading what="the hosts" />}
      {hosts.isError && <Failed error={hosts.error} retry={() => void hosts.refetch()} />}
      {hosts.data?.length === 0 && (
        <Empty title="No host is known yet.">Places become known in the moves that go there: save one as a host in its move, or add one here.</Empty>
      )}
      {(['dns', 'web', 'registrar'] as const).map((role) => {
        const rows = (hosts.data ?? []).filter((host) => host.role === role);
        if (rows.length === 0) return null;
        return (
          <section key={role} className="mb-6">
            <h2 className="smallcaps border-b border-ink pb-0.5">{ROLE_TITLES[role]}</h2>
            {rows.map((host) => (
              <article key={host.id} className="grid grid-cols-[13rem_1fr] gap-4 border-b border-rule py-2 max-md:grid-cols-1">
                <div>
                  <h3 className="font-semibold">
                    <Link to={`/hosts/${host.id}`} className="hover:text-accent">
                      {host.name}
                    </Link>
                  </h3>
                  <p className="text-sm text-faded">{gistOf(host)}</p>
                </div>
                <dl className="grid grid-cols-[8rem_1fr] gap-x-4">
                  <Values title="Nameservers" values={host.nameservers.map((name) => name.replace(/\.$/, ''))} />
                  <Values title="Addresses" values={host.addresses} />
                  <Values title="Alias target" values={host.aliasTarget ? [host.aliasTarget.replace(/\.$/, '')] : []} />
                  {host.note && (
                    <>
                      <dt className="text-faded">Note</dt>
                      <dd>{host.note}</dd>
                    </>
                  )}
                </dl>
              </article>
            ))}
          </section>
        );
      })}
    </div>
  );
}

function gistOf({ role, keyName, requires, tasks, form }: Host): string {
  if (role === 'dns') return keyName ? 'takes our updates' : 'no key: by hand';
  if (role === 'registrar') return form ? 'its page is known' : 'its page is not known';
  const asks = [
    requires.length > 0 && `${requires.length} ${requires.length === 1 ? 'record' : 'records'}`,
    tasks.length > 0 && `${tasks.length} tasks`,
  ].filter(Boolean);
  return asks.length === 0 ? 'asks for nothing besides' : `asks for ${asks.join(', ')}`;
}

/** Values with their title, each to copy; nothing where there are none. */
export function Values({ title, values }: { title: string; values: readonly string[] }) {
  if (values.length === 0) return null;
  return (
    <>
      <dt className="text-faded">{title}</dt>
      <dd className="flex flex-wrap gap-x-5">
        {values.map((value) => (
          <span key={value} className="inline-flex items-center gap-1">
            <span className="mono break-all">{value}</span>
            <Copy value={value} label={value} />
          </span>
        ))}
      </dd>
    </>
  );
}
