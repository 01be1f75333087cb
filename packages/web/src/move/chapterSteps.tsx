import { LegView, MoveView } from '@wanderon/contract';
import { CLEAR, Chapter, TASK } from '@wanderon/core';
import { Fragment } from 'react';
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
  return leg.steps
    .filter((step) => step.chapter === chapter && !elsewhere.includes(step.id) && !isAsked(step.id))
    .map((step) => (
      <Fragment key={step.id}>
        <StepNote step={step} move={move.id} may={may} />
        <StepPlaceNote step={step} leg={leg} move={move.id} domain={move.domain} may={may} />
      </Fragment>
    ));
}
