import { Acted } from '@wanderon/contract';
import { DomainReading, showName } from '@wanderon/core';
import { useQueryClient } from '@tanstack/react-query';
import { FormEvent, useId, useState } from 'react';
import { useNavigate } from 'react-router';
import { ProblemError, call } from '../api';
import { Button } from '../ui/button';
import { inputLook } from '../ui/field';
import { Failed } from '../ui/states';

type ReadDomain = (text: string) => DomainReading;

/** Every public suffix is known to it, which is much to load: it is, once somebody is about to type. */
const domainReader = async (): Promise<ReadDomain> => (await import('./domainReader')).readDomain;

/** Starting a move takes a domain and nothing else; what was pasted is read while typing. */
export function StartMove() {
  const [text, setText] = useState('');
  const [reader, setReader] = useState<{ readonly read: ReadDomain }>();
  const [scope, setScope] = useState<'whole' | 'name'>('whole');
  const [error, setError] = useState<unknown>();
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const queries = useQueryClient();
  const go = useNavigate();
  const id = useId();
  const reading: DomainReading | undefined = text.trim() === '' ? undefined : reader?.read(text);
  const load = (): void => {
    if (!reader) domainReader().then((read) => setReader({ read }), setError);
  };

  const submit = async (event: FormEvent | undefined, unused = false): Promise<void> => {
    event?.preventDefault();
    setError(undefined);
    setBusy(true);
    try {
      const read = (reader?.read ?? (await domainReader()))(text);
      setProblem(read.ok ? undefined : read.problem);
      if (!read.ok) return;
      const move = await call<Acted>('POST', '/api/moves', { domain: text, scope: read.choices.length > 1 ? scope : 'whole', unused });
      void queries.invalidateQueries({ queryKey: ['moves', 'open'] });
      await go(`/moves/${move.id}/survey`);
    } catch (failure) {
      setError(failure);
    } finally {
      setBusy(false);
    }
  };

  return (
    <form onSubmit={(event) => void submit(event)} className="mb-6 max-w-2xl" noValidate>
      <label htmlFor={id} className="mb-0.5 block font-semibold">
        Move a domain
      </label>
      <div className="flex gap-2">
        <input
          id={id}
          name="domain"
          value={text}
          autoComplete="off"
          spellCheck={false}
          aria-invalid={problem !== undefined}
          aria-describedby={`${id}-reading`}
          placeholder="lighthouse.example"
          onFocus={load}
          onChange={(event) => {
            load();
            setText(event.target.value);
            setProblem(undefined);
            setError(undefined);
          }}
          className={`${inputLook} mono py-1.5`}
        />
        <Button kind="main" type="submit" disabled={busy} className="px-4">
          {busy ? 'Reading the delegation …' : 'Start'}
        </Button>
      </div>
      <div id={`${id}-reading`} className="min-h-6 pt-0.5">
        {problem && <p className="text-rust">{problem}</p>}
        {!problem && reading?.ok && reading.choices.length === 1 && reading.choices[0]!.zone !== text.trim() && (
          <p className="text-faded">
            The whole domain <b className="mono text-ink">{reading.choices[0]!.shown}</b>
            {reading.choices[0]!.shown !== reading.choices[0]!.zone && <span className="mono"> ({reading.choices[0]!.zone})</span>}
          </p>
        )}
        {!problem && reading?.ok && reading.choices.length > 1 && (
          <fieldset className="flex flex-wrap gap-x-5">
            <legend className="sr-only">What is to be moved</legend>
            {reading.choices.map((choice) => (
              <label key={choice.scope} className="flex cursor-pointer items-center gap-1.5">
                <input type="radio" name="scope" checked={scope === choice.scope} onChange={() => setScope(choice.scope)} />
                {choice.scope === 'whole' ? 'the whole domain' : choice.names.length > 1 ? 'these names alone' : 'that name alone'}{' '}
                <b className="mono">{choice.names.map(showName).join(', ')}</b>
              </label>
            ))}
            {scope === 'name' && (
              <p className="basis-full text-faded">
                {reading.choices[1]!.names.length > 1
                  ? 'Their records change where they are; the www of each goes with it.'
                  : reading.choices[1]!.names[0]!.startsWith('www.')
                    ? 'Its records change where they are; the domain itself stays as it is.'
                    : 'Its records change where they are; its own www goes with it.'}
              </p>
            )}
          </fieldset>
        )}
      </div>
      {error !== undefined && <Failed error={error} />}
      {error instanceof ProblemError && error.problem.unused && (
        <Button disabled={busy} onClick={() => void submit(undefined, true)}>
          It was never used: begin it
        </Button>
      )}
    </form>
  );
}
