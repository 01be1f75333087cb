import { Host, HostInput, hostInputSchema } from '@wanderon/contract';
import { TSIG_ALGORITHMS } from '@wanderon/core';
import { FieldPath, useForm } from 'react-hook-form';
import { ReactNode, useState } from 'react';
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
import { WhereFields } from './whereFields';
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
  // A fold never hides what is wrong.
  const hasRare = role === 'dns' && RARE.some((field) => errors[field] !== undefined);
  const problem = (field: Exclude<keyof TypedHost, 'requires' | 'tasks' | 'style' | 'form' | 'habits' | 'where'>): string | undefined => errors[field]?.message;

  const submit = handleSubmit((typed) => {
    const read = hostInputSchema.safeParse(inputOf(typed, host));
    if (!read.success)
      return read.error.issues.forEach((issue) =>
        tell(
          fieldOf(issue.path, typed, host),
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
        onError: (error) =>
          error instanceof ProblemError && error.problem.field && tell(fieldOf(error.problem.field.split('.'), typed, host), error.problem.title),
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
      <Part title="What it is">
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
          {role === 'dns' && area('Nameservers', 'nameservers', 'One a line.')}
          {role === 'web' && area('Addresses', 'addresses', 'IPv4 and IPv6, one a line.')}
          {role === 'web' && (
            <Field label="Alias target" mono {...register('aliasTarget')} problem={problem('aliasTarget')} hint="Where www and other names are aliased to." />
          )}
          <Field label="Link to its panel" mono placeholder="https://" {...register('login')} problem={problem('login')} hint="Where one logs in." />
          {area('Note', 'note', '')}
        </div>
      </Part>
      <Part title={role === 'web' ? 'What it asks for' : 'How typing works there'}>
        {role === 'dns' && <EntryFields register={register} ttl={watch('style.ttl')} errors={errors.style} />}
        {role === 'registrar' && (
          <>
            <label className="flex items-baseline gap-2">
              <input type="checkbox" {...register('known')} />
              <span className="font-semibold">Its page for nameservers is known</span>
              <span className="text-sm text-faded">Handover sheets are written for it.</span>
            </label>
            {watch('known') && <RegistrarFields register={register} errors={errors} entry={watch('form.entry')} />}
          </>
        )}
        {role === 'web' && <RequirementFields control={control} register={register} errors={errors} />}
        <h3 className="smallcaps mt-4 border-b border-ink">Where to click</h3>
        <WhereFields role={role} register={register} errors={errors} />
        {role !== 'registrar' && <TaskFields control={control} register={register} errors={errors} />}
      </Part>
      {role !== 'registrar' && (
        <details className="mb-4 border-t border-rule" open={hasRare || undefined}>
          <summary className="smallcaps cursor-pointer py-1">Rarely needed</summary>
          <div className="pt-2">
            {role === 'web' && <FrontingFields register={register} errors={errors} />}
            {role === 'dns' && <DnsFields register={register} errors={errors} />}
            {role === 'dns' && (
              <div className="grid grid-cols-3 gap-x-6 max-md:grid-cols-1">
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
                <Field
                  label="Updates go to"
                  mono
                  {...register('updateAddress')}
                  problem={problem('updateAddress')}
                  hint="An address; the first nameserver if empty."
                />
                {area(
                  'Addresses of its nameservers',
                  'addresses',
                  'In the same order, one a line; as the names resolve if empty. Needed where names stay and addresses change.',
                )}
                {area('Answers with addresses of its own', 'fronts', 'Ranges of addresses with which it answers in place of stored ones, one a line.')}
              </div>
            )}
          </div>
        </details>
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

/** Fields that stand folded away, where a problem has to show. */
const RARE = ['keyName', 'secret', 'updateAddress', 'addresses', 'fronts', 'habits'] as const;

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mb-4">
      <h2 className="smallcaps mb-2 border-b border-ink">{title}</h2>
      {children}
    </section>
  );
}
