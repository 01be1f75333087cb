import { unsent } from './unsent';

/**
 * Loads the page again where the server has a newer program than the page runs, of which the parts are gone: told by the page that it gives
 * now. Not while acts wait for their answers, which would be lost with the page.
 */
export async function reloadIfNewer(): Promise<void> {
  const mine = document.querySelector('script[type=module]')?.getAttribute('src');
  if (!mine || unsent.waiting() > 0) return;
  const given = await fetch(window.location.pathname).then(
    (response) => (response.ok ? response.text() : undefined),
    // Nobody answers: the same program may be there in a moment.
    () => undefined,
  );
  if (given !== undefined && !given.includes(mine) && unsent.waiting() === 0) window.location.reload();
}
