import { plain } from '../../survey/words';
import { nameKey } from '../../watch/verdict';
import { NameSlip } from './slip';

/** The client's own domain was typed, or a name below it. */
export const ownDomain: NameSlip = ({ typed, key, missing, context }) => {
  const zone = nameKey(context.zone);
  if (key !== zone && !key.endsWith(`.${zone}`)) return undefined;
  const [wanted] = missing;
  const what = key === zone ? 'the domain that is moved' : `a name of ${plain(context.zone)}`;
  return {
    code: 'own domain',
    wanted: wanted ?? null,
    text: `${typed} is ${what} and no nameserver of the host${wanted ? `: it is ${wanted}` : ': take it out'}.`,
  };
};
