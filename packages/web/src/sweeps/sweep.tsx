import { Me, SweepAction, SweepRow, SweepView } from '@wanderon/contract';
import { GRADE_WORDS, Risk, counted, riskOf, showName } from '@wanderon/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { SortingState, Table, createColumnHelper, getCoreRowModel, getFilteredRowModel, getSortedRowModel, useReactTable } from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { call } from '../api';
import { useSweepProgress } from '../live';
import { fullTime, shortTime } from '../time';
import { Button } from '../ui/button';
import { inputLook } from '../ui/field';
import { csv } from '../ui/csv';
import { saveFile } from '../ui/saveFile';
import { Failed, Loading } from '../ui/states';
import { useToast } from '../ui/toast';
import { VirtualTable } from '../ui/virtualTable';

/** Milliseconds between two looks at a sweep under way. */
const LOOK = 2000;
const GRID =
  'grid grid-cols-[minmax(0,15rem)_minmax(0,17rem)_6.5rem_3.5rem_minmax(0,9rem)_6.5rem_minmax(0,1fr)] gap-x-3 max-md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]';

interface Rated {
  readonly row: SweepRow;
  readonly shown: string;
  /** Undefined while it waits. */
  readonly risk: Risk | undefined;
}

const column = createColumnHelper<Rated>();
const NOT_KNOWN = { sortUndefined: 'last' } as const;
/** What a sweep is sorted by, each beginning with what matters most; the other way round when asked again. */
const COLUMNS = [
  column.accessor('shown', { id: 'domain', header: 'Domain', sortingFn: 'text', sortDescFirst: false }),
  column.accessor((one) => one.risk?.score, { id: 'risk', header: 'Risk', sortDescFirst: true, ...NOT_KNOWN }),
  column.accessor((one) => one.row.gist?.grade, { id: 'inventory', header: 'Inventory', sortDescFirst: false, ...NOT_KNOWN }),
  column.accessor((one) => one.row.gist?.sets, { id: 'sets', header: 'Sets', sortDescFirst: true, ...NOT_KNOWN }),
  column.accessor((one) => one.row.gist?.dnsHost ?? undefined, { id: 'host', header: 'DNS host', sortingFn: 'text', sortDescFirst: false, ...NOT_KNOWN }),
  column.accessor((one) => one.row.gist?.expires ?? undefined, { id: 'until', header: 'Registered until', sortDescFirst: false, ...NOT_KNOWN }),
  column.accessor((one) => one.row.problem ?? one.row.gist?.said.join(' '), { id: 'said', header: 'What to know', enableSorting: false }),
];

/** Everything that is said of a domain is found by the filter. */
function isFound({ original: { row, shown, risk } }: { original: Rated }, _column: string, text: string): boolean {
  const { gist } = row;
  const words = [
    shown,
    row.domain,
    row.state,
    row.problem,
    risk?.words,
    gist && GRADE_WORDS[gist.grade],
    gist?.dnsHost,
    gist?.registrar,
    ...(gist?.said ?? []),
  ];
  return words.filter(Boolean).join(' ').toLowerCase().includes(text.trim().toLowerCase());
}

/** One sweep: how far it is, what is asked now, and what came of each domain, the riskiest first. */
export function SweepPlace({ me }: { me: Me }) {
  const { id = '' } = useParams();
  const sweep = useQuery({
    queryKey: ['sweep', id],
    queryFn: () => call<SweepView>('GET', `/api/sweeps/${id}`),
    refetchInterval: (query) => (query.state.data?.state === 'running' ? LOOK : false),
  });
  if (sweep.isPending)
    return (
      <div className="px-4 py-5">
        <Loading what="the sweep" />
      </div>
    );
  if (sweep.isError)
    return (
      <div className="mx-auto w-full max-w-xl px-4 py-5">
        <Failed error={sweep.error} retry={() => void sweep.refetch()} />
      </div>
    );
  return <Sweep sweep={sweep.data} may={me.role !== 'viewer'} />;
}

function Sweep({ sweep, may }: { sweep: SweepView; may: boolean }) {
  const queries = useQueryClient();
  const { fail } = useToast();
  const act = useMutation({
    mutationFn: (action: SweepAction['action']) => call<SweepView>('POST', `/api/sweeps/${sweep.id}`, { action }),
    onSuccess: (changed) => queries.setQueryData(['sweep', sweep.id], changed),
    onError: fail,
  });
  const [sorting, setSorting] = useState<SortingState>([{ id: 'risk', desc: true }]);
  const [filter, setFilter] = useState('');
  const rated = useMemo(
    () =>
      sweep.rows.map((row): Rated => ({
        row,
        shown: showName(row.domain),
        risk: row.state === 'done' || row.state === 'failed' ? riskOf(row.gist ?? undefined) : undefined,
      })),
    [sweep.rows],
  );
  const table = useReactTable({
    data: rated,
    columns: COLUMNS,
    state: { sorting, globalFilter: filter },
    onSortingChange: setSorting,
    globalFilterFn: isFound,
    getColumnCanGlobalFilter: () => true,
    enableSortingRemoval: false,
    getRowId: ({ row }) => row.domain,
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const rows = table.getRowModel().rows.map((one) => one.original);
  const [sorted] = sorting;
  const all = sweep.rows.length;
  const finished = all - sweep.waiting;
  return (
    <div className="flex h-[calc(100vh-2.45rem)] flex-col px-4 py-4 max-md:h-auto">
      <div className="mb-2 flex items-start justify-between gap-6">
        <div className="min-w-0">
          <Link to="/moves/sweeps" className="text-sm text-faded hover:text-accent">
            Sweeps
          </Link>
          <h1 className="truncate">{sweep.name}</h1>
          <p>
            {headline(sweep, finished)}
            <span className="text-faded" title={fullTime(sweep.createdAt)}>
              {' '}
              · begun {shortTime(sweep.createdAt)}
              {sweep.by && ` by ${sweep.by}`}
            </span>
          </p>
        </div>
        {may && (
          <div className="flex shrink-0 flex-wrap gap-2">
            {sweep.state === 'running' && <Button onClick={() => act.mutate('pause')}>Pause</Button>}
            {sweep.state === 'paused' && (
              <Button kind="main" onClick={() => act.mutate('resume')}>
                Go on
              </Button>
            )}
            {(sweep.state === 'running' || sweep.state === 'paused') && <Button onClick={() => act.mutate('cancel')}>Cancel the rest</Button>}
            {sweep.state !== 'running' && sweep.failed + sweep.cancelled > 0 && (
              <Button onClick={() => act.mutate('retry')}>Survey the {counted(sweep.failed + sweep.cancelled, 'missing one')}</Button>
            )}
          </div>
        )}
      </div>
      {sweep.waiting > 0 && (
        <div className="mb-1 h-[3px] bg-rule" role="progressbar" aria-label="Domains surveyed" aria-valuemin={0} aria-valuemax={all} aria-valuenow={finished}>
          <div className="h-full bg-accent" style={{ width: `${(100 * finished) / all}%` }} />
        </div>
      )}
      {sweep.state === 'running' && <Now sweep={sweep.id} />}
      <div className="mt-2 mb-1 flex items-end justify-between gap-4">
        <span className="text-faded">
          {rows.length === all ? counted(all, 'domain') : `${rows.length} of ${counted(all, 'domain')}`}, by {sorted!.id}
        </span>
        <span className="flex items-baseline gap-4">
          <button
            type="button"
            className="cursor-pointer text-sm whitespace-nowrap text-accent hover:underline"
            onClick={() => saveFile(`${sweep.name}.csv`, 'text/csv', csvOf(rows))}
          >
            Save as CSV
          </button>
          <input
            aria-label="Filter domains"
            placeholder="Filter"
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
            className={`${inputLook} w-52 py-0.5`}
          />
        </span>
      </div>
      <Rows table={table} rows={rows} />
      {rows.length === 0 && <p className="py-4 text-faded">Nothing matches “{filter}”.</p>}
    </div>
  );
}

/** What is being asked at this moment. */
function Now({ sweep }: { sweep: string }) {
  const doing = useSweepProgress(sweep);
  return (
    <div role="status" className="min-h-[4.4rem] text-sm leading-snug">
      {doing.length === 0 && <p className="text-faded">Waiting for a worker …</p>}
      {doing.slice(0, 3).map(({ domain, progress }) => (
        <p key={domain} className="truncate">
          <b className="font-semibold">{showName(domain)}</b> {progress.doing}
          {progress.asked > 0 && <span className="text-faded">, {progress.asked} asked</span>}
        </p>
      ))}
      {doing.length > 3 && <p className="text-faded">and {doing.length - 3} more at once</p>}
    </div>
  );
}

function Rows({ table, rows }: { table: Table<Rated>; rows: readonly Rated[] }) {
  const [sorted] = table.getState().sorting;
  const head = table.getFlatHeaders().map(({ column: one, id }) => {
    const by = one.getIsSorted();
    const title = String(one.columnDef.header);
    return (
      <span key={id} role="columnheader" aria-sort={by ? (by === 'desc' ? 'descending' : 'ascending') : undefined} className="max-md:hidden">
        {one.getCanSort() ? (
          <button
            type="button"
            className={`cursor-pointer uppercase hover:text-accent ${by ? 'text-ink underline' : ''}`}
            onClick={one.getToggleSortingHandler()}
          >
            {title}
          </button>
        ) : (
          title
        )}
      </span>
    );
  });
  return (
    <VirtualTable
      label="Domains surveyed"
      columns={GRID}
      head={head}
      rows={rows}
      height={50}
      keyOf={({ row }) => row.domain}
      from={`${sorted!.id} ${String(sorted!.desc)}`}
      className="min-h-0 max-md:max-h-[70vh]"
    >
      {(rated) => <Row rated={rated} />}
    </VirtualTable>
  );
}

function Row({ rated: { row, shown, risk } }: { rated: Rated }) {
  const { gist } = row;
  return (
    <div role="row" className={`${GRID} border-b border-rule py-1 leading-snug hover:bg-sheet`}>
      <span role="cell" className="min-w-0 font-semibold break-words">
        {row.surveyId ? (
          <Link to={`/surveys/${row.surveyId}`} className="hover:text-accent">
            {shown}
          </Link>
        ) : (
          shown
        )}
      </span>
      <span role="cell" className={risk && risk.score >= 5000 ? 'text-rust' : risk && risk.score < 100 ? 'text-faded' : ''}>
        {risk?.words ?? row.state}
      </span>
      <span role="cell" className="max-md:hidden">
        {gist ? GRADE_WORDS[gist.grade] : ''}
      </span>
      <span role="cell" className="max-md:hidden">
        {gist?.sets ?? ''}
      </span>
      <span role="cell" className="min-w-0 break-words max-md:hidden">
        {gist ? (gist.dnsHost ?? <span className="text-faded">not known</span>) : ''}
      </span>
      <span role="cell" className="max-md:hidden">
        {gist?.expires ? new Date(gist.expires * 1000).toISOString().slice(0, 10) : ''}
      </span>
      <span role="cell" className="line-clamp-2 self-start text-sm text-faded max-md:col-span-2" title={row.problem ?? gist?.said.join('\n')}>
        {row.problem ?? gist?.said.join(' ')}
      </span>
    </div>
  );
}

function headline(sweep: SweepView, finished: number): string {
  const failed = sweep.failed > 0 ? `, ${sweep.failed} failed` : '';
  switch (sweep.state) {
    case 'running':
      return `Surveying: ${finished} of ${sweep.rows.length} done${failed}`;
    case 'paused':
      return `Paused: ${finished} of ${sweep.rows.length} done${failed}. What is in hand is finished.`;
    case 'cancelled':
      return `Cancelled: ${sweep.done} surveyed, ${sweep.cancelled} left out${failed}`;
    case 'done':
      return `Done: ${sweep.done} surveyed${failed}`;
  }
}

function csvOf(rows: readonly Rated[]): string {
  return csv(
    ['domain', 'state', 'risk', 'why', 'inventory', 'record sets', 'hints', 'DNS host', 'registrar', 'registered until', 'what to know'],
    rows.map(({ row, risk }) => [
      row.domain,
      row.state,
      String(risk?.score ?? ''),
      risk?.words ?? '',
      row.gist ? GRADE_WORDS[row.gist.grade] : '',
      String(row.gist?.sets ?? ''),
      String(row.gist?.hints ?? ''),
      row.gist?.dnsHost ?? '',
      row.gist?.registrar ?? '',
      row.gist?.expires ? new Date(row.gist.expires * 1000).toISOString().slice(0, 10) : '',
      row.problem ?? row.gist?.said.join(' ') ?? '',
    ]),
  );
}
