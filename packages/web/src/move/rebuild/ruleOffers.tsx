import { LedgerView, MoveView, TakeRule } from '@wanderon/contract';
import { LedgerRow, rowSeen } from '@wanderon/core';
import { useMemo, useState } from 'react';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed } from '../../ui/states';
import { useToast } from '../../ui/toast';
import { ownerBelow } from '../owner';
import { asLedgerRow } from './rowViews';
import { turned } from './ruleDialog';
import { RulePreview } from './rulePreview';

/** Names that are said of rows that came later. */
const NAMED = 3;

/** Rules that would change rows which came after they were made: offered, with the rows as they would be. */
export function RuleOffers({ move, ledger }: { move: MoveView; ledger: LedgerView }) {
  const [looking, setLooking] = useState<number>();
  const offers = ledger.rules.filter((rule) => rule.rows.length > 0);
  const looked = offers.find((rule) => rule.id === looking);
  // Of thousands of rows nothing is put together at each key where nothing is offered.
  const isOffered = offers.length > 0;
  const byId = useMemo(() => new Map((isOffered ? ledger.rulings : []).map((row) => [row.id, asLedgerRow(row)])), [ledger.rulings, isOffered]);
  return (
    <>
      {offers.map(({ id, words, who, rows: later }) => {
        const names = later.slice(0, NAMED).flatMap((one) => {
          const row = byId.get(one.id);
          return row ? [`${ownerBelow(row.owner, move.domain)} ${row.type}`] : [];
        });
        return (
          <p key={id} role="status" className="my-1 flex items-baseline justify-between gap-3 border-l-4 border-accent bg-shade px-3 py-1">
            <span>
              “{words}”{who && ` (${who})`}: {later.length} {later.length === 1 ? 'row' : 'rows'} came later, <span className="mono">{names.join(', ')}</span>
              {later.length > names.length && ` and ${later.length - names.length} more`}.
            </span>
            <Button kind="quiet" onClick={() => setLooking(id)}>
              Look at {later.length === 1 ? 'it' : 'them'}
            </Button>
          </p>
        );
      })}
      {looked && <OfferDialog move={move} rule={looked} byId={byId} onClose={() => setLooking(undefined)} />}
    </>
  );
}

function OfferDialog({
  move,
  rule,
  byId,
  onClose,
}: {
  move: MoveView;
  rule: LedgerView['rules'][number];
  byId: ReadonlyMap<string, LedgerRow>;
  onClose: () => void;
}) {
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const { say } = useToast();
  const take = useMoveAction<TakeRule>(move.id, 'POST', () => `/rules/${rule.id}`);
  const end = useMoveAction<void>(move.id, 'DELETE', () => `/rules/${rule.id}`);
  const rows = rule.rows.flatMap(({ id, planned, ruling }) => {
    const row = byId.get(id);
    return row ? [{ id, row, after: planned?.data, ruling: ruling ?? '' }] : [];
  });
  const taken = rows.filter(({ id }) => !without.has(id)).map(({ row }) => row);
  return (
    <Dialog open onClose={onClose} title={rule.words} wide>
      <p className="mb-2">These rows came, or changed at the old host, after the rule was made. It counts for them only if you say so.</p>
      <RulePreview
        move={move}
        rows={rows.map(({ row, ...more }) => ({ ...more, owner: row.owner, type: row.type, before: (row.planned ?? row.found)?.data ?? [] }))}
        without={without}
        onTurn={(id) => setWithout(turned(without, id))}
      />
      {(take.error ?? end.error) && <Failed error={(take.error ?? end.error)!} />}
      <div className="mt-3 flex gap-2">
        <Button
          kind="main"
          disabled={take.isPending || taken.length === 0}
          onClick={() =>
            take.mutate(
              { rows: taken.map(({ id }) => id), seen: taken.map(rowSeen) },
              {
                onSuccess: () => {
                  say(`${taken.length} ${taken.length === 1 ? 'row is' : 'rows are'} decided; u takes it back.`);
                  onClose();
                },
              },
            )
          }
        >
          Rule {taken.length} {taken.length === 1 ? 'row' : 'rows'} so
        </Button>
        <Button disabled={end.isPending} onClick={() => end.mutate(undefined, { onSuccess: onClose })}>
          The rule is over
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Dialog>
  );
}
