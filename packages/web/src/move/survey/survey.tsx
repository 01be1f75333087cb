import { Name } from '@wanderon/core';
import { MoveSurvey } from '@wanderon/contract';
import { ReactNode, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { part } from '../../ui/part';
import { useToast } from '../../ui/toast';
import { ChapterProps, stepIn } from '../movePlace';
import { StepNote } from '../stepNote';
import { Coverage } from './coverage';
import { Drift } from './drift';
import { Findings } from './findings';
import { Names } from './names';
import { PagesDialog } from './pagesDialog';
import { Running } from './running';
import { Standing } from './standing';
import { Website } from './website';

/** Its reader of whatever may be pasted is read when somebody has something to paste. */
const InHandDialog = part('the dialog', async () => (await import('./inHandDialog')).InHandDialog);

/** What exists: what the inventory claims, where the domain stands and what will hurt later, then every name with its evidence. */
export function Survey({ move, leg, may, now }: ChapterProps) {
  const step = stepIn(leg, 'survey');
  const [giving, setGiving] = useState(false);
  const [listing, setListing] = useState(false);
  const again = useMoveAction<void>(move.id, 'POST', () => '/survey');
  const { fail } = useToast();
  const { survey } = move;
  const open = may && !leg.chosen;
  const running = move.state === 'open' && (leg.surveyAgain || (step?.state === 'doing' && step.text === null));
  const mayAgain = may && step?.state === 'done' && leg.seen.ts === null && !leg.surveyAgain;
  return (
    <section>
      {survey === null && <h2 className="mb-2 text-lg">Survey</h2>}
      <StepNote step={step} leg={leg} move={move.id} may={may} />
      {open && survey === null && step?.state === 'stopped' && <Button onClick={() => setGiving(true)}>Give what you have</Button>}
      {running && <Running move={move} again={survey !== null} may={may} />}
      {survey && (
        <SurveyReport
          survey={survey}
          domain={move.domain}
          move={move.id}
          may={may}
          now={now}
          onList={open ? () => setListing(true) : undefined}
          actions={
            <>
              {may && leg.seen.ts === null && <Button onClick={() => setGiving(true)}>Give what you have</Button>}
              {mayAgain && <Button onClick={() => again.mutate(undefined, { onError: fail })}>Take it again</Button>}
              {open && step?.state === 'done' && (
                <Link
                  to={`/moves/${move.id}/rebuild`}
                  className="rounded-[3px] border border-accent bg-accent px-2.5 py-1 leading-tight text-on-accent hover:brightness-110"
                >
                  Choose where it goes
                </Link>
              )}
            </>
          }
        />
      )}
      {giving && <InHandDialog move={move} served={survey?.sets} onClose={() => setGiving(false)} />}
      {listing && survey && <PagesDialog move={move.id} domain={move.domain} survey={survey} onClose={() => setListing(false)} />}
    </section>
  );
}

/** One survey, of a move or alone. */
export function SurveyReport({
  survey,
  domain,
  move,
  may,
  now,
  actions,
  onList,
}: {
  survey: MoveSurvey;
  domain: string;
  move: string | undefined;
  may: boolean;
  now: number;
  actions?: ReactNode;
  onList?: (() => void) | undefined;
}) {
  const zone = useMemo(() => Name.parse(`${domain}.`), [domain]);
  return (
    <>
      <Coverage survey={survey}>{actions}</Coverage>
      <Findings survey={survey} />
      <div className="mb-3 border-t border-ink">
        <Standing survey={survey} now={now} />
        <Website survey={survey} onList={onList} />
        {move && <Drift move={move} domain={domain} survey={survey} />}
      </div>
      <Names survey={survey} zone={zone} domain={domain} move={move} may={may} />
    </>
  );
}
