import { LegView, Me, MoveView, StepView } from '@wanderon/contract';
import { useEffect } from 'react';
import { Link, NavLink, useNavigate, useParams } from 'react-router';
import { useMove } from '../api';
import { isTyping } from '../shell/shell';
import { useNow } from '../time';
import { Line } from '../ui/line';
import { Failed, Loading } from '../ui/states';
import { Rebuild } from './rebuild/rebuild';
import { Survey } from './survey/survey';
import { Switch } from './switch/switch';
import { Timetable } from './timetable/timetable';
import { Trail } from './trail';
import { Watch } from './watch/watch';

export const CHAPTERS = ['survey', 'rebuild', 'timetable', 'switch', 'watch'] as const;
const TITLES = { survey: 'Survey', rebuild: 'Rebuild', timetable: 'Timetable', switch: 'Switch', watch: 'Watch' };

export interface ChapterProps {
  readonly move: MoveView;
  readonly leg: LegView;
  readonly me: Me;
  readonly now: number;
  /** False for viewers and for moves that have ended. */
  readonly may: boolean;
}

export function stepIn(leg: LegView, kind: StepView['kind']): StepView {
  return leg.steps.find((step) => step.kind === kind)!;
}

export function MovePlace({ me }: { me: Me }) {
  const { id = '', chapter = 'survey' } = useParams();
  const move = useMove(id);
  const now = useNow();
  const go = useNavigate();
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      const index = Number(event.key) - 1;
      if (!isTyping(event) && CHAPTERS[index]) void go(`/moves/${id}/${CHAPTERS[index]}`);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [go, id]);
  if (move.isPending || now === 0)
    return (
      <div className="px-4 py-5">
        <Loading what="the move" />
      </div>
    );
  if (move.isError)
    return (
      <div className="mx-auto w-full max-w-xl px-4 py-5">
        <Failed error={move.error} retry={() => void move.refetch()} />
      </div>
    );
  const leg = move.data.legs.at(-1)!;
  const props: ChapterProps = { move: move.data, leg, me, now, may: me.role !== 'viewer' && move.data.state === 'open' };
  return (
    <div className="flex h-[calc(100vh-2.45rem)] flex-col max-md:h-auto">
      <div className="flex min-h-0 grow max-md:flex-col">
        <nav aria-label="Chapters" className="w-52 shrink-0 overflow-y-auto border-r border-rule py-4 pl-4 max-md:w-full max-md:border-r-0 max-md:py-2">
          <Link to="/moves" className="text-sm text-faded hover:text-accent">
            Moves
          </Link>
          <h1 className="mb-1 pr-3 text-[1.2rem] break-words">{move.data.shown}</h1>
          {move.data.shown !== move.data.domain && <p className="mono mb-1 pr-3 text-faded break-all">{move.data.domain}</p>}
          {move.data.state !== 'open' && <p className="mb-1 text-faded">{move.data.state}</p>}
          <ol className="mt-3 max-md:flex max-md:flex-wrap">
            {CHAPTERS.map((one, index) => {
              const lacks = lacksOf(leg, one);
              return (
                <li key={one}>
                  <NavLink
                    to={`/moves/${id}/${one}`}
                    className={({ isActive }) =>
                      `-ml-4 block border-l-[3px] py-1.5 pr-3 max-md:ml-0 max-md:pl-1 pl-[0.85rem] leading-snug ${isActive ? 'border-accent bg-shade' : 'border-transparent hover:bg-shade'}`
                    }
                  >
                    <span className="flex justify-between font-semibold">
                      {TITLES[one]} <span className="mono font-normal text-faded max-md:hidden">{index + 1}</span>
                    </span>
                    <span className={`block text-sm max-md:hidden ${lacks.failed ? 'text-rust' : lacks.mine ? 'text-accent' : 'text-faded'}`}>
                      {lacks.text}
                    </span>
                  </NavLink>
                </li>
              );
            })}
            <li className="mt-3 max-md:mt-0">
              <NavLink
                to={`/moves/${id}/trail`}
                className={({ isActive }) =>
                  `-ml-4 block border-l-[3px] py-1 max-md:ml-0 pl-[0.85rem] text-faded ${isActive ? 'border-accent bg-shade' : 'border-transparent hover:bg-shade'}`
                }
              >
                What was done
              </NavLink>
            </li>
          </ol>
        </nav>
        <div data-scrolls className="min-w-0 grow overflow-y-auto px-5 py-4">
          {chapter === 'survey' && <Survey {...props} />}
          {chapter === 'rebuild' && <Rebuild {...props} />}
          {chapter === 'timetable' && <Timetable {...props} />}
          {chapter === 'switch' && <Switch {...props} />}
          {chapter === 'watch' && <Watch {...props} />}
          {chapter === 'trail' && <Trail id={id} />}
        </div>
      </div>
      <footer className="shrink-0 border-t border-ink bg-paper px-6 pt-1 pb-1.5">
        <Line move={move.data} now={now} />
      </footer>
    </div>
  );
}

/** What a chapter still lacks, in words. */
function lacksOf(leg: LegView, chapter: (typeof CHAPTERS)[number]): { text: string; mine: boolean; failed: boolean } {
  const steps = leg.steps.filter((step) => step.chapter === chapter);
  const failed = steps.find((step) => step.state === 'failed');
  if (failed) return { text: `Stopped: ${failed.title.toLowerCase()}`, mine: true, failed: true };
  const ready = steps.find((step) => step.state === 'ready' && step.decidedAt === null);
  if (ready) return { text: ready.title, mine: true, failed: false };
  const doing = steps.find((step) => step.state === 'doing' || step.state === 'due');
  if (doing) return { text: doing.problem ?? `${doing.title} …`, mine: false, failed: false };
  if (steps.every((step) => step.state === 'done')) return { text: 'done', mine: false, failed: false };
  return { text: steps.some((step) => step.state === 'done') ? 'waits for the chapters beside it' : 'not yet', mine: false, failed: false };
}
