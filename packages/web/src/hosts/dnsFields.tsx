import { DnsHabits, Edge } from '@wanderon/core';
import { FieldErrors, UseFormRegister } from 'react-hook-form';
import { inputLook } from '../ui/field';
import { Choice, Tick } from './choice';
import { TypedHost } from './typedHost';

export const EDGE_WORDS: Readonly<Record<Edge, string>> = {
  unknown: 'is not known',
  plain: 'without TLS',
  encrypted: 'by TLS',
  verified: 'by TLS, certificate checked',
};

/** Where a domain stands that goes from one account to another. */
export const ACCOUNT_WORDS: Readonly<Record<DnsHabits['accounts'], string>> = {
  unknown: 'is not known',
  one: 'in one account at a time',
  several: 'in several accounts, one of them live',
};

export const APEX_ALIAS_WORDS: Readonly<Record<DnsHabits['apexAlias'], string>> = {
  unknown: 'is not known',
  no: 'there is none',
  addresses: 'is answered as addresses',
};

export const SIGNS_WORDS: Readonly<Record<DnsHabits['signs'], string>> = {
  unknown: 'is not known',
  no: 'does not sign zones',
  yes: 'can sign zones',
};

/** Where the nameservers of a domain come from. */
export const NAMESERVER_WORDS: Readonly<Record<DnsHabits['nameservers'], string>> = {
  fixed: 'the same for every domain',
  'by domain': 'each domain its own',
};

const AREAS = [
  { field: 'begins', label: 'A new zone begins with', hint: 'A record a line, as in @ A 192.0.2.7; {zone} stands for the domain. Sheets start from there.' },
  { field: 'locks', label: 'Rows its panel locks', hint: 'A name and a type a line, as in @ NS. Sheets leave them out.' },
  { field: 'forwards', label: 'Forwards mail or visitors by', hint: 'Names and ranges of services of its own, which end with the zone.' },
  { field: 'warnings', label: 'Warns of entries that are right', hint: 'In its words, a line each. Sheets say that they are to be expected.' },
] as const;

/** How a DNS host goes about its zones. */
export function DnsFields({ register, errors }: { register: UseFormRegister<TypedHost>; errors: FieldErrors<TypedHost> }) {
  return (
    <section className="mb-4">
      <div className="grid grid-cols-4 gap-x-6 gap-y-2 pt-2 max-lg:grid-cols-1">
        {AREAS.map(({ field, label, hint }) => {
          const problem = errors.habits?.[field];
          const said = problem?.message;
          return (
            <label key={field} className="block">
              <span className="mb-0.5 block font-semibold">{label}</span>
              <textarea rows={3} {...register(`habits.${field}`)} aria-invalid={said !== undefined} className={`${inputLook} mono`} />
              <span className={said ? 'text-rust' : 'text-sm text-faded'}>{said ?? hint}</span>
            </label>
          );
        })}
      </div>
      <div className="mt-2 grid grid-cols-5 gap-x-3 gap-y-2 max-lg:grid-cols-2">
        <label>
          <span className="block text-sm text-faded">Company</span>
          <input {...register('habits.company')} placeholder="whose service it is" className={inputLook} />
        </label>
        <Choice label="Nameservers" field="habits.nameservers" register={register} choices={NAMESERVER_WORDS} />
        <Choice label="Its edge reaches the web host" field="habits.edge" register={register} choices={EDGE_WORDS} />
        <label>
          <span className="block text-sm text-faded">Placeholder address for names that only redirect</span>
          <input {...register('habits.standIn')} placeholder="none is needed" className={`${inputLook} mono`} />
          {errors.habits?.standIn?.message && <span className="text-rust">{errors.habits.standIn.message}</span>}
        </label>
        <Choice label="A domain stands" field="habits.accounts" register={register} choices={ACCOUNT_WORDS} />
        <Choice label="Signing" field="habits.signs" register={register} choices={SIGNS_WORDS} />
        <Choice label="An alias at the domain itself" field="habits.apexAlias" register={register} choices={APEX_ALIAS_WORDS} />
        <label>
          <span className="block text-sm text-faded">Records in a zone, at the most</span>
          <input {...register('habits.most')} inputMode="numeric" placeholder="no limit is known" className={`${inputLook} mono`} />
          {errors.habits?.most?.message && <span className="text-rust">{errors.habits.most.message}</span>}
        </label>
      </div>
      <div className="mt-2 flex flex-wrap items-baseline gap-x-8 gap-y-1">
        <Tick label="takes a zone only once the domain is delegated to it" field="late" register={register} />
        <Tick label="drops or parks a zone once the domain is delegated elsewhere" field="habits.drops" register={register} />
      </div>
    </section>
  );
}
