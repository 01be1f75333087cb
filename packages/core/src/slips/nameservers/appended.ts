import { plain } from '../../survey/words';
import { nameKey } from '../../watch/verdict';
import { NameSlip } from './slip';

/** The form appends the client's own domain to what was typed: `ns1.host.example.client.example`. */
export const appended: NameSlip = ({ typed, key, context }) => {
  const zone = `.${nameKey(context.zone)}`;
  if (!key.endsWith(zone)) return undefined;
  const meant = context.wanted.find((name) => nameKey(name) === `${key.slice(0, -zone.length)}.`);
  if (!meant) return undefined;
  const wanted = plain(meant);
  return { code: 'appended', wanted, text: `${typed} has the domain appended: it is ${wanted}. Some forms want a dot at the end for that.` };
};
