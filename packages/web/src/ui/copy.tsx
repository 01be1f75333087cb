import { useCallback, useState } from 'react';
import { CopyIcon, DoneIcon } from './icons';
import { useToast } from './toast';

/** Puts a text into the clipboard; false where the browser lets this page do that in neither way: over plain HTTP, or by a policy. */
async function toClipboard(text: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text);
    return true;
  } catch {
    // Not allowed, or not there at all: what is selected can be copied in the way of old all the same.
    return copiedFromField(text);
  }
}

function copiedFromField(text: string): boolean {
  const focused = document.activeElement as HTMLElement | null;
  const field = document.createElement('textarea');
  field.value = text;
  field.setAttribute('aria-hidden', 'true');
  field.style.position = 'fixed';
  field.style.opacity = '0';
  // Within a dialog that keeps the focus to itself.
  (focused?.closest('[role=dialog]') ?? document.body).append(field);
  field.select();
  const done = document.execCommand('copy');
  field.remove();
  focused?.focus({ preventScroll: true });
  return done;
}

/** Copies a text, and says `done`; where that cannot be, says so. Gives whether it was copied: what stood in the clipboard before is another value. */
export function useCopying(): (text: string, done?: string) => Promise<boolean> {
  const { say, fail } = useToast();
  return useCallback(
    async (text, done) => {
      const copied = await toClipboard(text);
      if (!copied) fail(new Error('Nothing was copied: the browser does not let this page. Select the value, and copy it by hand.'));
      else if (done) say(done);
      return copied;
    },
    [say, fail],
  );
}

/** A value that has to be typed elsewhere: one press copies it. */
export function Copy({ value, label }: { value: string; label: string }) {
  const [done, setDone] = useState(false);
  const copying = useCopying();
  const copy = async (): Promise<void> => {
    if (!(await copying(value))) return;
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
      {done ? <DoneIcon size={14} /> : <CopyIcon size={14} />}
    </button>
  );
}
