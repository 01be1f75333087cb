import { Host, HostInput, hostInputSchema } from '@wanderon/contract';
import { TSIG_ALGORITHMS } from '@wanderon/core';
import { useForm } from 'react-hook-form';
import { ProblemError, useSaveHost } from '../api';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { Field, inputLook } from '../ui/field';
import { Failed } from '../ui/states';
import { useToast } from '../ui/toast';

const words = (text: string): string[] => text.split(/[\s,]+/).filter((word) => word !== '');

/** The fields as they are typed: lists are texts with one a line. */
interface Typed {
  name: string;
  role: Host['role'];
  nameservers: string;
  addresses: string;
  fronts: string;
  aliasTarget: string;
  updateAddress: string;
  requires: string;
  note: string;
  keyName: string;
  algorithm: (typeof TSIG_ALGORITHMS)[number];
  secret: string;
}

function typedOf(host: Host | undefined): Typed {
  return {
    name: host?.name ?? '',
    role: host?.role ?? 'dns',
    nameservers: host?.nameservers.join('\n') ?? '',
    addresses: host?.addresses.join('\n') ?? '',
    fronts: host?.fronts.join('\n') ?? '',
    aliasTarget: host?.aliasTarget ?? '',
    updateAddress: host?.updateAddress ?? '',
    requires: host?.requires.map((need) => `${need.owner} ${need.type} ${need.data}`).join('\n') ?? '',
    note: host?.note ?? '',
    keyName: host?.keyName ?? '',
    algorithm: 'hmac-sha256',
    secret: '',
  };
}

function inputOf(typed: Typed, host: Host | undefined): unknown {
  const { name, role, note, algorithm, secret } = typed;
  const keyName = typed.keyName.trim();
  return {
    name,
    role,
    nameservers: words(typed.nameservers),
    addresses: words(typed.addresses),
    fronts: words(typed.fronts),
    aliasTarget: typed.aliasTarget.trim() || null,
    updateAddress: typed.updateAddress.trim() || null,
    requires: typed.requires
      .split('\n')
      .filter((line) => line.trim() !== '')
      .map((line) => {
        const [owner = '', type = '', ...data] = line.trim().split(/\s+/);
        return { owner, type, data: data.join(' ') };
      }),
    note,
    ...(secret ? { key: { name: typed.keyName, algorithm, secret } } : host?.keyName && keyName === '' ? { key: null } : {}),
  };
}

/** Adds or changes a host; the key's secret goes in and never comes out again. */
export function HostForm({ host, onClose }: { host: Host | undefined; onClose: () => void }) {
  const { register, handleSubmit, watch, setError, formState } = useForm<Typed>({ defaultValues: typedOf(host) });
  const save = useSaveHost();
  const { say } = useToast();
  const role = watch('role');
  // What the contract calls the key is typed in three fields.
  const tell = (field: string, message: string): void => setError(field === 'key' ? 'keyName' : (field as keyof Typed), { message });
  const problem = (field: keyof Typed): string | undefined => formState.errors[field]?.message;

  const submit = handleSubmit((typed) => {
    const read = hostInputSchema.safeParse(inputOf(typed, host));
    if (!read.success) return read.error.issues.forEach((issue) => tell(String(issue.path[0]), issue.message));
    const keyName = typed.keyName.trim();
    if (role === 'dns' && keyName !== '' && keyName !== (host?.keyName ?? '') && typed.secret === '') return tell('secret', 'A new key name needs its secret.');
    save.mutate(
      { id: host?.id, input: read.data as HostInput },
      {
        onSuccess: (saved) => {
          say(`${saved.name} is saved.`);
          onClose();
        },
        onError: (error) => error instanceof ProblemError && error.problem.field && tell(error.problem.field, error.problem.title),
      },
    );
  });
  const area = (label: string, field: keyof Typed, hint: string) => (
    <div className="mb-3">
      <label className="block">
        <span className="mb-0.5 block font-semibold">{label}</span>
        <textarea rows={2} {...register(field)} aria-invalid={problem(field) !== undefined} className={`${inputLook} mono`} />
      </label>
      <p className={problem(field) ? 'text-rust' : 'text-sm text-faded'}>{problem(field) ?? hint}</p>
    </div>
  );
  return (
    <Dialog open onClose={onClose} title={host ? `Change ${host.name}` : 'Add a host'} wide>
      <form onSubmit={(event) => void submit(event)} noValidate>
        <div className="grid grid-cols-2 gap-x-5 max-md:grid-cols-1">
          <Field label="Name" autoFocus {...register('name')} problem={problem('name')} />
          <label className="mb-3 block">
            <span className="mb-0.5 block font-semibold">Role</span>
            <select {...register('role')} className={inputLook}>
              <option value="dns">DNS host</option>
              <option value="web">Web host</option>
              <option value="registrar">Registrar</option>
            </select>
          </label>
          {role === 'dns' && (
            <>
              <div>
                {area('Nameservers', 'nameservers', 'One a line.')}
                {area(
                  'Their addresses',
                  'addresses',
                  'In the same order, one a line; as the names resolve if empty. Needed where names stay and addresses change.',
                )}
              </div>
              <div>
                <Field
                  label="Updates go to"
                  mono
                  {...register('updateAddress')}
                  problem={problem('updateAddress')}
                  hint="An address; the first nameserver if empty."
                />
                {area('Fronts with', 'fronts', 'Ranges of addresses with which it answers in place of stored ones, one a line.')}
              </div>
              <Field label="Key name" mono {...register('keyName')} problem={problem('keyName')} hint="For transfers and updates; empty for none." />
              <label className="mb-3 block">
                <span className="mb-0.5 block font-semibold">Algorithm</span>
                <select {...register('algorithm')} className={inputLook}>
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
                {...register('secret')}
                problem={problem('secret')}
                hint={host?.keyName ? 'Left empty, it stays as it is.' : 'Base64.'}
              />
            </>
          )}
          {role === 'web' && (
            <>
              {area('Addresses', 'addresses', 'IPv4 and IPv6, one a line.')}
              <Field label="Alias target" mono {...register('aliasTarget')} problem={problem('aliasTarget')} hint="Where www and other names are aliased to." />
              {area('Records it asks for', 'requires', 'Owner, type, value; {zone} stands for the domain.')}
            </>
          )}
          <div className={role === 'registrar' ? 'col-span-2' : ''}>{area('Note', 'note', '')}</div>
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
