import { MakeRule, MoveView } from '@wanderon/contract';
import { Name, RULE_RULINGS, RULING_LABELS, RowAsIf, StandingRule, readRuleTo, rowSeen, ruleWords, ruledBy } from '@wanderon/core';
import { FormEvent, useDeferredValue, useId, useMemo, useState } from 'react';
import { useHosts, useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field, inputLook } from '../../ui/field';
import { Failed } from '../../ui/states';
import { useToast } from '../../ui/toast';
import { LedgerProps } from '../movePlace';
import { asLedgerRow } from './rowViews';
import { RulePreview } from './rulePreview';
import { useWhatIf } from './useWhatIf';
import { WhatIfNote } from './whatIfNote';

const RULING_WORDS: Readonly<Record<StandingRule['ruling'], string>> = { repoint: 'leads to', carry: 'is kept', drop: 'is left out' };

/** Rules every row of a kind at once: what is like a text, or in a group, or both; shown first as the rows that it changes. */
export function RuleDialog({
  move,
  leg,
  groups,
  start,
  onClose,
}: {
  move: MoveView;
  leg: LedgerProps['leg'];
  /** Titles of the groups of the ledger that can be ruled. */
  groups: readonly string[];
  /** What the ledger is filtered by. */
  start: string;
  onClose: () => void;
}) {
  const zone = useMemo(() => Name.parse(`${move.domain}.`), [move.domain]);
  const rows = useMemo(() => leg.rulings.map(asLedgerRow), [leg.rulings]);
  const hosts = useHosts(move.id);
  const goes = hosts.data?.find((host) => host.id === leg.newWebHost);
  const offered = [...(goes?.addresses ?? []), ...(goes?.aliasTarget ? [goes.aliasTarget] : [])].join(' ');
  const [like, setLike] = useState(start);
  const [group, setGroup] = useState<string | null>(null);
  const [ruling, setRuling] = useState<StandingRule['ruling']>('repoint');
  const [to, setTo] = useState<string>();
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const { say, fail } = useToast();
  const make = useMoveAction<MakeRule>(move.id, 'PUT', () => '/rules');
  const end = useMoveAction<number>(move.id, 'DELETE', (id) => `/rules/${id}`);
  const ids = { group: useId(), like: useId() };
  const typed = to ?? offered;
  const read = ruling === 'repoint' ? readRuleTo(zone, typed) : { ok: true as const, to: [] };
  const rule: StandingRule = { like: useDeferredValue(like), group, ruling, to: read.ok ? read.to : [] };
  const isAnything = rule.like.trim() !== '' || group !== null;
  const key = JSON.stringify(rule);
  const ruled = useMemo(
    () => (isAnything && read.ok ? ruledBy(zone, rows, rule, leg.purposes) : { changes: [], same: 0, left: [] }),
    // The rule is the same as long as it reads the same.
    [zone, rows, key, isAnything, read.ok, leg.purposes],
  );
  const alike = useMemo(() => {
    const { changes, same, left } = ruledBy(zone, rows, { ...rule, ruling: 'drop' }, leg.purposes);
    return changes.length + same + left.length;
  }, [zone, rows, rule.like, group, leg.purposes]);
  const taken = ruled.changes.filter(({ before }) => !without.has(before.id));
  const asIf: RowAsIf[] = taken.map(({ before: { owner, type }, row }) => ({ owner, type, row: row ?? undefined }));
  const said = useWhatIf(`${move.domain}.`, leg.checking, rows, asIf.length > 0 ? asIf : undefined);
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (!isAnything || !read.ok) return;
    const here = new Set(ruled.changes.map(({ before }) => before.id));
    make.mutate(
      {
        ...{ like, group, ruling, to: ruling === 'repoint' ? typed : '' },
        ...{ rows: taken.map(({ before }) => before.id), seen: taken.map(({ before }) => rowSeen(before)), except: [...without].filter((id) => here.has(id)) },
      },
      {
        onSuccess: () => {
          say(`${ruleWords(rule)}: ${taken.length} ${taken.length === 1 ? 'row is' : 'rows are'} decided. u takes it back.`);
          onClose();
        },
      },
    );
  };
  const leftWords = [...new Set(ruled.left.map(({ why }) => why))].map((why) => `${ruled.left.filter((one) => one.why === why).length} stay: ${why}`);
  return (
    <Dialog open onClose={onClose} title="Rule every row of a kind" wide>
      <form onSubmit={submit} noValidate>
        <div className="grid grid-cols-[minmax(0,1fr)_14rem] gap-3">
          <Field
            label="Everything like"
            mono
            autoFocus
            spellCheck={false}
            placeholder="whatever stands there"
            value={like}
            onChange={(event) => setLike(event.target.value)}
            hint="As in the filter: a name, a type, a value, or a range such as 203.0.113.0/24 for what leads there."
          />
          <div>
            <label htmlFor={ids.group} className="mb-0.5 block font-semibold">
              in
            </label>
            <select id={ids.group} value={group ?? ''} onChange={(event) => setGroup(event.target.value || null)} className={inputLook}>
              <option value="">every group</option>
              {groups.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </div>
        </div>
        <div role="radiogroup" aria-label="What becomes of it" className="mb-2 flex gap-4">
          {RULE_RULINGS.map((one) => (
            <label key={one} className="flex cursor-pointer items-center gap-1.5 font-semibold">
              <input type="radio" name="ruling" checked={ruling === one} onChange={() => setRuling(one)} className="size-4 accent-(--accent)" />
              {RULING_WORDS[one]}
            </label>
          ))}
        </div>
        {ruling === 'repoint' && (
          <Field
            label="Where it leads then"
            mono
            spellCheck={false}
            value={typed}
            onChange={(event) => setTo(event.target.value)}
            problem={typed.trim() !== '' && !read.ok ? read.problem : undefined}
            hint="Addresses, and a name for aliases. Of a set that holds other addresses as well, only those go that are like it."
          />
        )}
        {isAnything && !read.ok && (
          <p className="mb-1" role="status">
            <b className="font-semibold">{alike === 1 ? '1 row is' : `${alike} rows are`} like this.</b> Say where {alike === 1 ? 'it leads' : 'they lead'}{' '}
            then.
          </p>
        )}
        {isAnything && read.ok && (
          <p className="mb-1" role="status">
            <b className="font-semibold">
              {ruled.changes.length === 0 ? 'No row changes' : `${taken.length} ${taken.length === 1 ? 'row changes' : 'rows change'}`}
            </b>
            {ruled.same > 0 && ` · ${ruled.same} ${ruled.same === 1 ? 'is' : 'are'} so already`}
            {leftWords.length > 0 && <span className="text-faded"> · {leftWords.join(' · ')}</span>}
          </p>
        )}
        {ruled.changes.length > 0 && (
          <RulePreview
            move={move}
            rows={ruled.changes.map(({ before, row }) => ({
              ...{ id: before.id, owner: before.owner, type: before.type, before: (before.planned ?? before.found)?.data ?? [] },
              ...{ after: row?.planned?.data, ruling: row ? RULING_LABELS[row.ruling] : '' },
            }))}
            without={without}
            onTurn={(id) => setWithout(turned(without, id))}
          />
        )}
        <WhatIfNote said={said} domain={move.domain} />
        {make.error && <Failed error={make.error} />}
        <div className="mt-3 flex items-baseline gap-2">
          <Button kind="main" type="submit" disabled={make.isPending || !isAnything || !read.ok}>
            {taken.length === 0 ? 'Make it a rule' : `Rule ${taken.length} ${taken.length === 1 ? 'row' : 'rows'}`}
          </Button>
          <Button onClick={onClose}>Leave it</Button>
          <span className="text-sm text-faded">Offered, never applied by itself, to rows that come later.</span>
        </div>
      </form>
      {leg.rules.length > 0 && (
        <div className="mt-4 border-t border-ink pt-2">
          <h3 className="smallcaps">Rules that stand</h3>
          {leg.rules.map(({ id, words, who }) => (
            <p key={id} className="flex items-baseline justify-between gap-3 border-b border-rule py-1">
              <span className="[overflow-wrap:anywhere]">
                {words} <span className="text-faded">{who}</span>
              </span>
              <Button
                kind="quiet"
                disabled={end.isPending}
                onClick={() => end.mutate(id, { onError: fail, onSuccess: () => say('The rule is over; what was decided by it stays. u takes that back.') })}
              >
                It is over
              </Button>
            </p>
          ))}
        </div>
      )}
    </Dialog>
  );
}

/** A set with an id put in, or taken out where it was in. */
export function turned(all: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const next = new Set(all);
  if (!next.delete(id)) next.add(id);
  return next;
}
