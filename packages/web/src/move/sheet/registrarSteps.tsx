import { RegistrarStep } from '@wanderon/core';
import { Copy } from '../../ui/copy';

/** What is typed and pressed at a registrar, one after the other. */
export function RegistrarSteps({
  steps,
  done,
  onTick,
}: {
  steps: readonly RegistrarStep[];
  done: ReadonlySet<string>;
  /** Undefined: nothing can be ticked. */
  onTick: ((row: string, is: boolean) => void) | undefined;
}) {
  return (
    <ol>
      {steps.map((step) => (
        <li key={step.id} className="grid grid-cols-[1.25rem_1fr] items-baseline gap-3 border-t border-rule py-1">
          <input
            type="checkbox"
            aria-label={step.copy && step.isName ? `${step.copy} is typed` : step.text}
            disabled={!onTick}
            checked={done.has(step.id)}
            onChange={(event) => onTick?.(step.id, event.target.checked)}
          />
          <div className={done.has(step.id) ? 'text-faded' : ''}>
            {step.copy !== undefined && (
              <span className={`mono text-[1rem] whitespace-pre-line ${done.has(step.id) ? 'line-through' : 'font-semibold'}`}>
                {step.copy} <Copy value={step.copy} label={step.copy} />
              </span>
            )}
            <span className={step.copy !== undefined && step.id !== 'list' ? 'ml-2 text-sm text-faded' : 'block'}>{step.text}</span>
          </div>
        </li>
      ))}
    </ol>
  );
}
