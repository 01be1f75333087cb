import { Check, Copy as CopyIcon } from 'lucide-react';
import { useState } from 'react';

/** A value that has to be typed elsewhere: one press copies it. */
export function Copy({ value, label }: { value: string; label: string }) {
  const [done, setDone] = useState(false);
  const copy = async (): Promise<void> => {
    await navigator.clipboard.writeText(value);
    setDone(true);
    window.setTimeout(() => setDone(false), 1500);
  };
  return (
    <button
      type="button"
      onClick={() => void copy()}
      title={`Copy ${label}`}
      aria-label={`Copy ${label}`}
      className="cursor-pointer p-0.5 text-faded hover:text-accent"
    >
      {done ? <Check size={14} /> : <CopyIcon size={14} />}
    </button>
  );
}
