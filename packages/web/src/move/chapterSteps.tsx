import { LegView } from '@wanderon/contract';
import { CLEAR, Chapter, TASK } from '@wanderon/core';
import { StepNote } from './stepNote';

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
  leg: Pick<LegView, 'steps' | 'asked'>;
  chapter: Chapter;
  move: string;
  may: boolean;
  elsewhere?: readonly string[];
}) {
  const isAsked = (id: string): boolean => leg.asked !== null && (id.startsWith(TASK) || id.startsWith(CLEAR));
  return leg.steps
    .filter((step) => step.chapter === chapter && !elsewhere.includes(step.id) && !isAsked(step.id))
    .map((step) => <StepNote key={step.id} step={step} move={move} may={may} />);
}
