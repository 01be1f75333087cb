import { MoveView, RulingView } from '@wanderon/contract';
import { BY_HAND, CheckBasis, Name, RowAsIf, readRow, rowSeen } from '@wanderon/core';
import { FormEvent, useMemo, useState } from 'react';
import { ProblemError, useHosts, useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { Failed } from '../../ui/states';
import { asRuling } from '../asRuling';
import { ownerBelow } from '../owner';
import { useWhatIf } from './useWhatIf';
import { ValueField } from './valueField';
import { WhatIfNote } from './whatIfNote';

/** Repoints a row or adds one. What is shown while typing is what the server checks on saving. */
export function RowEditor({
  move,
  ruling,
  rows,
  checking,
  leaves,
  onClose,
}: {
  move: MoveView;
  ruling: RulingView | undefined;
  rows: readonly RulingView[];
  checking: CheckBasis | null;
  /** The web host that the site leaves: nothing of it is meant any more. */
  leaves: string | null;
  onClose: () => void;
}) {
  const hosts = useHosts(move.id);
  const zone = useMemo(() => Name.parse(`${move.domain}.`), [move.domain]);
  const rulings = useMemo(() => rows.map(asRuling), [rows]);
  const known = useMemo(
    () => (hosts.data ?? []).filter((host) => host.id !== leaves).map((host) => ({ ...host, aliasTarget: host.aliasTarget ?? undefined })),
    [hosts.data, leaves],
  );
  const start = ruling?.planned ?? ruling?.found;
  const [owner, setOwner] = useState(ruling ? ownerBelow(ruling.owner, move.domain) : '');
  const [type, setType] = useState(ruling?.type ?? 'A');
  const [ttl, setTtl] = useState(String(start?.ttl ?? 3600));
  const [data, setData] = useState(start?.data.join('\n') ?? '');
  const [touched, setTouched] = useState(false);
  const edit = useMoveAction<{ ruling: string; ttl: string; data: string; seen: string }>(move.id, 'PUT', () => `/rulings/${ruling?.id}`);
  const add = useMoveAction<{ owner: string; type: string; ttl: string; data: string }>(move.id, 'POST', () => '/rulings');
  const read = readRow(zone, { owner, type, ttl, data });
  const problem = (field: string): string | undefined => (touched && !read.ok && read.field === field ? read.problem : undefined);
  const asIf: RowAsIf[] | undefined = read.ok
    ? [
        {
          ...{ owner: read.set.owner, type: read.set.type },
          row: {
            ...{ owner: read.set.owner, type: read.set.type, planned: read.set, found: ruling?.found ?? undefined, reason: BY_HAND },
            ruling: ruling?.found ? 'repoint' : 'new',
          },
        },
      ]
    : undefined;
  const said = useWhatIf(`${move.domain}.`, checking, rulings, asIf);
  const error = edit.error ?? add.error;

  const submit = (event: FormEvent): void => {
    event.preventDefault();
    setTouched(true);
    if (!read.ok) return;
    if (ruling) edit.mutate({ ruling: ruling.found ? 'repoint' : 'new', ttl, data, seen: rowSeen(asRuling(ruling)) }, { onSuccess: onClose });
    else add.mutate({ owner, type, ttl, data }, { onSuccess: onClose });
  };
  return (
    <Dialog open onClose={onClose} title={ruling ? `${ownerBelow(ruling.owner, move.domain)} ${ruling.type}` : 'New record set'}>
      <form onSubmit={submit} noValidate>
        {!ruling && (
          <div className="grid grid-cols-[1fr_8rem] gap-3">
            <Field
              label="Name"
              mono
              autoFocus
              value={owner}
              onChange={(event) => setOwner(event.target.value)}
              problem={problem('owner')}
              hint={`Below ${move.shown}; @ for the domain itself.`}
            />
            <Field label="Type" mono value={type} onChange={(event) => setType(event.target.value.toUpperCase())} problem={problem('type')} />
          </div>
        )}
        <ValueField
          zone={zone}
          type={type.trim()}
          value={data}
          onChange={(value) => {
            setData(value);
            setTouched(true);
          }}
          problem={problem('data')}
          hosts={known}
          rulings={rulings}
          autoFocus={ruling !== undefined}
        />
        <Field
          label="TTL once finished everywhere"
          mono
          value={ttl}
          onChange={(event) => setTtl(event.target.value)}
          problem={problem('ttl')}
          hint="Seconds, or like 1h30m. Until the move is finished everywhere it is at most 5 minutes."
        />
        {read.ok && read.set.data.join('\n') !== data.trim() && (
          <p className="mb-3">
            Reads as <span className="mono">{read.set.data.join(', ')}</span>
          </p>
        )}
        <WhatIfNote said={said} domain={move.domain} {...(read.ok && { of: read.set })} />
        {error && <Failed error={error instanceof ProblemError ? error : undefined} />}
        <div className="flex gap-2">
          <Button kind="main" type="submit" disabled={edit.isPending || add.isPending}>
            {ruling ? (ruling.found ? 'Change it' : 'Save') : 'Add'}
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
