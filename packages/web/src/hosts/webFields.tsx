import { FrontingWish } from '@wanderon/core';
import { ReactNode } from 'react';
import { Control, FieldErrors, UseFormRegister, useFieldArray } from 'react-hook-form';
import { Button } from '../ui/button';
import { inputLook } from '../ui/field';
import { Choice, Tick } from './choice';
import { TypedHost } from './typedHost';

interface Props {
  readonly control: Control<TypedHost>;
  readonly register: UseFormRegister<TypedHost>;
  readonly errors: FieldErrors<TypedHost>;
}

export const FRONTING_WORDS: Readonly<Record<FrontingWish, string>> = {
  either: 'answered by the DNS host itself or not',
  off: 'never answered by the DNS host itself',
  verified: 'answered by the DNS host itself once verified',
  on: 'answered by the DNS host itself from the beginning',
};

const FIELDS = [
  { field: 'issuers', label: 'Its certificates are made by', hint: 'As CAA records name them.', mono: true },
  { field: 'holding', label: 'Unknown domains get a page titled', hint: 'As on its holding page.', mono: false },
  { field: 'provisional', label: 'Beforehand a site is at', hint: '{zone} stands for the domain, {label} for its first label.', mono: true },
] as const;

/** What a web host wants of a DNS host that can front the names that lead to it, and what it is told by. */
export function FrontingFields({ register, errors }: Pick<Props, 'register' | 'errors'>) {
  return (
    <div className="mb-4">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-8 gap-y-1">
        <span className="flex items-baseline gap-2">
          <span className="font-semibold whitespace-nowrap">Names that lead here are</span>
          <Choice label="Whether the DNS host itself answers names that lead here" hidden field="fronting" register={register} choices={FRONTING_WORDS} />
        </span>
        <Tick label="sends every visitor without TLS to HTTPS" field="forcesHttps" register={register} />
      </div>
      <div className="grid grid-cols-3 gap-x-6 gap-y-2 max-md:grid-cols-1">
        {FIELDS.map(({ field, label, hint, mono }) => {
          const said = errors[field]?.message;
          return (
            <label key={field} className="block">
              <span className="mb-0.5 block font-semibold">{label}</span>
              <input {...register(field)} aria-invalid={said !== undefined} className={`${inputLook} ${mono ? 'mono' : ''}`} />
              <span className={said ? 'text-rust' : 'text-sm text-faded'}>{said ?? hint}</span>
            </label>
          );
        })}
      </div>
    </div>
  );
}

/** Records that a web host asks for; an empty value is one that it gives for each site. */
export function RequirementFields({ control, register, errors }: Props) {
  const { fields, append, remove, move } = useFieldArray({ control, name: 'requires', keyName: 'key' });
  return (
    <Rows
      title="Records it asks for"
      hint="{zone} stands for the domain. Leave the value empty where the host gives one for each site: it is asked for in the move."
      empty="None besides its addresses and alias target."
      add="Add a record"
      onAdd={() => append({ id: '', owner: '@', type: 'TXT', data: '', either: '', needed: true, early: false, ends: 'kept', fronting: 'either' })}
    >
      {fields.map((field, index) => {
        const problem = errors.requires?.[index];
        const said = problem?.owner?.message ?? problem?.type?.message ?? problem?.data?.message;
        return (
          <Row key={field.key} index={index} count={fields.length} what={`record ${index + 1}`} onMove={move} onRemove={remove} problem={said}>
            <div className="grid grid-cols-[10rem_6rem_1fr_9rem] gap-2 max-md:grid-cols-2">
              <input aria-label="Owner" {...register(`requires.${index}.owner`)} className={`${inputLook} mono`} />
              <input aria-label="Type" {...register(`requires.${index}.type`)} className={`${inputLook} mono`} />
              <input aria-label="Value" placeholder="given for each site" {...register(`requires.${index}.data`)} className={`${inputLook} mono`} />
              <input
                aria-label="Either of"
                placeholder="either of …"
                title="Of those with the same word one is enough"
                {...register(`requires.${index}.either`)}
                className={inputLook}
              />
            </div>
            <div className="flex flex-wrap items-baseline gap-x-5 pt-1">
              <Tick label="the cutover waits for it" field={`requires.${index}.needed`} register={register} />
              <Tick label="looked for before the cutover" field={`requires.${index}.early`} register={register} />
              <select aria-label="What ends it" {...register(`requires.${index}.ends`)} className="border border-rule bg-sheet px-1">
                <option value="kept">kept</option>
                <option value="verified">may go once verified</option>
              </select>
              <select aria-label="Answered by the DNS host itself" {...register(`requires.${index}.fronting`)} className="border border-rule bg-sheet px-1">
                {Object.entries(FRONTING_WORDS).map(([wish, words]) => (
                  <option key={wish} value={wish}>
                    {words}
                  </option>
                ))}
              </select>
            </div>
          </Row>
        );
      })}
    </Rows>
  );
}

/** What has to be done at a web host, in its order. */
export function TaskFields({ control, register, errors }: Props) {
  const { fields, append, remove, move } = useFieldArray({ control, name: 'tasks', keyName: 'key' });
  return (
    <Rows
      title="What has to be done there, in order"
      hint="Each becomes a step of every move that comes here."
      empty="Nothing."
      add="Add a task"
      onAdd={() => append({ id: '', title: '', by: 'us', when: 'before', waits: false, redirects: false, note: '' })}
    >
      {fields.map((field, index) => (
        <Row
          key={field.key}
          index={index}
          count={fields.length}
          what={`task ${index + 1}`}
          onMove={move}
          onRemove={remove}
          problem={errors.tasks?.[index]?.title?.message ?? errors.tasks?.[index]?.note?.message}
        >
          <div className="grid grid-cols-[1fr_9rem_11rem] items-end gap-2 max-md:grid-cols-1">
            <input aria-label="Task" placeholder="What is to be done" {...register(`tasks.${index}.title`)} className={inputLook} />
            <Choice
              label="By whom"
              hidden
              field={`tasks.${index}.by`}
              register={register}
              choices={{ us: 'by us', client: 'by the client', host: 'by the host' }}
            />
            <Choice
              label="When"
              hidden
              field={`tasks.${index}.when`}
              register={register}
              choices={{ before: 'before the cutover', after: 'after the cutover' }}
            />
          </div>
          <div className="grid grid-cols-[1fr_auto] items-baseline gap-4 pt-1 max-md:grid-cols-1">
            <input aria-label="How" placeholder="How; which states are to be expected meanwhile" {...register(`tasks.${index}.note`)} className={inputLook} />
            <span className="flex gap-4">
              <Tick label="waits for its records to be seen" field={`tasks.${index}.waits`} register={register} />
              <Tick label="rebuilds redirects" field={`tasks.${index}.redirects`} register={register} />
            </span>
          </div>
        </Row>
      ))}
    </Rows>
  );
}

function Rows({
  title,
  hint,
  empty,
  add,
  onAdd,
  children,
}: {
  title: string;
  hint: string;
  empty: string;
  add: string;
  onAdd: () => void;
  children: ReactNode[];
}) {
  return (
    <section className="mb-4">
      <h2 className="smallcaps border-b border-ink">{title}</h2>
      <p className="py-1 text-sm text-faded">{hint}</p>
      {children.length === 0 ? <p className="py-1 text-faded">{empty}</p> : <ol>{children}</ol>}
      <Button className="mt-1" onClick={onAdd}>
        {add}
      </Button>
    </section>
  );
}

function Row({
  index,
  count,
  what,
  onMove,
  onRemove,
  problem,
  children,
}: {
  index: number;
  count: number;
  what: string;
  onMove: (from: number, to: number) => void;
  onRemove: (index: number) => void;
  problem: string | undefined;
  children: ReactNode;
}) {
  return (
    <li className="grid grid-cols-[1.5rem_1fr_auto] gap-3 border-b border-rule py-2 max-md:grid-cols-1">
      <span className="mono pt-1 text-faded">{index + 1}</span>
      <div>
        {children}
        {problem && (
          <p role="alert" className="text-rust">
            {problem}
          </p>
        )}
      </div>
      <span className="flex items-start gap-1">
        <Button kind="quiet" disabled={index === 0} aria-label={`Move ${what} up`} onClick={() => onMove(index, index - 1)}>
          ↑
        </Button>
        <Button kind="quiet" disabled={index === count - 1} aria-label={`Move ${what} down`} onClick={() => onMove(index, index + 1)}>
          ↓
        </Button>
        <Button kind="quiet" aria-label={`Take out ${what}`} onClick={() => onRemove(index)}>
          Take out
        </Button>
      </span>
    </li>
  );
}
