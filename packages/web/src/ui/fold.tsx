import { ReactNode } from 'react';

/** A part of a page that says its gist in one line, and all of it when opened. */
export function Fold({ title, gist, alarming = false, children }: { title: string; gist: ReactNode; alarming?: boolean; children: ReactNode }) {
  return (
    <details className="group/fold border-b border-rule open:mb-3 open:border-b-0">
      <summary className="flex cursor-pointer list-none items-baseline gap-3 py-1 hover:bg-sheet group-open/fold:border-b group-open/fold:border-ink">
        <span className="smallcaps w-40 shrink-0">{title}</span>
        <span className={`min-w-0 grow group-open/fold:invisible ${alarming ? 'text-rust' : ''}`}>{gist}</span>
        <span className="shrink-0 text-sm text-accent" aria-hidden>
          <span className="group-open/fold:hidden">open</span>
          <span className="hidden group-open/fold:inline">close</span>
        </span>
      </summary>
      {children}
    </details>
  );
}
