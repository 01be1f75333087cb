import { AllGivenItem } from '@wanderon/contract';
import { readText } from '@wanderon/core';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';

const KINDS = ['nameserver', 'A', 'AAAA', 'CNAME', 'TXT', 'MX', 'CAA', 'SRV'] as const;
type Kind = (typeof KINDS)[number];

/** One thing typed by hand: a nameserver, or a record by name, type and value. */
export function AddByHand({ zone, onAdd }: { zone: string; onAdd: (items: readonly AllGivenItem[]) => void }) {
  const [kind, setKind] = useState<Kind>('nameserver');
  const [owner, setOwner] = useState('@');
  const [value, setValue] = useState('');
  const [problem, setProblem] = useState<string>();
  const isServer = kind === 'nameserver';
  const submit = (): void => {
    const items = typed(kind, owner, value, zone);
    if (items.length === 0) {
      setProblem(isServer ? 'This is no name of a nameserver, such as ns1.host.example.' : `This is no value of a ${kind} record.`);
      return;
    }
    onAdd(items);
    setValue('');
    setProblem(undefined);
  };
  return (
    <form
      className="mt-1"
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <div className="flex items-baseline gap-1.5">
        <select aria-label="What it is" className={inputLook} style={{ width: '9rem' }} value={kind} onChange={(event) => setKind(event.target.value as Kind)}>
          {KINDS.map((one) => (
            <option key={one} value={one}>
              {one === 'nameserver' ? one : `${one} record`}
            </option>
          ))}
        </select>
        {!isServer && (
          <input
            aria-label="Name"
            className={`${inputLook} mono`}
            style={{ width: '6rem' }}
            value={owner}
            spellCheck={false}
            autoCapitalize="none"
            onChange={(event) => setOwner(event.target.value)}
          />
        )}
        <input
          aria-label="Value"
          aria-invalid={problem !== undefined}
          className={`${inputLook} mono min-w-0`}
          placeholder={isServer ? 'ns1.host.example' : ''}
          value={value}
          spellCheck={false}
          autoCapitalize="none"
          onChange={(event) => {
            setValue(event.target.value);
            setProblem(undefined);
          }}
        />
        <Button type="submit" disabled={value.trim() === ''}>
          Add
        </Button>
      </div>
      {problem !== undefined && (
        <p role="alert" className="text-sm text-rust">
          {problem}
        </p>
      )}
    </form>
  );
}

/** What was typed, read as any text is; a value that was typed by hand is no question. */
function typed(kind: Kind, owner: string, value: string, zone: string): AllGivenItem[] {
  const text = kind === 'TXT' && !/^\s*"/.test(value) ? `"${value.trim()}"` : value.trim();
  const line = kind === 'nameserver' ? value.split(/[\s,;]+/).join('\n') : `${owner.trim() || '@'}\t${kind}\t${text}`;
  return readText(line, { zone, as: 'new', own: [] }).finds.flatMap((find): AllGivenItem[] => {
    if (find.kind === 'name' || find.trust === 'out' || find.data === '' || (kind === 'nameserver') !== (find.kind === 'nameserver')) return [];
    if (find.kind === 'record' && find.type !== kind) return [];
    return [{ kind: find.kind, owner: find.owner, type: find.type, data: find.data, doubts: [] }];
  });
}
