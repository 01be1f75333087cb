import { Me, MoveSummary } from '@wanderon/contract';
import { ReactNode } from 'react';
import { Link } from 'react-router';
import { useOpenMoves } from '../api';
import { COARSE, fullTime, relative, shortTime, useNow } from '../time';
import { Button } from '../ui/button';
import { Empty, Failed, Loading } from '../ui/states';
import { Strips } from '../ui/strips';
import { useWindowed } from '../ui/windowed';
import { RowAction } from './rowAction';
import { StartMove } from './startMove';

/** Strips that are drawn: the agenda below must be in sight. */
const STRIPS = 12;

interface Due {
  readonly move: MoveSummary;
  readonly next: NonNullable<MoveSummary['next']>;
}

/** What is due, in the order of time; above it every move in motion on one axis. */
export function DeskPlace({ me }: { me: Me }) {
  const moves = useOpenMoves();
  const { hasNextPage, isFetchingNextPage, isFetchNextPageError, fetchNextPage } = moves;
  const now = useNow(COARSE);
  if (moves.isPending || now === 0)
    return (
      <Page>
        <Loading what="the desk" />
      </Page>
    );
  if (moves.isError && moves.data === undefined)
    return (
      <Page>
        <Failed error={moves.error} retry={() => void moves.refetch()} />
      </Page>
    );
  const open = moves.data.pages.flatMap((page) => page.moves).filter((move) => move.state === 'open');
  const due: Due[] = open.flatMap((move) => (move.next ? [{ move, next: move.next }] : []));
  const at = (one: Due): number => one.next.dueAt ?? now;
  const mine = due.filter((one) => one.next.who === 'you').sort((a, b) => at(a) - at(b));
  const groups: [string, Due[]][] = [
    ['Stopped', mine.filter((one) => one.next.failed)],
    ['Now', mine.filter((one) => !one.next.failed && at(one) <= now)],
    ['Next 48 hours', mine.filter((one) => !one.next.failed && at(one) > now && at(one) <= now + 172_800)],
    ['Later', mine.filter((one) => !one.next.failed && at(one) > now + 172_800)],
    ['Wanderon is at work', due.filter((one) => one.next.who === 'wanderon').sort((a, b) => at(a) - at(b))],
  ];
  return (
    <Page>
      {me.role !== 'viewer' && <StartMove />}
      {open.length === 0 ? (
        <Empty title="No move is under way.">{me.role !== 'viewer' && 'Type a domain above, and Wanderon finds out where it stands.'}</Empty>
      ) : (
        <>
          <section aria-label="Moves in motion" className="mb-6">
            <Strips moves={open.slice(0, STRIPS)} now={now} />
            {(open.length > STRIPS || hasNextPage) && (
              <p className="py-1 text-sm text-faded">
                The {Math.min(STRIPS, open.length)} that come first;{' '}
                <Link to="/moves" className="text-accent hover:underline">
                  Moves
                </Link>{' '}
                has them all.
              </p>
            )}
          </section>
          <section aria-label="Agenda">
            <Agenda
              me={me}
              groups={groups}
              now={now}
              more={hasNextPage && !isFetchingNextPage && !isFetchNextPageError ? () => void fetchNextPage() : undefined}
            />
            {hasNextPage && (
              <Button disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
                {isFetchingNextPage ? 'Reading …' : 'What comes after these'}
              </Button>
            )}
          </section>
        </>
      )}
    </Page>
  );
}

/** Groups with their rows, of which those in sight are drawn. */
function Agenda({ me, groups, now, more }: { me: Me; groups: readonly [string, readonly Due[]][]; now: number; more: (() => void) | undefined }) {
  const rows = groups.flatMap(([title, all]): (string | Due)[] => (all.length > 0 ? [title, ...all] : []));
  const { list, rows: drawn, above, below, measure } = useWindowed<HTMLDivElement>(rows.length, 33, more);
  return (
    <div ref={list} className="mb-4" style={{ paddingTop: above, paddingBottom: below }}>
      {drawn.map((index) => {
        const row = rows[index]!;
        return typeof row === 'string' ? (
          <h2
            key={row}
            ref={measure}
            data-index={index}
            className={`smallcaps border-b border-ink pb-0.5 ${index > 0 ? 'pt-4' : ''} ${row === 'Stopped' ? 'text-rust' : ''}`}
          >
            {row}
          </h2>
        ) : (
          <div key={row.move.id} ref={measure} data-index={index}>
            <AgendaRow me={me} due={row} now={now} />
          </div>
        );
      })}
    </div>
  );
}

function AgendaRow({ me, due: { move, next }, now }: { me: Me; due: Due; now: number }) {
  const later = next.dueAt !== null && next.dueAt > now;
  return (
    <div className="grid grid-cols-[9.5rem_13rem_1fr_auto] items-baseline gap-4 border-b border-rule py-1 hover:bg-sheet max-md:grid-cols-1 max-md:gap-0">
      <span className="text-faded" title={next.dueAt ? fullTime(next.dueAt) : undefined}>
        {later ? shortTime(next.dueAt!) : next.who === 'you' ? 'as soon as you can' : 'under way'}
      </span>
      <Link to={`/moves/${move.id}/${next.chapter}`} className="truncate font-semibold hover:text-accent">
        {move.shown}
      </Link>
      <span>
        <span className={next.failed ? 'text-rust' : next.who === 'you' ? 'text-accent' : ''}>{next.text}</span>
        {later && <span className="text-faded"> · {relative(next.dueAt!, now)}</span>}
        {move.from && move.to && (
          <span className="text-faded">
            {' '}
            · {move.from} → {move.to}
          </span>
        )}
      </span>
      {me.role !== 'viewer' && next.who === 'you' && <RowAction move={move} next={next} due={!later} />}
    </div>
  );
}

function Page({ children }: { children: ReactNode }) {
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <h1 className="sr-only">Desk</h1>
      {children}
    </div>
  );
}
