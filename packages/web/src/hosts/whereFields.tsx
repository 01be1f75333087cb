import { Host } from '@wanderon/contract';
import { ACTS_OF_ROLE, PLACE_ACT_WORDS, capital } from '@wanderon/core';
import { FieldErrors, UseFormRegister } from 'react-hook-form';
import { inputLook } from '../ui/field';
import { TypedHost } from './typedHost';

const FIELDS = [
  { field: 'path', label: 'What is clicked', placeholder: 'Domains › {zone} › Name servers', mono: false },
  { field: 'link', label: 'Link to that page', placeholder: 'https://', mono: true },
  { field: 'first', label: 'What has to be done first', placeholder: '', mono: false },
] as const;

/** Where in the panel of a place things are done, a line each. */
export function WhereFields({ role, register, errors }: { role: Host['role']; register: UseFormRegister<TypedHost>; errors: FieldErrors<TypedHost> }) {
  return (
    <div className="mb-3">
      {ACTS_OF_ROLE[role].map((act) => (
        <fieldset key={act} className="grid grid-cols-[11rem_2fr_2fr_2fr] items-baseline gap-3 border-b border-rule py-1.5 max-md:grid-cols-1">
          <legend className="sr-only">{capital(PLACE_ACT_WORDS[act])}</legend>
          <span aria-hidden>{capital(PLACE_ACT_WORDS[act])}</span>
          {FIELDS.map(({ field, label, placeholder, mono }) => {
            const problem = errors.where?.[act]?.[field]?.message;
            return (
              <label key={field}>
                <span className="block text-sm text-faded">{label}</span>
                <input
                  {...register(`where.${act}.${field}`)}
                  placeholder={placeholder}
                  aria-invalid={problem !== undefined}
                  className={`${inputLook} ${mono ? 'mono' : ''}`}
                />
                {problem && <span className="text-rust">{problem}</span>}
              </label>
            );
          })}
        </fieldset>
      ))}
      <p className="pt-1 text-sm text-faded">{'{zone}'} stands for the domain. It is shown at each step that is done there, and on its sheet.</p>
    </div>
  );
}
