import { Host, HostInput, hostInputSchema } from '@wanderon/contract';
import { TSIG_ALGORITHMS } from '@wanderon/core';
import { FieldPath, useForm } from 'react-hook-form';
import { useState } from 'react';
import { ProblemError, useFoundMoves, useSaveHost } from '../api';
import { Button } from '../ui/button';
import { Field, inputLook } from '../ui/field';
import { Failed } from '../ui/states';
import { useToast } from '../ui/toast';
import { DnsFields } from './dnsFields';
import { EntryFields } from './entryFields';
import { PasteDialog } from './pasteDialog';
import { RegistrarFields } from './registrarFields';
import { placeOf, withFinds } from './takeFinds';
import { TypedHost, fieldOf, inputOf, typedOf } from './typedHost';
import { FrontingFields, RequirementFields, TaskFields } from './webFields';

/** Adds or changes a host; the key's secret goes in and never comes out again. */
export function HostForm({ host, onSaved, onLeave }: { host: Host | undefined; onSaved: (host: Host) => void; onLeave: () => void }) {
  const { register, control, handleSubmit, watch, setError, formState, getValues, reset } = useForm<TypedHost>({ defaultValues: typedOf(host) });
  const save = useSaveHost();
  const { say } = useToast();
  const role = watch('role');
  const [pasting, setPasting] = useState(false);
  const moves = useFoundMoves('');
  const { errors } = formState;
  const tell = (field: string, message: string): void => setError(field as FieldPath<TypedHost>, { message });
  const problem = (field: Exclude<keyof TypedHost, 'requires' | 'tasks' | 'style' | 'form' | 'habits'>): string | undefined => errors[field]?.message;

  const submit = handleSubmit((typed) => {
    const read = hostInputSchema.safeParse(inputOf(typed, host));
    if (!read.success)
      return read.error.issues.forEach((issue) =>
        tell(
          fieldOf(issue.path),
          issue.path[0] === 'entry' && issue.path[1] === 'ttls' ? 'Whole numbers of seconds, with blanks between them.' : issue.message,
        ),
      );
    const keyName = typed.keyName.trim();
    if (role === 'dns' && keyName !== '' && keyName !== (host?.keyName ?? '') && typed.secret === '') return tell('secret', 'A new key name needs its secret.');
    save.mutate(
      { id: host?.id, input: read.data as HostInput },
      {
        onSuccess: (saved) => {
          say(`${saved.name} is saved.`);
          onSaved(saved);
        },
        onError: (error) => error instanceof ProblemError && error.problem.field && tell(fieldOf(error.problem.field.split('.')), error.problem.title),
      },
    );
  });
  const area = (label: string, field: 'nameservers' | 'addresses' | 'fronts' | 'note', hint: string) => (
    <div className="mb-3">
      <label className="block">
        <span className="mb-0.5 block font-semibold">{label}</span>
        <textarea rows={2} {...register(field)} aria-invalid={problem(field) !== undefined} className={`${inputLook} ${field === 'note' ? '' : 'mono'}`} />
      </label>
      <p className={problem(field) ? 'text-rust' : 'text-sm text-faded'}>{problem(field) ?? hint}</p>
    </div>
  );
  return (
    <form onSubmit={(event) => void submit(event)} noValidate className="max-w-5xl">
      {role !== 'registrar' && (
        <p className="mb-2">
          <Button onClick={() => setPasting(true)}>Paste its page or mail</Button>{' '}
          <span className="text-sm text-faded">
            {role === 'dns' ? 'Its nameservers are' : 'Addresses, targets and records are'} found in it and shown before they are taken.
          </span>
        </p>
      )}
      {pasting && (
        <PasteDialog
          own={(moves.data ?? []).map((move) => move.domain)}
          takes={(find) => placeOf(role, find)}
          onTake={(finds) => reset(withFinds(getValues(), finds), { keepDefaultValues: true })}
          onClose={() => setPasting(false)}
        />
      )}
      <div className="grid grid-cols-2 gap-x-6 max-md:grid-cols-1">
        <Field label="Name" autoFocus {...register('name')} problem={problem('name')} />
        <label className="mb-3 block">
          <span className="mb-0.5 block font-semibold">Role</span>
          <select {...register('role')} disabled={host !== undefined} className={inputLook}>
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
          </>
        )}
        <div className={role === 'dns' ? '' : 'col-span-2 max-md:col-span-1'}>{area('Note', 'note', '')}</div>
      </div>
      {role === 'web' && (
        <>
          <FrontingFields register={register} errors={errors} />
          <RequirementFields control={control} register={register} errors={errors} />
          <TaskFields control={control} register={register} errors={errors} />
        </>
      )}
      {role === 'dns' && <DnsFields register={register} errors={errors} />}
      {role === 'dns' && <TaskFields control={control} register={register} errors={errors} />}
      {role !== 'web' && (
        <fieldset className="mb-4 border-t border-rule pt-2">
          <label className="flex items-baseline gap-2">
            <input type="checkbox" {...register('known')} />
            <span className="font-semibold">{role === 'dns' ? 'Its panel’s habits are known' : 'Its page for nameservers is known'}</span>
            <span className="text-sm text-faded">Handover sheets are written for it.</span>
          </label>
          {watch('known') && role === 'dns' && <EntryFields register={register} ttl={watch('style.ttl')} errors={errors.style} />}
          {watch('known') && role === 'registrar' && <RegistrarFields register={register} errors={errors} entry={watch('form.entry')} />}
        </fieldset>
      )}
      {save.isError && !(save.error instanceof ProblemError && save.error.problem.field) && <Failed error={save.error} />}
      <div className="flex gap-2">
        <Button kind="main" type="submit" disabled={save.isPending}>
          Save
        </Button>
        <Button onClick={onLeave}>Leave it</Button>
      </div>
    </form>
  );
}
