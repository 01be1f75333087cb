import { StepView } from '@wanderon/contract';
import { useMoveAction } from '../api';
import { Button } from '../ui/button';
import { useToast } from '../ui/toast';

/** Where a step stands when it needs words: stopped, waiting for something, or at work. */
export function StepNote({ step, move, may }: { step: StepView; move: string; may: boolean }) {
  const act = useMoveAction<{ step: string; action: 'retry' | 'skip' }>(move, 'POST', () => '/steps');
  const { fail } = useToast();
  const skippable = ['lower', 'turn', 'raise'].includes(step.kind);
  if (step.state === 'failed')
    return (
      <div role="alert" className="my-2 border-l-4 border-rust bg-shade px-3 py-2">
        <p className="font-semibold">{step.title}: stopped</p>
        <p>{step.problem}</p>
        {may && (
          <p className="mt-1 flex gap-2">
            <Button onClick={() => act.mutate({ step: step.kind, action: 'retry' }, { onError: fail })}>Try again</Button>
            {skippable && <Button onClick={() => act.mutate({ step: step.kind, action: 'skip' }, { onError: fail })}>I have done it by hand</Button>}
          </p>
        )}
      </div>
    );
  if ((step.state === 'doing' || step.state === 'due') && step.problem)
    return (
      <p role="status" className="my-2 border-l-4 border-accent bg-shade px-3 py-1.5">
        {step.problem} <span className="text-faded">Wanderon looks again by itself.</span>
      </p>
    );
  return null;
}
