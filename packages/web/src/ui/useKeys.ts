import { useEffect, useRef } from 'react';

/** What Enter presses by itself. */
const PRESSED: ReadonlySet<string> = new Set(['BUTTON', 'A', 'SELECT', 'SUMMARY']);

/** True where a key press belongs to a field and not to the page. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement;
  return target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) || event.ctrlKey || event.metaKey || event.altKey;
}

/** The keys by which a cursor goes down and up in a list. */
export function listKeys(step: (by: 1 | -1) => void): Readonly<Record<string, () => void>> {
  const [down, up] = [() => step(1), () => step(-1)];
  return { j: down, ArrowDown: down, k: up, ArrowUp: up };
}

/** Keys of a page and what each does, while nobody types in a field and no dialog is open. */
export function useKeys(keys: Readonly<Record<string, () => unknown>>): void {
  const current = useRef(keys);
  useEffect(() => {
    current.current = keys;
  });
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (isTyping(event) || document.querySelector('[role=dialog]')) return;
      const act = Object.hasOwn(current.current, event.key) ? current.current[event.key] : undefined;
      if (!act || (event.key === 'Enter' && PRESSED.has((event.target as HTMLElement).tagName))) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
}
