import { ChangeEvent, useState } from 'react';

/** Offers to take the text of a file from this machine; one that is too large is refused, and said to be. */
export function LoadFile({ accept, largest, onText }: { accept: string; largest: number; onText: (text: string, name: string) => void }) {
  const [problem, setProblem] = useState<string>();
  const load = (event: ChangeEvent<HTMLInputElement>): void => {
    const file = event.target.files?.[0];
    setProblem(undefined);
    if (!file) return;
    if (file.size > largest) return setProblem(`${file.name} is larger than ${largest / 1000} kB; nothing was read of it.`);
    file.text().then(
      (text) => onText(text, file.name),
      () => setProblem(`${file.name} could not be read.`),
    );
    // The same file can be chosen again once it was changed.
    event.target.value = '';
  };
  return (
    <span>
      <label className="cursor-pointer text-accent focus-within:underline hover:underline">
        Load a file
        <input type="file" accept={accept} className="sr-only" onChange={load} />
      </label>
      {problem && (
        <span role="alert" className="ml-3 text-rust">
          {problem}
        </span>
      )}
    </span>
  );
}
