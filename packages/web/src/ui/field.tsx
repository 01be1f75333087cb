import { InputHTMLAttributes, ReactNode, useId } from 'react';

export const inputLook = 'w-full border border-rule bg-sheet px-2 py-1 rounded-[3px] focus:border-accent aria-invalid:border-rust';

export function Field({
  label,
  hint,
  problem,
  mono = false,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { label: string; hint?: ReactNode; problem?: string | undefined; mono?: boolean }) {
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="mb-0.5 block font-semibold">
        {label}
      </label>
      <input {...rest} id={id} aria-invalid={problem !== undefined} aria-describedby={`${id}-help`} className={`${inputLook} ${mono ? 'mono' : ''}`} />
      <p id={`${id}-help`} className={problem ? 'text-rust' : 'text-sm text-faded'}>
        {problem ?? hint}
      </p>
    </div>
  );
}
