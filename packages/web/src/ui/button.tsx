import { ButtonHTMLAttributes } from 'react';

type Kind = 'main' | 'plain' | 'quiet';

const LOOKS: Record<Kind, string> = {
  main: 'bg-accent text-on-accent border-accent hover:brightness-110',
  plain: 'bg-sheet text-ink border-rule hover:border-ink',
  quiet: 'border-transparent text-accent hover:underline px-1',
};

/** `main` is the one next action of a screen. */
export function Button({ kind = 'plain', className = '', ...rest }: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: Kind }) {
  return (
    <button
      type="button"
      {...rest}
      className={`inline-flex items-center gap-1.5 whitespace-nowrap border px-2.5 py-1 leading-tight rounded-[3px] cursor-pointer disabled:cursor-not-allowed disabled:opacity-50 ${LOOKS[kind]} ${className}`}
    />
  );
}
