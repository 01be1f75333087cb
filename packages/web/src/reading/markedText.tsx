import { DragEvent, SyntheticEvent, useRef, useState } from 'react';

/** Pixels of a line of the field, and above the first one. */
const LINE = 18;
const ABOVE = 6;

export interface Mark {
  readonly line: number;
  readonly lastLine: number;
}

/**
 * The field that a text is pasted into, with the lines marked that are looked at beside it. Files can be dropped on it. `onLine`: the line
 * in which the cursor stands.
 */
export function MarkedText({
  label,
  text,
  mark,
  rows,
  placeholder,
  onChange,
  onFiles,
  onLine,
}: {
  label: string;
  text: string;
  mark: Mark | undefined;
  rows: number;
  placeholder?: string;
  onChange: (text: string) => void;
  onFiles: (files: readonly File[]) => void;
  onLine: (line: number) => void;
}) {
  const [scrolled, setScrolled] = useState(0);
  const [isOver, setOver] = useState(false);
  const field = useRef<HTMLTextAreaElement>(null);
  const place = ({ currentTarget: { value, selectionStart } }: SyntheticEvent<HTMLTextAreaElement>): void =>
    onLine(value.slice(0, selectionStart).split('\n').length);
  const drop = (event: DragEvent): void => {
    setOver(false);
    if (event.dataTransfer.files.length === 0) return;
    event.preventDefault();
    onFiles([...event.dataTransfer.files]);
  };
  const top = mark ? ABOVE + (mark.line - 1) * LINE : 0;
  // What is marked comes into sight.
  const height = rows * LINE;
  if (mark && field.current && document.activeElement !== field.current && (top < field.current.scrollTop || top > field.current.scrollTop + height - LINE))
    field.current.scrollTop = Math.max(0, top - height / 3);
  return (
    <div className={`relative overflow-hidden rounded-[3px] border bg-sheet ${isOver ? 'border-accent' : 'border-rule'} focus-within:border-accent`}>
      {mark && (
        <div
          aria-hidden
          className="pointer-events-none absolute inset-x-0 border-l-4 border-accent bg-tint"
          style={{ top: top - scrolled, height: (mark.lastLine - mark.line + 1) * LINE }}
        />
      )}
      <textarea
        ref={field}
        aria-label={label}
        autoFocus
        wrap="off"
        placeholder={placeholder}
        spellCheck={false}
        value={text}
        onChange={(event) => onChange(event.target.value)}
        onSelect={place}
        onScroll={(event) => setScrolled(event.currentTarget.scrollTop)}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
        className="mono relative block w-full resize-none overflow-auto bg-transparent px-2 outline-none"
        style={{ lineHeight: `${LINE}px`, paddingTop: ABOVE, paddingBottom: ABOVE, height: height + 2 * ABOVE }}
      />
    </div>
  );
}
