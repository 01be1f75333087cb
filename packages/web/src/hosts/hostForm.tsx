import { Host, HostInput, hostInputSchema } from '@wanderon/contract';
import { EntryStyle, TSIG_ALGORITHMS, USUAL_STYLE } from '@wanderon/core';
import { UseFormRegister, useForm } from 'react-hook-form';
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
  known: boolean;
  names: EntryStyle['names'];
  apex: EntryStyle['apex'];
  targetDot: EntryStyle['targetDot'];
  text: EntryStyle['text'];
  longText: EntryStyle['longText'];
  priority: EntryStyle['priority'];
  ttl: 'any' | 'list' | 'none';
  ttls: string;
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
    known: (host?.entry ?? null) !== null,
    ...(({ ttls, ...style }: EntryStyle) => ({
      ...style,
      ttl: ttls === null ? ('none' as const) : ttls.length > 0 ? ('list' as const) : ('any' as const),
      ttls: ttls?.join(' ') ?? '',
    }))(host?.entry ?? USUAL_STYLE),
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
    entry: role === 'dns' && typed.known ? styleOf(typed) : null,
    ...(secret ? { key: { name: typed.keyName, algorithm, secret } } : host?.keyName && keyName === '' ? { key: null } : {}),
  };
}

function styleOf({ names, apex, targetDot, text, longText, priority, ttl, ttls }: Typed): EntryStyle {
  return { names, apex, targetDot, text, longText, priority, ttls: ttl === 'none' ? null : ttl === 'any' ? [] : words(ttls).map(Number) };
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
    if (!read.success)
      return read.error.issues.forEach((issue) =>
        tell(
          issue.path[0] === 'entry' ? 'ttls' : String(issue.path[0]),
          issue.path[0] === 'entry' ? 'Whole numbers of seconds, with blanks between them.' : issue.message,
        ),
      );
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
          {role === 'dns' && <EntryFields register={register} known={watch('known')} ttl={watch('ttl')} problem={problem('ttls')} />}
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

/** What each habit is called, and what can be chosen. */
const HABITS: readonly {
  readonly field: 'names' | 'apex' | 'targetDot' | 'text' | 'longText' | 'priority';
  readonly label: string;
  readonly choices: Readonly<Record<string, string>>;
}[] = [
  { field: 'names', label: 'Names', choices: { relative: 'below the domain: www', whole: 'whole: www.lighthouse.example' } },
  { field: 'apex', label: 'The domain itself', choices: { '@': '@', empty: 'an empty field', whole: 'its whole name' } },
  { field: 'targetDot', label: 'Dot at the end of targets', choices: { either: 'makes no difference', required: 'required', refused: 'refused' } },
  { field: 'text', label: 'Text', choices: { bare: 'without quotes', quoted: 'in quotes' } },
  { field: 'longText', label: 'Text of more than 255 characters', choices: { whole: 'as one', parts: 'in quoted parts' } },
  { field: 'priority', label: 'Priority', choices: { 'own field': 'a field of its own', 'in value': 'before the value' } },
];

/** How the panel of a DNS host wants names and values typed: sheets are written so. */
function EntryFields({ register, known, ttl, problem }: { register: UseFormRegister<Typed>; known: boolean; ttl: Typed['ttl']; problem: string | undefined }) {
  return (
    <fieldset className="col-span-2 mb-3 border-t border-rule pt-2 max-md:col-span-1">
      <label className="flex items-baseline gap-2">
        <input type="checkbox" {...register('known')} />
        <span className="font-semibold">Its panel’s habits are known</span>
        <span className="text-sm text-faded">Handover sheets are written in them.</span>
      </label>
      {known && (
        <div className="mt-2 grid grid-cols-3 gap-x-4 gap-y-2 max-md:grid-cols-1">
          {HABITS.map(({ field, label, choices }) => (
            <label key={field}>
              <span className="block text-sm text-faded">{label}</span>
              <select {...register(field)} className={inputLook}>
                {Object.entries(choices).map(([value, words]) => (
                  <option key={value} value={value}>
                    {words}
                  </option>
                ))}
              </select>
            </label>
          ))}
          <label>
            <span className="block text-sm text-faded">TTL</span>
            <select {...register('ttl')} className={inputLook}>
              <option value="any">any can be typed</option>
              <option value="list">chosen from a list</option>
              <option value="none">cannot be given</option>
            </select>
          </label>
          {ttl === 'list' && (
            <label className="col-span-2 max-md:col-span-1">
              <span className="block text-sm text-faded">The list, in seconds</span>
              <input {...register('ttls')} aria-invalid={problem !== undefined} placeholder="300 3600 86400" className={`${inputLook} mono`} />
              {problem && <span className="text-rust">{problem}</span>}
            </label>
          )}
        </div>
      )}
    </fieldset>
  );
}
