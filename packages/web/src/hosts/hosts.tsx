import { Host, Me } from '@wanderon/contract';
import { useState } from 'react';
import { useHosts } from '../api';
import { Button } from '../ui/button';
import { Copy } from '../ui/copy';
import { Empty, Failed, Loading } from '../ui/states';
import { HostForm } from './hostForm';

export const ROLE_TITLES: Record<Host['role'], string> = { dns: 'DNS hosts', web: 'Web hosts', registrar: 'Registrars' };

/** What the agency knows of the places it moves between. */
export function HostsPlace({ me }: { me: Me }) {
  const hosts = useHosts();
  const [editing, setEditing] = useState<Host | 'new'>();
  const may = me.role !== 'viewer';
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <div className="mb-3 flex items-baseline justify-between">
        <h1>Hosts</h1>
        {may && <Button onClick={() => setEditing('new')}>Add a host</Button>}
      </div>
      {hosts.isPending && <Loading what="the hosts" />}
      {hosts.isError && <Failed error={hosts.error} retry={() => void hosts.refetch()} />}
      {hosts.data?.length === 0 && <Empty title="No host is known yet.">Add the DNS host and the web host that domains come from and go to.</Empty>}
      {(['dns', 'web', 'registrar'] as const).map((role) => {
        const rows = (hosts.data ?? []).filter((host) => host.role === role);
        if (rows.length === 0) return null;
        return (
          <section key={role} className="mb-6">
            <h2 className="smallcaps border-b border-ink pb-0.5">{ROLE_TITLES[role]}</h2>
            {rows.map((host) => (
              <article key={host.id} id={host.id} className="grid grid-cols-[13rem_1fr_auto] gap-4 border-b border-rule py-2 max-md:grid-cols-1">
                <div>
                  <h3 className="font-semibold">{host.name}</h3>
                  {host.role === 'dns' && <p className="text-sm text-faded">{host.keyName ? 'takes our updates' : 'no key: by hand'}</p>}
                </div>
                <dl className="grid grid-cols-[8rem_1fr] gap-x-4">
                  <Values title="Nameservers" values={host.nameservers.map((name) => name.replace(/\.$/, ''))} />
                  <Values title="Addresses" values={host.addresses} />
                  <Values title="Alias target" values={host.aliasTarget ? [host.aliasTarget.replace(/\.$/, '')] : []} />
                  <Values title="Asks for" values={host.requires.map((need) => `${need.owner} ${need.type} ${need.data}`)} />
                  <Values title="Key" values={host.keyName ? [host.keyName.replace(/\.$/, '')] : []} />
                  {host.note && (
                    <>
                      <dt className="text-faded">Note</dt>
                      <dd>{host.note}</dd>
                    </>
                  )}
                </dl>
                {may && (
                  <Button kind="quiet" className="self-start" onClick={() => setEditing(host)} aria-label={`Change ${host.name}`}>
                    Change
                  </Button>
                )}
              </article>
            ))}
          </section>
        );
      })}
      {editing && <HostForm host={editing === 'new' ? undefined : editing} onClose={() => setEditing(undefined)} />}
    </div>
  );
}

function Values({ title, values }: { title: string; values: readonly string[] }) {
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
