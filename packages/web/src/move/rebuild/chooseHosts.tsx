import { Host, LegView, MoveView } from '@wanderon/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useHosts, useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Failed, Loading } from '../../ui/states';
import { stepIn } from '../movePlace';

/** Where the domain goes: a DNS host and, where the website moves too, a web host. */
export function ChooseHosts({ move, leg, may, onDone, cancel }: { move: MoveView; leg: LegView; may: boolean; onDone: () => void; cancel: boolean }) {
  const hosts = useHosts();
  const [dns, setDns] = useState(leg.newDnsHost ?? '');
  const [web, setWeb] = useState<string | undefined>(leg.newDnsHost ? (leg.newWebHost ?? '') : undefined);
  const choose = useMoveAction<{ newDnsHost: string; newWebHost: string | null }>(move.id, 'PUT', () => '/hosts');
  if (hosts.isPending) return <Loading what="the hosts" />;
  if (hosts.isError) return <Failed error={hosts.error} retry={() => void hosts.refetch()} />;
  if (stepIn(leg, 'survey')?.state !== 'done') return <p className="py-6 text-faded">The hosts are chosen once the survey is finished.</p>;
  const name = (id: string | null): string | undefined => hosts.data.find((host) => host.id === id)?.name;
  const list = (role: Host['role'], old: string | null): Host[] =>
    hosts.data.filter((host) => host.role === role && host.id !== old && (role !== 'dns' || host.nameservers.length > 0));
  return (
    <section className="max-w-3xl">
      <h2 className="text-[1.25rem] leading-tight">Choose where {move.shown} goes</h2>
      <p className="mb-4 text-faded">
        It stands at {name(leg.oldDnsHost) ?? `nameservers of no host we know (${leg.oldNameservers.join(', ')})`}
        {leg.oldWebHost ? `, its website at ${name(leg.oldWebHost)}` : ', its website at no host we know'}.
      </p>
      <div className="grid grid-cols-2 gap-8 max-md:grid-cols-1">
        <Choice title="New DNS host" hosts={list('dns', leg.oldDnsHost)} value={dns} onChange={setDns} disabled={!may} />
        <Choice title="New web host" hosts={list('web', leg.oldWebHost)} value={web} onChange={setWeb} disabled={!may} none="The website stays where it is" />
      </div>
      {choose.isError && <Failed error={choose.error} />}
      <div className="mt-5 flex gap-2">
        <Button
          kind="main"
          disabled={!may || dns === '' || web === undefined || choose.isPending}
          onClick={() => choose.mutate({ newDnsHost: dns, newWebHost: web || null }, { onSuccess: onDone })}
        >
          {cancel ? 'Propose the rulings anew' : 'Propose the rulings'}
        </Button>
        {cancel && <Button onClick={onDone}>Leave it</Button>}
      </div>
      {cancel && <p className="mt-1 text-sm text-faded">Rulings made by hand are replaced.</p>}
    </section>
  );
}

function Choice({
  title,
  hosts,
  value,
  onChange,
  disabled,
  none,
}: {
  title: string;
  hosts: readonly Host[];
  value: string | undefined;
  onChange: (id: string) => void;
  disabled: boolean;
  none?: string;
}) {
  return (
    <fieldset disabled={disabled}>
      <legend className="smallcaps w-full border-b border-ink">{title}</legend>
      {hosts.map((host) => (
        <label key={host.id} className="flex cursor-pointer items-baseline gap-2 border-b border-rule py-1.5 has-checked:bg-shade">
          <input type="radio" name={title} checked={value === host.id} onChange={() => onChange(host.id)} />
          <span>
            <b className="font-semibold">{host.name}</b>
            <span className="mono block text-faded">
              {(host.role === 'dns' ? host.nameservers : host.addresses).map((text) => text.replace(/\.$/, '')).join(', ')}
            </span>
            {host.role === 'dns' && !host.keyName && <span className="text-sm text-rust">no key: the zone cannot be pushed</span>}
          </span>
        </label>
      ))}
      {none && (
        <label className="flex cursor-pointer items-baseline gap-2 border-b border-rule py-1.5 has-checked:bg-shade">
          <input type="radio" name={title} checked={value === ''} onChange={() => onChange('')} />
          {none}
        </label>
      )}
      {hosts.length === 0 && (
        <p className="py-2">
          None is known yet.{' '}
          <Link className="text-accent underline" to="/hosts">
            Add one at Hosts.
          </Link>
        </p>
      )}
    </fieldset>
  );
}
