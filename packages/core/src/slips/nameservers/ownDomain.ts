import { plain } from '../../survey/words';
import { nameKey } from '../../watch/verdict';
import { NameSlip, SetContext, SurplusSlip } from './slip';

/** The client's own domain was typed, or a name below it. */
export const ownDomain: NameSlip = ({ typed, wanted, context }) => {
  const what = ofOwnDomain(typed, context);
  if (what === undefined) return undefined;
  const sameLabel = typed.split('.')[0]!.toLowerCase() === wanted.split('.')[0]!.toLowerCase();
  return {
    code: 'own domain',
    cost: isDeep(typed, context) ? 2.6 : sameLabel ? 1.2 : 1.6,
    text: `${typed} is ${what} and no nameserver that the host gave: it is ${wanted}.`,
  };
};

export const ownDomainToo: SurplusSlip = ({ typed, isWanted, context }) => {
  const what = isWanted ? undefined : ofOwnDomain(typed, context);
  return what === undefined
    ? undefined
    : { code: 'own domain', cost: isDeep(typed, context) ? 2 : 0.8, text: `${typed} is ${what} and no nameserver that the host gave: take it out.` };
};

function ofOwnDomain(typed: string, { zone }: SetContext): string | undefined {
  const [key, own] = [nameKey(typed), nameKey(zone)];
  return key === own ? 'the domain that is moved' : key.endsWith(`.${own}`) ? `a name of ${plain(zone)}` : undefined;
}

/** What stands far in front of the domain was more likely meant as a name of its own, to which the domain was appended. */
const isDeep = (typed: string, { zone }: SetContext): boolean => typed.split('.').length > plain(zone).split('.').length + 1;
