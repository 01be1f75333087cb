/** Milliseconds after the last touch in which somebody counts as being there. */
const THERE = 60_000;
let touched = 0;

/** Begins to notice whether somebody is at the page. */
export function watchAttendance(): void {
  touched = Date.now();
  for (const kind of ['pointerdown', 'keydown', 'wheel'] as const)
    window.addEventListener(kind, () => (touched = Date.now()), { capture: true, passive: true });
}

/** What a page asks by itself while nobody is there keeps no session open. */
export function isAttended(): boolean {
  return Date.now() - touched < THERE;
}
