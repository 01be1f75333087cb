import { LegView, StepView } from '@wanderon/contract';
import { lookOfStep } from '@wanderon/core';
import { progressOfMove, useProgress } from '../live';
import { COARSE, relative, shortTime, useNow } from '../time';
import { ProgressBar } from '../ui/progressBar';
import { LookNow } from './lookNow';
import { Ways } from './ways';

/** Where a step stands when it needs words: stopped, waiting for something, or at work; and what a person can do about it. */
export function StepNote({ step, leg, move, may }: { step: StepView | undefined; leg: Pick<LegView, 'looks' | 'looked'>; move: string; may: boolean }) {
  const now = useNow(COARSE);
  const progress = useProgress(progressOfMove(move, step?.id ?? ''));
  if (!step) return null;
  const ways = may ? <Ways step={step.id} ways={step.ways} move={move} /> : null;
  if (step.state === 'stopped')
    return (
      <div role="alert" className="my-2 border-l-4 border-rust bg-shade px-3 py-2">
        <p className="font-semibold">{step.title}: stopped</p>
        <p>{step.text}</p>
        {ways}
      </div>
    );
  if (progress && progress.left !== undefined)
    return (
      <div role="status" className="my-2 border-l-4 border-accent bg-shade px-3 py-1.5">
        <b className="font-semibold">{progress.doing}. </b>
        {progress.asked.toLocaleString('en')} of {(progress.asked + progress.left).toLocaleString('en')} are there.
        <ProgressBar done={progress.asked} left={progress.left} />
        {ways}
      </div>
    );
  const kind = step.state === 'doing' || step.state === 'ready' ? lookOfStep(step.id) : undefined;
  const look = kind !== undefined && leg.looks.includes(kind) ? kind : undefined;
  const speaks = step.state !== 'waiting' && step.state !== 'done' && (step.text !== null || step.ways.length > 0);
  if (!speaks) return null;
  return (
    <div role="status" className="my-2 border-l-4 border-accent bg-shade px-3 py-1.5">
      {step.state === 'ready' && <b className="font-semibold">{step.title}. </b>}
      {step.text} {step.state === 'doing' && !look && <span className="text-faded">Wanderon looks again by itself.</span>}
      {step.dueAt !== null && step.dueAt > now && now > 0 && (
        <span>
          Until {shortTime(step.dueAt)}, {relative(step.dueAt, now)}.
        </span>
      )}
      {look && (
        <span className="block">
          <LookNow kind={look} leg={leg} move={move} may={may} />
        </span>
      )}
      {ways}
    </div>
  );
}
