import { Verdict } from '@wanderon/core';

/** The five shapes, the same everywhere: old hatched, new solid, mixed half and half, other crossed, none an empty outline. */
export function VerdictMark({ verdict, size = 13 }: { verdict: Verdict; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 14 14" role="img" aria-label={verdict} className="inline-block shrink-0 align-[-0.1em] text-ink">
      {verdict === 'new' && <rect x="0.5" y="0.5" width="13" height="13" fill="var(--accent)" stroke="var(--accent)" />}
      {(verdict === 'old' || verdict === 'mixed') && (
        <path
          d="M1 5 L5 1 M1 9 L9 1 M1 13 L13 1 M5 13 L13 5 M9 13 L13 9"
          stroke="currentColor"
          strokeWidth="1.3"
          clipPath={verdict === 'mixed' ? 'inset(0 50% 0 0)' : undefined}
          style={verdict === 'mixed' ? { clipPath: 'inset(0 50% 0 0)' } : undefined}
        />
      )}
      {verdict === 'mixed' && <rect x="7" y="0.5" width="6.5" height="13" fill="var(--accent)" />}
      {verdict === 'other' && <path d="M1 1 L13 13 M13 1 L1 13" stroke="currentColor" strokeWidth="1.4" />}
      {verdict !== 'new' && <rect x="0.5" y="0.5" width="13" height="13" fill="none" stroke="currentColor" />}
    </svg>
  );
}

export function VerdictWord({ verdict }: { verdict: Verdict }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <VerdictMark verdict={verdict} />
      <span>{verdict}</span>
    </span>
  );
}
