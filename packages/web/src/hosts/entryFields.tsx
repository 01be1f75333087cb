import { FieldErrors, UseFormRegister } from 'react-hook-form';
import { inputLook } from '../ui/field';
import { Choice } from './choice';
import { TypedHost } from './typedHost';

/** What each habit is called, and what can be chosen. */
const HABITS: readonly {
  readonly field: 'names' | 'apex' | 'targetDot' | 'text' | 'longText' | 'priority' | 'ttl';
  readonly label: string;
  readonly choices: Readonly<Record<string, string>>;
}[] = [
  { field: 'names', label: 'Names', choices: { relative: 'below the domain: www', whole: 'whole: www.choir.example' } },
  { field: 'apex', label: 'The domain itself', choices: { '@': '@', empty: 'an empty field', whole: 'its whole name' } },
  { field: 'targetDot', label: 'Dot at the end of targets', choices: { either: 'makes no difference', required: 'required', refused: 'refused' } },
  { field: 'text', label: 'Text', choices: { bare: 'without quotes', quoted: 'in quotes' } },
  { field: 'longText', label: 'Text of more than 255 characters', choices: { whole: 'as one', parts: 'in quoted parts' } },
  { field: 'priority', label: 'Priority', choices: { 'own field': 'a field of its own', 'in value': 'before the value' } },
  { field: 'ttl', label: 'TTL', choices: { any: 'any can be typed', list: 'chosen from a list', none: 'cannot be given' } },
];

/** How the panel of a DNS host wants names and values typed: sheets are written so. */
export function EntryFields({ register, ttl, errors }: { register: UseFormRegister<TypedHost>; ttl: string; errors: FieldErrors<TypedHost>['style'] }) {
  const typed = (label: string, field: 'lacks' | 'ttls' | 'leastTtl', placeholder: string) => {
    const problem = errors?.[field]?.message;
    return (
      <label>
        <span className="block text-sm text-faded">{label}</span>
        <input {...register(`style.${field}`)} aria-invalid={problem !== undefined} placeholder={placeholder} className={`${inputLook} mono`} />
        {problem && <span className="text-rust">{problem}</span>}
      </label>
    );
  };
  return (
    <div className="mt-2 grid grid-cols-4 gap-x-4 gap-y-2 max-lg:grid-cols-2 max-md:grid-cols-1">
      {HABITS.map(({ field, label, choices }) => (
        <Choice key={field} label={label} field={`style.${field}`} register={register} choices={choices} />
      ))}
      {typed('Types it cannot hold', 'lacks', 'TLSA CAA')}
      {ttl === 'list' && typed('The list, in seconds', 'ttls', '300 3600 86400')}
      {ttl === 'any' && typed('The least, in seconds', 'leastTtl', 'none')}
    </div>
  );
}
