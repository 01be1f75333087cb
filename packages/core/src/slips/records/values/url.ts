import { ValueSlip } from '../slip';

/** A URL was typed where a name is asked for, or what is left of one: `https://edge.host.example/`. */
export const url: ValueSlip = ({ is, was }) => {
  const name = is
    .replace(/^[a-z][a-z0-9+.-]*:(?:\/\/|\/)?/i, '')
    .replace(/[/?#].*$/s, '')
    .replace(/:\d+$/, '')
    .replace(/\.$/, '');
  if (name === is || name.toLowerCase() !== was.toLowerCase()) return undefined;
  const what = /^[a-z][a-z0-9+.-]*:\//i.test(is) ? 'is a URL' : /:\d+$/.test(is) ? 'has a port' : 'has a path behind the name';
  return { code: 'url', cost: 1, text: `${is} ${what}: only the name is typed, ${was}.` };
};
