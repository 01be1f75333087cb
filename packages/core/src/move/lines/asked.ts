import { isDone } from '../steps';
import { askingHosts, openAsked } from '../tasks';
import { LineRule, line } from './line';

/** What the new hosts ask for before the cutover: records that one needs, and what has to be done there. */
export const asked: LineRule = (leg) => {
  const { asked: asks, open } = openAsked(leg, (step) => !isDone(leg, step));
  if (!asks) return undefined;
  const names = askingHosts(leg.plan);
  const ask = `${names.join(' and ')} ${names.length === 1 ? 'asks' : 'ask'}`;
  const still = `${names.join(' and ')} still ${names.length === 1 ? 'asks' : 'ask'} for: `;
  const holds = open.length === 0;
  const words = `${open.slice(0, 3).join('; ')}${open.length > 3 ? `; and ${open.length - 3} more` : ''}`;
  return line(leg, 'asked', holds, holds ? `What ${ask} for beforehand is done.` : `${still}${words}.`, { waivable: true, about: open });
};
