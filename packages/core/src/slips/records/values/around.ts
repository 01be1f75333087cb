import { ValueSlip, shown } from '../slip';
import { hasTarget, inSentence } from '../typedValue';

const TYPES = /^(?:IN )?(?:A|AAAA|CNAME|MX|TXT|SRV|NS|CAA|TLSA|SPF|PTR)$/i;

/**
 * More came into the field than the value: its TTL, its priority, its type or its name, which have fields of their own.
 *
 *     around: is '3600 edge.host.example', was 'edge.host.example'  // “3600” in front of the value is a TTL
 */
export const around: ValueSlip = ({ is, was, type, wrong: { owner, zone } }) => {
  const at = is.toLowerCase().indexOf(was.toLowerCase());
  if (at < 0 || is.length === was.length) return undefined;
  const [front, behind] = [is.slice(0, at).trim(), is.slice(at + was.length).trim()];
  // A blank is between them, or it is one word.
  if ((front !== '' && !/\s$/.test(is.slice(0, at))) || (behind !== '' && !/^\s/.test(is.slice(at + was.length)))) return undefined;
  const extra = `${front} ${behind}`.trim();
  if (extra === '') return undefined;
  const value = `The value is ${inSentence(was)} alone.`;
  const found = (code: string, text: string): ReturnType<ValueSlip> => ({ code, cost: 1, text: `${text} ${value}` });
  if ((type === 'MX' || type === 'SRV') && /^[\d ]+$/.test(front) && behind === '')
    return found('priority inside', 'The priority stands inside the value: it has a field of its own.');
  if (/^\d+[smhdw]?$/i.test(extra)) return found('ttl inside', `“${extra}” stands inside the value, as a TTL does: it has a field of its own.`);
  if (TYPES.test(extra)) return found('type inside', `“${extra}” stands inside the value: the type has a field of its own.`);
  const words = extra.toLowerCase().split(/\s+/);
  const names = [shown(owner), `${owner}`, shown(zone), owner.slice(0, -zone.length - 1), '@'].map((name) => name.toLowerCase());
  if (words.every((word) => names.includes(word) || TYPES.test(word) || word === 'in' || /^\d+$/.test(word)))
    return found('line inside', `“${inSentence(extra)}” stands inside the value: the name and what belongs to it have fields of their own.`);
  return hasTarget(type) || words.length <= 3 ? { ...found('more inside', `“${inSentence(extra)}” stands beside the value.`)!, cost: 1.4 } : undefined;
};
