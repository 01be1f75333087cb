import { Host, HostInput, hostInputSchema } from '@wanderon/contract';
import { TSIG_ALGORITHMS } from '@wanderon/core';
import { FormEvent, useState } from 'react';
import { ProblemError, useSaveHost } from '../api';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { Field, inputLook } from '../ui/field';
import { Failed } from '../ui/states';
import { useToast } from '../ui/toast';

const words = (text: string): string[] => text.split(/[\s,]+/).filter((word) => word !== '');

/** Adds or changes a host; the key's secret goes in and never comes out again. */
export function HostForm({ host, onClose }: { host: Host | undefined; onClose: () => void }) {
  const [name, setName] = useState(host?.name ?? '');
  const [role, setRole] = useState<Host['role']>(host?.role ?? 'dns');
  const [nameservers, setNameservers] = useState(host?.nameservers.join('\n') ?? '');
  const [addresses, setAddresses] = useState(host?.addresses.join('\n') ?? '');
  const [fronts, setFronts] = useState(host?.fronts.join('\n') ?? '');
  const [aliasTarget, setAliasTarget] = useState(host?.aliasTarget ?? '');
  const [updateAddress, setUpdateAddress] = useState(host?.updateAddress ?? '');
  const [requires, setRequires] = useState(host?.requires.map((need) => `${need.owner} ${need.type} ${need.data}`).join('\n') ?? '');
  const [note, setNote] = useState(host?.note ?? '');
  const [keyName, setKeyName] = useState(host?.keyName ?? '');
  const [algorithm, setAlgorithm] = useState<(typeof TSIG_ALGORITHMS)[number]>('hmac-sha256');
  const [secret, setSecret] = useState('');
  const [problems, setProblems] = useState<Record<string, string>>({});
  const save = useSaveHost();
  const { say } = useToast();

  const submit = (event: FormEvent): void => {
    event.preventDefault();
    const candidate = {
      name,
      role,
      nameservers: words(nameservers),
      addresses: words(addresses),
      fronts: words(fronts),
      aliasTarget: aliasTarget.trim() || null,
      updateAddress: updateAddress.trim() || null,
      requires: requires
        .split('\n')
        .filter((line) => line.trim() !== '')
        .map((line) => {
          const [owner = '', type = '', ...data] = line.trim().split(/\s+/);
          return { owner, type, data: data.join(' ') };
        }),
      note,
      ...(secret ? { key: { name: keyName, algorithm, secret } } : host?.keyName && keyName.trim() === '' ? { key: null } : {}),
    };
    const read = hostInputSchema.safeParse(candidate);
    setProblems(read.success ? {} : Object.fromEntries(read.error.issues.map((issue) => [String(issue.path[0]), issue.message])));
    if (!read.success) return;
    const renamed = keyName.trim() !== '' && keyName.trim() !== (host?.keyName ?? '');
    if (role === 'dns' && renamed && secret === '') return setProblems({ secret: 'A new key name needs its secret.' });
    save.mutate(
      { id: host?.id, input: read.data as HostInput },
      {
        onSuccess: (saved) => {
          say(`${saved.name} is saved.`);
          onClose();
        },
        onError: (error) => error instanceof ProblemError && error.problem.field && setProblems({ [error.problem.field]: error.problem.title }),
      },
    );
  };
  const area = (label: string, value: string, change: (text: string) => void, field: string, hint: string) => (
    <div className="mb-3">
      <label className="block">
        <span className="mb-0.5 block font-semibold">{label}</span>
        <textarea
          rows={3}
          value={value}
          aria-invalid={problems[field] !== undefined}
          onChange={(event) => change(event.target.value)}
          className={`${inputLook} mono`}
        />
      </label>
      <p className={problems[field] ? 'text-rust' : 'text-sm text-faded'}>{problems[field] ?? hint}</p>
    </div>
  );
  return (
    <Dialog open onClose={onClose} title={host ? `Change ${host.name}` : 'Add a host'} wide>
      <form onSubmit={submit} noValidate>
        <div className="grid grid-cols-2 gap-x-5 max-md:grid-cols-1">
          <Field label="Name" autoFocus value={name} onChange={(event) => setName(event.target.value)} problem={problems['name']} />
          <label className="mb-3 block">
            <span className="mb-0.5 block font-semibold">Role</span>
            <select value={role} onChange={(event) => setRole(event.target.value as Host['role'])} className={inputLook}>
              <option value="dns">DNS host</option>
              <option value="web">Web host</option>
              <option value="registrar">Registrar</option>
            </select>
          </label>
          {role === 'dns' && (
            <>
              <div>
                {area('Nameservers', nameservers, setNameservers, 'nameservers', 'One a line.')}
                {area('Fronts with', fronts, setFronts, 'fronts', 'Ranges of addresses with which it answers in place of stored ones, one a line.')}
              </div>
              <div>
                <Field
                  label="Updates go to"
                  mono
                  value={updateAddress}
                  onChange={(event) => setUpdateAddress(event.target.value)}
                  problem={problems['updateAddress']}
                  hint="An address; the first nameserver if empty."
                />
                <Field
                  label="Key name"
                  mono
                  value={keyName}
                  onChange={(event) => setKeyName(event.target.value)}
                  problem={problems['key']}
                  hint="For transfers and updates; empty for none."
                />
              </div>
              <label className="mb-3 block">
                <span className="mb-0.5 block font-semibold">Algorithm</span>
                <select value={algorithm} onChange={(event) => setAlgorithm(event.target.value as typeof algorithm)} className={inputLook}>
                  {TSIG_ALGORITHMS.map((one) => (
                    <option key={one}>{one}</option>
                  ))}
                </select>
              </label>
              <Field
                label="Secret"
                mono
                type="password"
                autoComplete="off"
                value={secret}
                onChange={(event) => setSecret(event.target.value)}
                problem={problems['secret']}
                hint={host?.keyName ? 'Left empty, it stays as it is.' : 'Base64.'}
              />
            </>
          )}
          {role === 'web' && (
            <>
              {area('Addresses', addresses, setAddresses, 'addresses', 'IPv4 and IPv6, one a line.')}
              <Field
                label="Alias target"
                mono
                value={aliasTarget}
                onChange={(event) => setAliasTarget(event.target.value)}
                problem={problems['aliasTarget']}
                hint="Where www and other names are aliased to."
              />
              {area('Records it asks for', requires, setRequires, 'requires', 'Owner, type, value; {zone} stands for the domain.')}
            </>
          )}
          <div className={role === 'registrar' ? 'col-span-2' : ''}>{area('Note', note, setNote, 'note', '')}</div>
        </div>
        {save.isError && !(save.error instanceof ProblemError && save.error.problem.field) && <Failed error={save.error} />}
        <div className="flex gap-2">
          <Button kind="main" type="submit" disabled={save.isPending}>
            Save
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
