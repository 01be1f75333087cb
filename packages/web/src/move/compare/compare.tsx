import { PlanRead } from '@wanderon/contract';
import { Name, SIDE_KINDS, Side, SideKind, SideRow, compareText, counted, inScope, planFrom, rrsetToText, sideBySide, takenSets } from '@wanderon/core';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useMoveAction } from '../../api';
import { duration } from '../../time';
import { Button } from '../../ui/button';
import { csv } from '../../ui/csv';
import { RecordText } from '../../ui/recordText';
import { saveFile } from '../../ui/saveFile';
import { Failed, Loading } from '../../ui/states';
import { useToast } from '../../ui/toast';
import { VirtualTable } from '../../ui/virtualTable';
import { asRuling } from '../asRuling';
import { LedgerProps } from '../movePlace';
import { ownerBelow } from '../owner';
import { Pasted } from '../../reading/pasted';
import { usePastedText } from '../../reading/pastedText';
import { FOUND, HAND, PLAN, Source, sourceIn, useSide, useSources } from './sources';

const COLUMNS = 'grid-cols-[minmax(7rem,13rem)_4.5rem_minmax(0,1fr)_minmax(0,1fr)_9rem]';

/** Seconds for a record that came without a TTL. */
const TTL = 3600;

/** Two contents of the zone side by side: found, planned, surveyed, served, or in a file at hand. */
export function Compare({ move, leg, may }: LedgerProps) {
  const [search, setSearch] = useSearchParams();
  const zone = useMemo(() => Name.parse(`${move.domain}.`), [move.domain]);
  const pasted = usePastedText(useMemo(() => ({ zone: zone.toString(), as: 'old', own: [] }), [zone]));
  const sources = useSources(leg, move.survey);
  const titleOf = (id: string): string => sources.find((one) => one.id === id)?.title ?? id;
  const left = sourceIn(search.get('a')) ?? FOUND.id;
  const right = sourceIn(search.get('b')) ?? (leg.chosen ? PLAN.id : HAND.id);
  const choose = (which: 'a' | 'b', id: string): void => {
    search.set(which, id);
    setSearch(search, { replace: true });
  };
  const hand = useMemo((): Side => ({ sets: takenSets(pasted.taken, zone, TTL).map(rrsetToText) }), [pasted.taken, zone]);
  const [a, b] = [useSide(leg, left, hand), useSide(leg, right, hand)];
  const inHand = left === HAND.id || right === HAND.id;
  const empty = inHand && hand.sets.length === 0;
  const error = a.error ?? b.error;
  return (
    <section className="flex h-full flex-col max-md:h-auto">
      <h2 className="mb-1 text-[1.25rem] leading-tight">Side by side</h2>
      <div className="mb-2 flex flex-wrap items-baseline gap-x-2 gap-y-1">
        <Choice label="Left" value={left} sources={sources} onChange={(id) => choose('a', id)} />
        <span className="text-faded">against</span>
        <Choice label="Right" value={right} sources={sources} onChange={(id) => choose('b', id)} />
        <button
          type="button"
          className="cursor-pointer text-accent hover:underline"
          onClick={() => setSearch({ ...Object.fromEntries(search), a: right, b: left }, { replace: true })}
        >
          the other way round
        </button>
      </div>
      {inHand && (
        <div className="mb-3 max-h-[45vh] overflow-y-auto border-l-4 border-rule bg-shade px-3 py-2">
          <p className="mb-1">A zone file, or a table of records, as an export or a panel has it.</p>
          <Pasted pasted={pasted} label="The file in hand" rows={12} />
        </div>
      )}
      {error && <Failed error={error} />}
      {!error && !empty && (!a.side || !b.side) && <Loading what="both sides" />}
      {!error && !empty && a.side && b.side && (
        <Difference
          domain={move.domain}
          left={a.side}
          right={b.side}
          titles={[titleOf(left), titleOf(right)]}
          take={
            may && leg.chosen && leg.seen.ts === null && inHand && (left === PLAN.id || right === PLAN.id) ? (
              <TakePlan move={move} leg={leg} hand={hand} />
            ) : null
          }
        />
      )}
    </section>
  );
}

function Choice({ label, value, sources, onChange }: { label: string; value: string; sources: readonly Source[]; onChange: (id: string) => void }) {
  return (
    <select
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      className="max-w-[24rem] rounded-[3px] border border-rule bg-sheet px-1.5 py-0.5 font-semibold"
    >
      {sources.some((one) => one.id === value) || <option value={value}>{value}</option>}
      {sources.map(({ id, title }) => (
        <option key={id} value={id}>
          {title}
        </option>
      ))}
    </select>
  );
}

/** What of a comparison is shown. While a move is under way most TTLs are others than they will be. */
const SHOWS: Readonly<Record<'values' | 'ttls' | 'all', { readonly title: string; readonly kinds: readonly SideKind[] }>> = {
  values: { title: 'other values', kinds: ['changed', 'left', 'right'] },
  ttls: { title: 'other values and TTLs', kinds: ['changed', 'left', 'right', 'TTL'] },
  all: { title: 'every set', kinds: SIDE_KINDS },
};

/** What differs, or everything; and what may be done about it. */
function Difference({
  domain,
  left,
  right,
  titles,
  take,
}: {
  domain: string;
  left: Side;
  right: Side;
  titles: readonly [string, string];
  take: React.ReactNode;
}) {
  const [shows, setShows] = useState<keyof typeof SHOWS>('values');
  const rows = useMemo(() => sideBySide(Name.parse(`${domain}.`), left, right), [domain, left, right]);
  const of = (kinds: readonly SideKind[]) => rows.filter((row) => kinds.includes(row.kind));
  const other = of(SHOWS.values.kinds);
  const [unasked, ttls] = [of(['unasked']).length, of(['TTL']).length];
  const shown = of(SHOWS[shows].kinds);
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-4 pb-1">
        <p role="status">
          <b className="font-semibold">{gistOf(rows.length, unasked, other.length)}</b>
          {ttls > 0 && <span className="text-faded"> · {ttls} with another TTL alone</span>}
          {unasked > 0 && <span className="text-faded"> · {unasked} were not asked for on one side, which says nothing of them</span>}
        </p>
        <div role="group" aria-label="Show" className="flex gap-3">
          {(Object.keys(SHOWS) as (keyof typeof SHOWS)[]).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={shows === one}
              onClick={() => setShows(one)}
              className={`cursor-pointer ${shows === one ? 'font-semibold underline decoration-accent decoration-2 underline-offset-4' : 'text-faded hover:text-ink'}`}
            >
              {SHOWS[one].title}
            </button>
          ))}
        </div>
        <button
          type="button"
          className="cursor-pointer text-sm text-accent hover:underline"
          onClick={() => saveFile(`${domain}.compared.csv`, 'text/csv', csvOf(rows, titles))}
        >
          save as CSV
        </button>
        <span className="ml-auto">{take}</span>
      </div>
      <Rows rows={shown} domain={domain} titles={titles} />
    </>
  );
}

/** Nothing is the same where nothing was held against anything. */
function gistOf(all: number, unasked: number, other: number): string {
  if (all === unasked) return 'There is nothing that stands, or was asked for, on both sides';
  return other === 0 ? `All ${counted(all - unasked, 'record set')} have the same values` : `${counted(other, 'record set')} of ${all} otherwise`;
}

function Rows({ rows, domain, titles }: { rows: readonly SideRow[]; domain: string; titles: readonly [string, string] }) {
  const head = ['Name', 'Type', titles[0], titles[1], 'What differs'].map((title, index) => (
    <span key={index} role="columnheader" className="truncate" title={title}>
      {title}
    </span>
  ));
  return (
    <VirtualTable label="Record sets side by side" columns={`grid ${COLUMNS} gap-x-3`} head={head} rows={rows} height={24} className="min-h-40">
      {(row) => <Row row={row} domain={domain} />}
    </VirtualTable>
  );
}

const WORDS: Readonly<Record<SideKind, string>> = {
  same: 'the same',
  changed: 'other values',
  TTL: 'other TTL',
  left: 'only on the left',
  right: 'only on the right',
  unasked: 'not asked for',
};

function Row({ row: { owner, type, kind, left, right }, domain }: { row: SideRow; domain: string }) {
  const [before, after] = sides(left?.data ?? [], right?.data ?? [], kind === 'changed');
  const quiet = kind === 'same' || kind === 'unasked' ? 'text-faded' : '';
  return (
    <div role="row" className={`grid ${COLUMNS} items-baseline gap-x-3 border-b border-rule py-px leading-[1.35rem] hover:bg-sheet ${quiet}`}>
      <span role="cell" className="mono font-semibold [overflow-wrap:anywhere]">
        {ownerBelow(owner, domain)}
      </span>
      <span role="cell" className="mono text-faded">
        {type}
      </span>
      {[before, after].map((pieces, index) => (
        <span role="cell" key={index} className="min-w-0">
          {pieces.map((one, at) => (
            <span key={at} className="block">
              <RecordText pieces={one} />
            </span>
          ))}
          {pieces.length === 0 && kind !== 'same' && <span className="text-faded italic">{kind === 'unasked' ? '' : 'not there'}</span>}
          {kind === 'TTL' && <span className="block text-sm text-accent">TTL {duration((index === 0 ? left : right)!.ttl)}</span>}
        </span>
      ))}
      <span role="cell" className={kind === 'changed' || kind === 'left' || kind === 'right' ? 'font-semibold text-accent' : 'text-faded'}>
        {WORDS[kind]}
      </span>
    </div>
  );
}

/** Values that stand on both sides first, as they are; the others with what differs in them marked. */
function sides(left: readonly string[], right: readonly string[], marked: boolean) {
  const plain = (text: string) => [{ text, changed: false }];
  if (!marked) return [left.map(plain), right.map(plain)] as const;
  const both = left.filter((one) => right.includes(one));
  const [a, b] = [left.filter((one) => !both.includes(one)), right.filter((one) => !both.includes(one))];
  const pairs = Array.from({ length: Math.max(a.length, b.length) }, (_, index) => compareText(a[index] ?? '', b[index] ?? ''));
  const side = (which: 0 | 1) => [...both.map(plain), ...pairs.map((pair) => pair[which]).filter((pieces) => pieces.length > 0)];
  return [side(0), side(1)] as const;
}

/** Makes the plan what the file in hand has. */
function TakePlan({ move, leg, hand }: Pick<LedgerProps, 'move' | 'leg'> & { hand: Side }) {
  const { fail, say } = useToast();
  const take = useMoveAction<PlanRead>(move.id, 'PUT', () => '/plan');
  const rows = useMemo(
    () => planFrom(Name.parse(`${move.domain}.`), leg.rulings.map(asRuling), hand.sets, (owner, type) => inScope(move.scope, owner, type)),
    [move.domain, move.scope, leg.rulings, hand.sets],
  );
  if (rows.length === 0) return null;
  return (
    <Button
      kind="main"
      disabled={take.isPending}
      title="One decision, which one undo in Rebuild takes back"
      onClick={() =>
        take.mutate(
          { sets: hand.sets.map((set) => ({ ...set, data: [...set.data] })) },
          { onError: fail, onSuccess: () => say(`${counted(rows.length, 'row')} of the plan changed; u in Rebuild takes it back.`) },
        )
      }
    >
      Make the plan like the file: {counted(rows.length, 'row')}
    </Button>
  );
}

function csvOf(rows: readonly SideRow[], [left, right]: readonly [string, string]): string {
  return csv(
    ['name', 'type', `${left}: TTL`, left, `${right}: TTL`, right, 'what differs'],
    rows.map((row) => [
      ...[row.owner, row.type],
      ...[row.left, row.right].flatMap((set) => [String(set?.ttl ?? ''), set?.data.join(' | ') ?? '']),
      WORDS[row.kind],
    ]),
  );
}
