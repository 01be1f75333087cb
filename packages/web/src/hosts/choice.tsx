import { FieldPath, UseFormRegister } from 'react-hook-form';
import { inputLook } from '../ui/field';
import { TypedHost } from './typedHost';

/** One of several words, with a small label above. */
export function Choice({
  label,
  field,
  register,
  choices,
  asNumber = false,
  hidden = false,
}: {
  label: string;
  field: FieldPath<TypedHost>;
  register: UseFormRegister<TypedHost>;
  choices: Readonly<Record<string, string>>;
  asNumber?: boolean;
  /** The label is told and not shown, where what can be chosen says it. */
  hidden?: boolean;
}) {
  return (
    <label>
      <span className={hidden ? 'sr-only' : 'block text-sm text-faded'}>{label}</span>
      <select {...register(field, asNumber ? { valueAsNumber: true } : {})} className={inputLook}>
        {Object.entries(choices).map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

export function Tick({ label, field, register }: { label: string; field: FieldPath<TypedHost>; register: UseFormRegister<TypedHost> }) {
  return (
    <label className="inline-flex items-baseline gap-1.5 whitespace-nowrap">
      <input type="checkbox" {...register(field)} />
      {label}
    </label>
  );
}
