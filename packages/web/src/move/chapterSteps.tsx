import { LegView, MoveView } from '@wanderon/contract';
import { CLEAR, Chapter, TASK } from '@wanderon/core';
import { Fragment } from 'react';
import { Link } from 'react-router';
import { StepNote } from './stepNote';
import { StepPlaceNote } from './where/stepPlaceNote';

/**
 * Every step of a chapter that has something to say, or that a person can do something about. `elsewhere`: steps for which the page has a
 * place of its own. What the new hosts ask for has a page of its own.
 */
export function ChapterSteps({
  leg,
  chapter,
  move,
  may,
  elsewhere = [],
}: {
  leg: LegView;
  chapter: Chapter;
  move: Pick<MoveView, 'id' | 'domain'>;
  may: boolean;
  elsewhere?: readonly string[];
}) {
  const isAsked = (id: string): boolean => leg.asked !== null && (id.startsWith(TASK) || id.startsWith(CLEAR));
  const shown = leg.steps.filter((step) => step.chapter === chapter && !elsewhere.includes(step.id) && !isAsked(step.id));
  return (
    <>
      {shown.map((step) => (
        <Fragment key={step.id}>
          <StepNote step={step} leg={leg} move={move.id} may={may} />
          <StepPlaceNote step={step} leg={leg} move={move.id} domain={move.domain} may={may} />
        </Fragment>
      ))}
      {may && <Meanwhile leg={leg} chapter={chapter} move={move.id} />}
    </>
  );
}

/** What can be done elsewhere while this chapter waits. */
function Meanwhile({ leg, chapter, move }: { leg: LegView; chapter: Chapter; move: string }) {
  const here = leg.steps.filter((step) => step.chapter === chapter);
  const waits = here.some((step) => step.state === 'doing' || step.state === 'due') && !here.some((step) => step.state === 'ready' || step.state === 'stopped');
  const other = leg.steps.find((step) => step.state === 'ready' && step.chapter !== chapter);
  if (!waits || !other) return null;
  return (
    <p className="my-2 text-faded">
      Meanwhile:{' '}
      <Link className="text-accent underline" to={`/moves/${move}/${other.chapter}`}>
        {other.title}
      </Link>
    </p>
  );
}
