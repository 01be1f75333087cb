import { Cleaned, HostKnowledge, Name, Ruling, cleanPasted, readRow, suggestValues, withSuggested } from '@wanderon/core';
import { ClipboardEvent, KeyboardEvent, useRef, useState } from 'react';
import { inputLook } from '../../ui/field';

/** The values of a record set, one a line: what is pasted is cleaned, with what was cleaned said, and what may be meant is offered. */
export function ValueField({
  zone,
  type,
  value,
  onChange,
  problem,
  hosts,
  rulings,
  autoFocus,
}: {
  zone: Name;
  type: string;
  value: string;
  onChange: (value: string) => void;
  problem: string | undefined;
  hosts: readonly HostKnowledge[];
  rulings: readonly Ruling[];
  autoFocus: boolean;
}) {
  const field = useRef<HTMLTextAreaElement>(null);
  const [cleaned, setCleaned] = useState<Cleaned & { readonly before: string }>();
  const [line, setLine] = useState<{ readonly from: number; readonly text: string }>({ from: 0, text: '' });
  const offered = suggestValues(type, line.text, hosts, rulings);
  // Text without quotes is parted at its blanks, and ends at a semicolon: where that makes it another one, it is said.
  const meant = cleanPasted(zone, type, value);
  const loose = type === 'TXT' && value.trim() !== '' && dataOf(zone, value) !== dataOf(zone, meant.text);
  const follow = (): void => {
    const { value: text, selectionStart } = field.current!;
    const from = text.lastIndexOf('\n', selectionStart - 1) + 1;
    setLine({ from, text: text.slice(from, selectionStart) });
  };
  const take = (index: number): void => {
    const end = line.from + line.text.length;
    const fresh = withSuggested(line.text, offered[index]!);
    onChange(`${value.slice(0, line.from)}${fresh}${value.slice(end)}`);
    setLine({ from: line.from, text: fresh });
    field.current!.focus();
  };
  const paste = (event: ClipboardEvent<HTMLTextAreaElement>): void => {
    const pasted = event.clipboardData.getData('text');
    const result = cleanPasted(zone, type, pasted);
    if (result.said.length === 0) return;
    event.preventDefault();
    const { selectionStart, selectionEnd } = event.currentTarget;
    const around = (text: string): string => `${value.slice(0, selectionStart)}${text}${value.slice(selectionEnd)}`;
    setCleaned({ ...result, before: around(pasted) });
    onChange(around(result.text));
    const last = result.text.slice(result.text.lastIndexOf('\n') + 1);
    setLine({ from: selectionStart + result.text.length - last.length, text: last });
  };
  const press = (event: KeyboardEvent<HTMLTextAreaElement>): void => {
    if (event.key !== 'Tab' || event.shiftKey || line.text.trim() === '' || offered.length === 0) return;
    event.preventDefault();
    take(0);
  };
  return (
    <div className="mb-3">
      <label className="block">
        <span className="mb-0.5 block font-semibold">Value</span>
        <textarea
          ref={field}
          rows={4}
          autoFocus={autoFocus}
          spellCheck={false}
          value={value}
          aria-invalid={problem !== undefined}
          onChange={(event) => {
            setCleaned(undefined);
            onChange(event.target.value);
            follow();
          }}
          onSelect={follow}
          onKeyDown={press}
          onPaste={paste}
          className={`${inputLook} mono`}
        />
      </label>
      {cleaned && (
        <p role="status" className="text-sm">
          Cleaned: {cleaned.said.join('; ')}.{' '}
          <button
            type="button"
            className="cursor-pointer text-accent hover:underline"
            onClick={() => {
              onChange(cleaned.before);
              setCleaned(undefined);
            }}
          >
            as it was pasted
          </button>
        </p>
      )}
      {loose && !cleaned && (
        <p className="text-sm text-rust">
          Without quotes it is read as something else.{' '}
          <button type="button" className="cursor-pointer text-accent hover:underline" onClick={() => onChange(meant.text)}>
            Quote it
          </button>
        </p>
      )}
      {offered.length > 0 && (
        <p className="flex flex-wrap items-baseline gap-x-3 text-sm text-faded">
          {offered.map((one, index) => (
            <button key={one.text} type="button" className="cursor-pointer hover:text-accent" onClick={() => take(index)}>
              <span className="mono">{one.text}</span> {one.of}
              {index === 0 && line.text.trim() !== '' && <span className="text-accent"> Tab</span>}
            </button>
          ))}
        </p>
      )}
      <p className={problem ? 'text-rust' : 'text-sm text-faded'}>
        {problem ?? (loose ? undefined : stringsOf(type, value)) ?? 'One record a line. A name without final dot is below the zone.'}
      </p>
    </div>
  );
}

/** What a text is read as; undefined where it is none. */
function dataOf(zone: Name, text: string): string | undefined {
  const read = readRow(zone, { owner: '@', type: 'TXT', ttl: '0', data: text });
  return read.ok ? read.set.data.join('\n') : undefined;
}

/** Into how many strings a text is split, which some panels ask for. */
function stringsOf(type: string, value: string): string | undefined {
  if (type !== 'TXT' || value.trim() === '') return undefined;
  const counts = value
    .trim()
    .split('\n')
    .map((line) => (line.match(/"(?:[^"\\]|\\.)*"/gs) ?? [line]).length);
  return counts.every((count) => count === 1) ? 'One string a line.' : `In ${counts.join(' and ')} strings, which their readers join.`;
}
