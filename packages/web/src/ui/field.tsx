import { InputHTMLAttributes, ReactNode, useId, useState } from 'react';

export const inputLook = 'w-full border border-rule bg-sheet px-2 py-1 rounded-[3px] focus:border-accent aria-invalid:border-rust';

/** A field with its label, and below it a hint or what is wrong. What is hidden while it is typed can be shown. */
export function Field({
  label,
  hint,
  problem,
  mono = false,
  type,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { label: string; hint?: ReactNode; problem?: string | undefined; mono?: boolean }) {
  const id = useId();
  const [shown, setShown] = useState(false);
  const hides = type === 'password';
  const input = (
    <input
      {...rest}
      {...(hides && { spellCheck: false, autoCapitalize: 'none' })}
      type={hides && shown ? 'text' : type}
      id={id}
      aria-invalid={problem !== undefined}
      aria-describedby={`${id}-help`}
      className={`${inputLook} ${mono ? 'mono' : ''} ${hides ? 'pr-14' : ''}`}
    />
  );
  return (
    <div className="mb-3">
      <label htmlFor={id} className="mb-0.5 block font-semibold">
        {label}
      </label>
      {hides ? (
        <div className="relative">
          {input}
          <button
            type="button"
            aria-controls={id}
            aria-label={`${shown ? 'Hide' : 'Show'} ${label.toLowerCase()}`}
            onClick={() => setShown(!shown)}
            className="absolute inset-y-0 right-0 px-2 text-sm text-faded hover:text-ink"
          >
            {shown ? 'Hide' : 'Show'}
          </button>
        </div>
      ) : (
        input
      )}
      <p id={`${id}-help`} className={problem ? 'text-rust' : 'text-sm text-faded'}>
        {problem ?? hint}
      </p>
    </div>
  );
}
