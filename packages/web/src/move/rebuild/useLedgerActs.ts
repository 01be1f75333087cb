import { Acted, EditRulings, LedgerView, MendInput, MoveView, RemarkView, RulingView } from '@wanderon/contract';
import { Fronting, LedgerRow, Name, RulingEdit, editRows } from '@wanderon/core';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { actsOn, useMoveAction } from '../../api';
import { isShown } from '../../readAnew';
import { unsent } from '../../unsent';
import { useToast } from '../../ui/toast';
import { OwnActs, RowChange, isSameRow } from './ownActs';
import { PendingRows } from './pendingRows';
import { said, useLetBe } from './remarkNote';
import { asDecided, asLedgerRow, seenOf } from './rowViews';

const noBody = (): object => ({});

/** What one key makes of it. */
const NEXT_FRONTING: Readonly<Record<Fronting, Fronting>> = { off: 'later', later: 'on', on: 'off' };

/** What a person does to the rows of a ledger; each act is on the screen with the key that makes it. */
export interface LedgerActs {
  readonly rule: (row: RulingView, ruling: 'carry' | 'drop') => void;
  /** All of them as one decision; true once they are ruled. */
  readonly ruleMany: (rows: readonly RulingView[], ruling: EditRulings['ruling'], data?: string) => Promise<boolean>;
  readonly isRulingMany: boolean;
  readonly turnFronting: (row: RulingView) => void;
  readonly mend: (remark: RemarkView, fix: RemarkView['fixes'][number]) => void;
  /** A remark that was let be counts again. */
  readonly noLonger: (remark: RemarkView) => void;
  readonly undo: () => void;
  readonly redo: () => void;
}

export function useLedgerActs(move: MoveView, zone: Name, rulings: LedgerView['rulings'], me: string, { asShown, hold }: PendingRows): LedgerActs {
  const { fail, say } = useToast();
  const queries = useQueryClient();
  const releases = useRef<(() => void)[]>([]);
  const own = useRef(new OwnActs(me));
  /** An act is being begun of which it is known what it makes of rows. */
  const isKnown = useRef(false);
  const rowOf = useMemo(() => rowsById(rulings), [rulings]);
  const now = (id: string): LedgerRow | null | undefined => {
    const row = rowOf(id);
    if (!row) return undefined;
    const seen = asShown(row);
    return seen ? asLedgerRow(seen) : null;
  };
  /** Rows as they are on the screen, also for an answer that comes long after its act was sent. */
  const shownNow = useRef(now);
  useEffect(() => {
    shownNow.current = now;
  });
  /** Rows as an undo left them, at once, where they are not so already; not where more was done since, which is shown already. */
  const showAnswer = ({ rows }: Acted): void => {
    if (!rows) return;
    isShown(move.id);
    const other = rows.map((one) => asDecided(one, me)).filter(({ id, row }) => !isSameRow(shownNow.current(id), row));
    if (other.length > 0 && unsent.waiting(move.id) === 0) releases.current.push(hold(other));
  };
  const edit = useMoveAction<{ id: string; ruling: string; seen: string }>(
    move.id,
    'PUT',
    ({ id }) => `/rulings/${id}`,
    ({ ruling, seen }) => ({ ruling, seen }),
  );
  const editMany = useMoveAction<EditRulings>(move.id, 'PUT', () => '/rulings');
  const front = useMoveAction<{ owner: string; state: Fronting }>(move.id, 'POST', () => '/fronting');
  const mend = useMoveAction<MendInput>(move.id, 'POST', () => '/mend');
  const letBe = useLetBe(move.id);
  const undo = useMoveAction<void>(move.id, 'POST', () => '/undo', noBody, undefined, showAnswer);
  const redo = useMoveAction<void>(move.id, 'POST', () => '/redo', noBody, undefined, showAnswer);

  /** What is on the screen stays until the last of several acts is read back, whichever it is. */
  const readBack = useCallback((): void => {
    if (queries.isMutating({ mutationKey: actsOn(move.id) }) === 0) for (const one of releases.current.splice(0)) one();
  }, [queries, move.id]);
  useEffect(
    () =>
      queries.getMutationCache().subscribe(({ type, mutation }) => {
        if (type === 'added' && mutation.options.mutationKey?.[1] === move.id) {
          // Anything else was decided on the page: the next undo may be of that.
          if (!isKnown.current) own.current.forget();
        }
        // An act that is only just there does not count as under way yet.
        if (type === 'updated') readBack();
      }),
    [queries, readBack, move.id],
  );
  const failed = (error: unknown): void => {
    own.current.forget();
    fail(error);
  };
  /** The cache tells of an act before what begins it has returned. */
  const known = <T>(begin: () => Promise<T>): Promise<T> => {
    isKnown.current = true;
    const done = begin();
    isKnown.current = false;
    return done;
  };
  const turnBack = (way: 'undo' | 'redo'): void => {
    const rows = own.current[way](now);
    if (rows) {
      isShown(move.id);
      releases.current.push(hold(rows));
    }
    const act = way === 'undo' ? undo : redo;
    void known(() => act.mutateAsync())
      .catch(failed)
      .finally(readBack);
  };
  /** Rows as they will be, at once; nothing where core would not have them so, which the server says in words. */
  const shown = (changed: readonly RulingView[], change: RulingEdit): { readonly release: () => void; readonly changes: readonly RowChange[] } => {
    const before = new Map(changed.map((row) => [row.id, asLedgerRow(row)]));
    const result = editRows(zone, [...before.values()], change);
    const changes = (result.ok ? result.rows : []).map(({ id, row }): RowChange => {
      const was = before.get(id)!;
      return { before: { id, row: was, by: was.decidedBy }, after: { id, row, by: me } };
    });
    return { release: hold(changes.map(({ after }) => after)), changes };
  };
  return {
    rule: (row, ruling) => {
      const { release, changes } = shown([row], { ruling });
      own.current.did(changes);
      isShown(move.id);
      void known(() => edit.mutateAsync({ id: row.id, ruling, seen: seenOf(row) }))
        .catch(failed)
        .finally(() => {
          releases.current.push(release);
          readBack();
        });
    },
    ruleMany: async (rows, ruling, data) => {
      const change = { ruling, ...(data === undefined ? {} : { data }) };
      const { release, changes } = shown(rows, change);
      // Where all are so already nothing is decided.
      if (changes.length > 0) own.current.did(changes);
      try {
        await known(() => editMany.mutateAsync({ rows: rows.map((row) => row.id), seen: rows.map(seenOf), ...change }));
        say(`${rows.length} ${rows.length === 1 ? 'row is' : 'rows are'} decided; u takes all of it back.`);
        return true;
      } catch (error) {
        failed(error);
        return false;
      } finally {
        release();
      }
    },
    isRulingMany: editMany.isPending,
    turnFronting: ({ owner, fronting }) => fronting && front.mutate({ owner, state: NEXT_FRONTING[fronting] }, { onError: fail }),
    mend: ({ owner, type, code }, fix) =>
      mend.mutate({ owner, type, code, fix: fix.key }, { onError: fail, onSuccess: () => say(`${fix.text} u takes it back.`) }),
    noLonger: (remark) => letBe.mutate(said(remark, null), { onError: fail }),
    undo: () => turnBack('undo'),
    redo: () => turnBack('redo'),
  };
}

/** Put together when the first row is asked for: a ledger that is only opened asks for none. */
function rowsById(rows: LedgerView['rulings']): (id: string) => RulingView | undefined {
  let byId: ReadonlyMap<string, RulingView> | undefined;
  return (id) => (byId ??= new Map(rows.map((row) => [row.id, row]))).get(id);
}
