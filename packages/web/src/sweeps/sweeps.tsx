import { Me, NewSweep, SweepView } from '@wanderon/contract';
import { counted, readDomainList } from '@wanderon/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { FormEvent, useId, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { call, useSweeps } from '../api';
import { fullTime, shortTime } from '../time';
import { BadLines } from '../ui/badLines';
import { Button } from '../ui/button';
import { inputLook } from '../ui/field';
import { LoadFile } from '../ui/loadFile';
import { Empty, Failed, Loading } from '../ui/states';

/** The largest list that is read from a file, in octets. */
const LARGEST = 900_000;

/** Surveys of many domains in one go: a list is pasted or loaded, and all of it is looked at. */
export function SweepsPlace({ me }: { me: Me }) {
  const sweeps = useSweeps();
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <Link to="/moves" className="text-sm text-faded hover:text-accent">
        Moves
      </Link>
      <h1 className="mb-3">Sweeps</h1>
      {me.role !== 'viewer' && <NewSweepForm />}
      {sweeps.isPending && <Loading what="the sweeps" />}
      {sweeps.isError && <Failed error={sweeps.error} retry={() => void sweeps.refetch()} />}
      {sweeps.data?.length === 0 && (
        <Empty title="No sweep has been begun yet.">A sweep surveys many domains at once, so that the awkward ones are known before they are moved.</Empty>
      )}
      {sweeps.data && sweeps.data.length > 0 && (
        <table className="w-full">
          <thead className="smallcaps text-left">
            <tr className="border-b border-ink">
              <th className="py-1 pr-4">Sweep</th>
              <th className="pr-4">State</th>
              <th className="pr-4">Surveyed</th>
              <th className="pr-4">Failed</th>
              <th className="pr-4">By</th>
              <th>Begun</th>
            </tr>
          </thead>
          <tbody>
            {sweeps.data.map((sweep) => (
              <tr key={sweep.id} className="border-b border-rule align-baseline hover:bg-sheet">
                <td className="py-1.5 pr-4">
                  <Link to={`/moves/sweeps/${sweep.id}`} className="font-semibold hover:text-accent">
                    {sweep.name}
                  </Link>
                </td>
                <td className="pr-4">{sweep.state}</td>
                <td className="pr-4">
                  {sweep.done} of {sweep.waiting + sweep.done + sweep.failed + sweep.cancelled}
                </td>
                <td className={`pr-4 ${sweep.failed > 0 ? 'text-rust' : 'text-faded'}`}>{sweep.failed}</td>
                <td className="pr-4">{sweep.by ?? '—'}</td>
                <td className="text-faded" title={fullTime(sweep.createdAt)}>
                  {shortTime(sweep.createdAt)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

function NewSweepForm() {
  const [text, setText] = useState('');
  const [name, setName] = useState('');
  const queries = useQueryClient();
  const go = useNavigate();
  const id = useId();
  const list = useMemo(() => readDomainList(text), [text]);
  const begin = useMutation({
    mutationFn: (input: NewSweep) => call<SweepView>('POST', '/api/sweeps', input),
    onSuccess: (sweep) => {
      queries.setQueryData(['sweep', sweep.id], sweep);
      void queries.invalidateQueries({ queryKey: ['sweeps'] });
      void go(`/moves/sweeps/${sweep.id}`);
    },
  });
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    begin.mutate({ name, text: list.domains.join('\n') });
  };
  return (
    <form onSubmit={submit} className="mb-6 max-w-3xl border-b border-rule pb-4" noValidate>
      <label htmlFor={id} className="mb-0.5 block font-semibold">
        Survey many domains
      </label>
      <textarea
        id={id}
        rows={text === '' ? 4 : 8}
        spellCheck={false}
        value={text}
        placeholder={'One domain a line, or a table that has them\nlighthouse.example\nferry.example'}
        onChange={(event) => setText(event.target.value)}
        className={`${inputLook} mono`}
      />
      {text.trim() !== '' && (
        <p role="status" className="mt-1">
          {counted(list.domains.length, 'domain')}
          {list.doubles > 0 && <span className="text-faded"> · {list.doubles} stood there twice</span>}
          {list.bad.length > 0 && (
            <span className="text-rust">
              {' '}
              · {counted(list.bad.length, 'line')} cannot be read and {list.bad.length === 1 ? 'is' : 'are'} left out
            </span>
          )}
          {list.leftOut > 0 && <span className="text-rust"> · {list.leftOut} too many: they are left out</span>}
        </p>
      )}
      <BadLines bad={list.bad} />
      {begin.isError && <Failed error={begin.error} />}
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button kind="main" type="submit" disabled={begin.isPending || list.domains.length === 0}>
          {list.domains.length > 0 ? `Survey ${list.domains.length === 1 ? 'it' : `these ${list.domains.length}`}` : 'Survey them'}
        </Button>
        <LoadFile
          accept=".txt,.csv,text/plain,text/csv"
          largest={LARGEST}
          onText={(read, file) => {
            setText(read);
            setName(file.replace(/\.[a-z]+$/i, ''));
          }}
        />
        <label className="ml-auto flex items-center gap-2">
          <span className="text-faded">Called</span>
          <input
            value={name}
            onChange={(event) => setName(event.target.value)}
            placeholder="by its first domain"
            className={`${inputLook} w-56`}
            maxLength={100}
          />
        </label>
      </div>
    </form>
  );
}
