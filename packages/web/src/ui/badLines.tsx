/** Lines that are shown; nobody reads more. */
const SHOWN = 200;

/** What was pasted and cannot be read, line by line, each with what is wrong. */
export function BadLines({ bad }: { bad: readonly { readonly line: number; readonly text: string; readonly problem: string }[] }) {
  if (bad.length === 0) return null;
  return (
    <ul className="mt-2 max-h-32 overflow-y-auto border-t border-ink" tabIndex={0}>
      {bad.slice(0, SHOWN).map(({ line, text, problem }) => (
        <li key={line} className="grid grid-cols-[4rem_1fr] gap-3 border-b border-rule py-0.5">
          <span className="text-faded">line {line}</span>
          <span>
            <span className="mono break-all">{text}</span>: <span className="text-rust">{problem}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}
