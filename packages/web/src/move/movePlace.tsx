import { LegView, Me, MoveSurvey, MoveView, Part, StepView, WatchView, partsOf } from '@wanderon/contract';
import { CHAPTERS, Chapter, uncapital } from '@wanderon/core';
import { ReactNode, useState } from 'react';
import { Link, NavLink, useNavigate, useParams, useSearchParams } from 'react-router';
import { LegContext, useLedger, useLegSurvey, useMove, useWatch } from '../api';
import { Ledger } from '../readLedger';
import { useKeys } from '../ui/useKeys';
import { COARSE, useNow } from '../time';
import { Line } from '../ui/line';
import { part } from '../ui/part';
import { Failed, Loading } from '../ui/states';
import { askedOf } from './asked/askedOf';
import { AbandonDialog } from './abandonDialog';
import { LegTabs } from './legTabs';
import { legOf } from './legOf';
import { Notes } from './notes';
import { Rebuild } from './rebuild/rebuild';
import { Survey } from './survey/survey';
import { ChangeInPlace } from './switch/changeInPlace';
import { Switch } from './switch/switch';
import { Timetable } from './timetable/timetable';
import { Trail } from './trail';
import { Watch } from './watch/watch';

// Read when they are opened: not every move has them, and none begins with them.
const AskedPage = part('what it asks for', async () => (await import('./asked/askedPage')).AskedPage);
const Compare = part('both sides', async () => (await import('./compare/compare')).Compare);
const Sheet = part('the sheet', async () => (await import('./sheet/sheet')).Sheet);
const TtlSheet = part('the sheet', async () => (await import('./sheet/ttlSheet')).TtlSheet);

const TITLES = { survey: 'Survey', rebuild: 'Rebuild', timetable: 'Timetable', switch: 'Switch', watch: 'Watch' };

/** A leg with its rows, for the chapters that ask for them (`partsOf`). */
export type OpenLeg = LegView & Ledger;

export interface ChapterProps {
  readonly move: MoveView & { readonly survey: MoveSurvey | null; readonly watch: WatchView | null };
  readonly leg: LegView;
  readonly me: Me;
  readonly now: number;
  /** False for viewers, and for moves and legs that are over. */
  readonly may: boolean;
}

/** The same for a chapter that shows rows of the plan: it is not drawn before they are there. */
export interface LedgerProps extends ChapterProps {
  readonly leg: OpenLeg;
}

/** A step of the leg; undefined where its plan has none like that. */
export function stepIn(leg: LegView, id: string): StepView | undefined {
  return leg.steps.find((step) => step.id === id);
}

export function MovePlace({ me }: { me: Me }) {
  const { id = '', chapter = 'survey' } = useParams();
  const [search] = useSearchParams();
  const move = useMove(id);
  const current = legOf(move.data, search.get('leg'));
  const legId = current?.id;
  const wants = (part: Part): boolean => partsOf(chapter).includes(part);
  const parts = { survey: useLegSurvey(current, wants('survey')), ledger: useLedger(id, legId, wants('ledger')), watch: useWatch(id, legId, wants('watch')) };
  const [leaving, setLeaving] = useState(false);
  const now = useNow(COARSE);
  const go = useNavigate();
  useKeys(Object.fromEntries(CHAPTERS.map((one, index) => [index + 1, () => go({ pathname: `/moves/${id}/${one}`, search: search.toString() })])));
  const rows = parts.ledger.data;
  /** Some rows are there: the ledger shows these, and whatever counts on all of them waits. */
  const isPart = wants('ledger') && rows !== undefined && rows.rulings.length < rows.total;
  const isLacking = (part: Part): boolean => parts[part].data === undefined || (part === 'ledger' && isPart && chapter !== 'rebuild');
  const lacking = partsOf(chapter).filter(isLacking);
  // What was read before stays on the screen while it cannot be read anew.
  const failed = move.isError && move.data === undefined ? move : lacking.map((part) => parts[part]).find((one) => one.isError);
  if (failed)
    return (
      <div className="mx-auto w-full max-w-xl px-4 py-5">
        <Failed error={failed.error} retry={() => void failed.refetch()} />
      </div>
    );
  if (move.data === undefined || now === 0 || lacking.length > 0)
    return (
      <div className="px-4 py-5">
        <Loading what={isPart ? 'all rows of the plan' : 'the move'} />
      </div>
    );
  const head = current!;
  const leg = head;
  const open: OpenLeg | undefined = parts.ledger.data && { ...head, ...parts.ledger.data };
  const props: ChapterProps = {
    move: { ...move.data, survey: parts.survey.data ?? null, watch: parts.watch.data ?? null },
    leg,
    me,
    now,
    may: me.role !== 'viewer' && move.data.state === 'open' && !head.followed,
  };
  return (
    <LegContext value={legId}>
      <div className="flex h-[calc(100vh-2.45rem)] flex-col max-md:h-auto print:h-auto">
        <div className="flex min-h-0 grow max-md:flex-col">
          <nav
            aria-label="Chapters"
            className="print:hidden w-52 shrink-0 overflow-y-auto border-r border-rule py-4 pl-4 max-md:w-full max-md:border-r-0 max-md:py-2"
          >
            <Link to="/moves" className="text-sm text-faded hover:text-accent">
              Moves
            </Link>
            <h1 className="mb-1 pr-3 text-[1.2rem] break-words">{move.data.shown}</h1>
            {move.data.shown !== move.data.domain && <p className="mono mb-1 pr-3 text-faded break-words">{move.data.domain}</p>}
            <LegTabs move={move.data} leg={head} />
            {move.data.state !== 'open' && <p className="mb-1 text-faded">{move.data.state}</p>}
            <ol className="mt-3 max-md:flex max-md:flex-wrap">
              {CHAPTERS.map((one, index) => {
                const lacks = lacksOf(leg, one);
                return (
                  <li key={one}>
                    <NavLink
                      to={{ pathname: `/moves/${id}/${one}`, search: search.toString() }}
                      className={({ isActive }) =>
                        `-ml-4 block border-l-[3px] py-1.5 pr-3 max-md:ml-0 max-md:pl-1 pl-[0.85rem] leading-snug ${isActive ? 'border-accent bg-shade' : 'border-transparent hover:bg-shade'}`
                      }
                    >
                      <span className="flex justify-between font-semibold">
                        {TITLES[one]} <span className="mono font-normal text-faded max-md:hidden">{index + 1}</span>
                      </span>
                      <span className={`line-clamp-3 text-sm max-md:hidden ${lacks.failed ? 'text-rust' : lacks.mine ? 'text-accent' : 'text-faded'}`}>
                        {lacks.text}
                      </span>
                    </NavLink>
                  </li>
                );
              })}
              {leg.asked && (
                <li className="mt-3 max-md:mt-0">
                  <SideLink to="asked">
                    At {leg.asked.hosts.join(' and ')}
                    {askedOf(leg).open.length > 0 && <span className="block text-sm text-accent max-md:hidden">{askedOf(leg).open.length} open</span>}
                  </SideLink>
                </li>
              )}
              {leg.byHand && (
                <li className="mt-3 max-md:mt-0">
                  <SideLink to="sheet">Handover sheet</SideLink>
                </li>
              )}
              {leg.survey && (
                <li className={leg.byHand ? '' : 'mt-3 max-md:mt-0'}>
                  <SideLink to="compare">Side by side</SideLink>
                </li>
              )}
              <li className={leg.byHand || leg.survey ? '' : 'mt-3 max-md:mt-0'}>
                <SideLink to="notes">Notes and tasks</SideLink>
              </li>
              <li>
                <SideLink to="trail">What was done</SideLink>
              </li>
              {props.may && (
                <li>
                  <button
                    type="button"
                    onClick={() => setLeaving(true)}
                    className="-ml-4 block cursor-pointer border-l-[3px] border-transparent py-1 pl-[0.85rem] text-left text-faded hover:text-rust max-md:ml-0"
                  >
                    Abandon the move
                  </button>
                </li>
              )}
            </ol>
          </nav>
          <div data-scrolls className="min-w-0 grow overflow-y-auto px-5 py-4 print:overflow-visible">
            {isPart && parts.ledger.isError && <Failed error={parts.ledger.error} retry={() => void parts.ledger.refetch()} />}
            {chapter === 'survey' && <Survey {...props} />}
            {chapter === 'rebuild' && open && <Rebuild {...props} leg={open} />}
            {chapter === 'timetable' && <Timetable {...props} />}
            {chapter === 'switch' && leg.kind === 'delegation' && <Switch {...props} />}
            {chapter === 'switch' && leg.kind === 'repoint' && open && <ChangeInPlace {...props} leg={open} />}
            {chapter === 'watch' && <Watch {...props} />}
            {chapter === 'trail' && <Trail id={id} />}
            {chapter === 'notes' && <Notes key={leg.id} {...props} />}
            {chapter === 'sheet' && open && <Sheet {...props} leg={open} />}
            {(chapter === 'lower' || chapter === 'raise') && open && <TtlSheet {...props} leg={open} which={chapter} />}
            {chapter === 'compare' && open && <Compare {...props} leg={open} />}
            {chapter === 'asked' && <AskedPage {...props} />}
          </div>
        </div>
        <footer className="print:hidden shrink-0 border-t border-ink bg-paper px-6 pt-1 pb-1.5">
          <Line move={move.data} now={now} />
        </footer>
        {leaving && <AbandonDialog move={move.data} leg={head} onClose={() => setLeaving(false)} />}
      </div>
    </LegContext>
  );
}

/** A page of a move beside its chapters. */
function SideLink({ to, children }: { to: string; children: ReactNode }) {
  const { id = '' } = useParams();
  const [search] = useSearchParams();
  return (
    <NavLink
      to={{ pathname: `/moves/${id}/${to}`, search: search.toString() }}
      className={({ isActive }) =>
        `-ml-4 block border-l-[3px] py-1 pr-3 max-md:ml-0 pl-[0.85rem] text-faded ${isActive ? 'border-accent bg-shade' : 'border-transparent hover:bg-shade'}`
      }
    >
      {children}
    </NavLink>
  );
}

/** What a chapter still lacks, in words. */
function lacksOf(leg: LegView, chapter: Chapter): { text: string; mine: boolean; failed: boolean } {
  const steps = leg.steps.filter((step) => step.chapter === chapter);
  const failed = steps.find((step) => step.state === 'stopped');
  if (failed) return { text: `Stopped: ${uncapital(failed.title)}`, mine: true, failed: true };
  const ready = steps.find((step) => step.state === 'ready');
  if (ready) return { text: ready.title, mine: true, failed: false };
  const doing = steps.find((step) => step.state === 'doing' || step.state === 'due');
  if (doing) return { text: doing.text ?? `${doing.title} …`, mine: false, failed: false };
  if (steps.length === 0 && !leg.chosen) return { text: 'not yet', mine: false, failed: false };
  if (steps.every((step) => step.state === 'done' || step.state === 'left')) return { text: 'done', mine: false, failed: false };
  return { text: steps.some((step) => step.state === 'done') ? 'waits for the chapters beside it' : 'not yet', mine: false, failed: false };
}
