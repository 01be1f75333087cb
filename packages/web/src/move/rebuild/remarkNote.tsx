import { RemarkView } from '@wanderon/contract';
import { FormEvent, useState } from 'react';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { inputLook } from '../../ui/field';
import { useToast } from '../../ui/toast';
import { ownerBelow } from '../owner';

/** Keys that make the first fix of a row and the second one. */
export const FIX_KEYS = ['m', 'M'] as const;

/** What people can make of the remarks of the row under the cursor; undefined where they may not. */
export interface Mending {
  readonly mend: (remark: RemarkView, fix: RemarkView['fixes'][number]) => void;
  readonly letBe: (remark: RemarkView) => void;
}

/** The fixes of a row in the order of their keys. */
export function fixesOf(remarks: readonly RemarkView[]): { readonly remark: RemarkView; readonly fix: RemarkView['fixes'][number] }[] {
  return remarks.filter((remark) => remark.waived === null).flatMap((remark) => remark.fixes.map((fix) => ({ remark, fix })));
}

/** One remark of the row under the cursor, each fix shown as the rows that it makes. */
export function RemarkNote({ remark, keys, domain, mending }: { remark: RemarkView; keys: readonly string[]; domain: string; mending: Mending | undefined }) {
  const letBe = mending && (
    <button type="button" className="cursor-pointer text-faded underline hover:text-ink" onClick={() => mending.letBe(remark)}>
      {remark.waived === null ? 'Skip it' : 'No longer'}
    </button>
  );
  if (remark.waived !== null)
    return (
      <span className="block text-faded">
        <s className="decoration-1">{remark.text}</s> Skipped: {remark.waived} {letBe}
      </span>
    );
  return (
    <span className="mb-1 block">
      <span className={remark.weight === 'stop' ? 'font-semibold text-rust' : ''}>
        {remark.weight === 'stop' && 'Stop: '}
        {remark.text}
      </span>{' '}
      {letBe}
      {remark.fixes.map((fix, index) => (
        <span key={fix.key} className="block">
          {mending ? (
            <button type="button" className="cursor-pointer text-left text-accent hover:underline" onClick={() => mending.mend(remark, fix)}>
              {keys[index] && <kbd className="mr-1.5 rounded-[2px] border border-rule px-1">{keys[index]}</kbd>}
              {fix.text}
            </button>
          ) : (
            fix.text
          )}
          {fix.rows.map(({ owner, type, after }) => (
            <span key={owner + type} className="mono ml-3 inline-block max-w-full align-top [overflow-wrap:anywhere] text-faded">
              <b className="font-semibold">{ownerBelow(owner, domain)}</b> {type}{' '}
              <span className={after ? 'text-ink' : 'italic'}>{after ? after.join(', ') : 'taken out'}</span>
            </span>
          ))}
        </span>
      ))}
    </span>
  );
}

/** Lets a remark be, with the reason that goes on record. */
export function LetBeDialog({ move, remark, onClose }: { move: string; remark: RemarkView; onClose: () => void }) {
  const { fail } = useToast();
  const [reason, setReason] = useState('');
  const letBe = useLetBe(move);
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    letBe.mutate(said(remark, reason), { onError: fail, onSuccess: onClose });
  };
  return (
    <Dialog open onClose={onClose} title="Skip this remark">
      <form onSubmit={submit} noValidate>
        <p>
          <span className="mono">
            {remark.owner} {remark.type}
          </span>
          : {remark.text}
        </p>
        <label className="mt-3 block">
          <span className="mb-0.5 block font-semibold">Why it may be so</span>
          <input autoFocus value={reason} onChange={(event) => setReason(event.target.value)} className={inputLook} />
        </label>
        <p className="mt-1 text-sm text-faded">It is on record with your name, and comes back once its row is changed.</p>
        <div className="mt-4 flex gap-2">
          <Button kind="main" type="submit" disabled={letBe.isPending || reason.trim().length < 3}>
            Skip it
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}

/** Decides about a remark; `reason` null: no longer let be. */
export function useLetBe(move: string) {
  return useMoveAction<ReturnType<typeof said>>(move, 'POST', () => '/remarks');
}

export function said({ owner, type, code, fact }: RemarkView, reason: string | null) {
  return { owner, type, code, fact, reason };
}
