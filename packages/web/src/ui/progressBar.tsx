/** A thin bar: how much of long work is done. Its words stand beside it. */
export function ProgressBar({ done, left }: { done: number; left: number }) {
  return (
    <div className="mt-1.5 h-[3px] bg-rule" aria-hidden>
      <div className="h-full bg-accent" style={{ width: `${Math.round((100 * done) / Math.max(1, done + left))}%` }} />
    </div>
  );
}
